using System.Buffers;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.PlayerProtocol;

/// <summary>The talk with a player process: JSON, a message a line, over its standard streams. Compiled ahead of time, so that nothing of
/// it is worked out while something plays.</summary>
public static class PlayerTalk
{
    public const int Version = 2;

    /// <summary>Bytes of the longest line: the largest timeline that can be kept takes less.</summary>
    public const int LongestLine = 64 << 20;

    internal const byte LineEnd = (byte)'\n';

    private static readonly PlayerTalkTypes Types = new(new JsonSerializerOptions(PlayerTalkTypes.Default.Options)
    {
        Converters = { new RasterConverter(), new FrameRateConverter() },
    });

    public static JsonTypeInfo<PlayerRequest> Asks => Types.PlayerRequest;

    public static JsonTypeInfo<PlayerEvent> Tells => Types.PlayerEvent;

    /// <summary>Writes a message and its line's end, and sees it off.</summary>
    /// <exception cref="IOException">Nobody reads any more.</exception>
    public static void Write<T>(Stream to, T message, JsonTypeInfo<T> type)
    {
        var line = new ArrayBufferWriter<byte>(1024);
        using (var writer = new Utf8JsonWriter(line))
        {
            JsonSerializer.Serialize(writer, message, type);
        }

        line.Write([LineEnd]);
        to.Write(line.WrittenSpan);
        to.Flush();
    }

    /// <exception cref="JsonException">It is none.</exception>
    public static T Read<T>(ReadOnlySpan<byte> line, JsonTypeInfo<T> type)
        where T : class => JsonSerializer.Deserialize(line, type) ?? throw new JsonException("The line is empty.");
}

/// <summary>Reads a stream line by line, none longer than so many bytes. Used by one at a time.</summary>
public sealed class BoundedLines(Stream from, int longest = PlayerTalk.LongestLine)
{
    private byte[] buffer = new byte[16 << 10];
    private int begin, end;

    /// <returns>The line without its end, good until the next call; null when the stream is over, whatever stood on a line that never
    /// ended.</returns>
    /// <exception cref="InvalidDataException">A line is too long.</exception>
    public async ValueTask<ReadOnlyMemory<byte>?> ReadAsync(CancellationToken stop)
    {
        for (var searched = 0; ;)
        {
            var found = buffer.AsSpan(begin + searched, end - begin - searched).IndexOf(PlayerTalk.LineEnd);
            if (found >= 0)
            {
                var line = buffer.AsMemory(begin, searched + found);
                begin += searched + found + 1;
                return line;
            }

            searched = end - begin;
            MakeRoom();
            var read = await from.ReadAsync(buffer.AsMemory(end), stop);
            if (read == 0)
            {
                return null;
            }

            end += read;
        }
    }

    private void MakeRoom()
    {
        var length = end - begin;
        if (length > longest)
        {
            throw new InvalidDataException($"A line of over {longest} bytes came; nothing that long is ever said.");
        }

        if (end < buffer.Length)
        {
            return;
        }

        var into = length > buffer.Length / 2 ? new byte[buffer.Length * 2] : buffer;
        buffer.AsSpan(begin, length).CopyTo(into);
        (buffer, begin, end) = (into, 0, length);
    }
}

[JsonSourceGenerationOptions(
    JsonSerializerDefaults.Web,
    DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    IgnoreReadOnlyProperties = true,
    RespectNullableAnnotations = true,
    UseStringEnumConverter = true,
    NumberHandling = JsonNumberHandling.AllowNamedFloatingPointLiterals)]
[JsonSerializable(typeof(PlayerRequest))]
[JsonSerializable(typeof(PlayerEvent))]
internal sealed partial class PlayerTalkTypes : JsonSerializerContext;
