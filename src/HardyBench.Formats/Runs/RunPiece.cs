using System.Text;
using System.Text.Json;
using HardyBench.Core.Playback;
using HardyBench.Formats.Json;
using HardyBench.Formats.PlayerProtocol;

namespace HardyBench.Formats.Runs;

/// <summary>What a run in play delivered in a second or so, as the player reports it: one line of JSON. It is written beside the
/// playing, so it is the cheapest format; a finished run is saved in columns.</summary>
public static class RunPiece
{
    public static byte[] Write(RunProgress news) =>
        JsonSerializer.SerializeToUtf8Bytes(new PlayerEvent { Progressed = news with { Decisions = [] } }, PlayerTalk.Tells);

    /// <summary>Reads one back; pieces of earlier versions were columns.</summary>
    /// <exception cref="InvalidDataException">It is neither.</exception>
    public static async Task<(IReadOnlyList<FrameRecord> Frames, IReadOnlyList<LoadReading> Loads)> ReadAsync(byte[] piece)
    {
        if (piece.AsSpan().StartsWith("PAR1"u8))
        {
            return await RunColumns.ReadAsync(piece);
        }

        try
        {
            var news =
                PlayerTalk.Read(WithPresentNames(piece), PlayerTalk.Tells).Progressed
                ?? throw new InvalidDataException("A piece of a run is empty.");
            return (news.Frames, news.Loads);
        }
        catch (JsonException broken)
        {
            throw new InvalidDataException("A piece of a run cannot be read.", broken);
        }
    }

    /// <summary>Pieces spell values with a capital. No text in them comes from people but messages of failures, in which a quote is
    /// escaped.</summary>
    private static byte[] WithPresentNames(byte[] piece)
    {
        var text = Encoding.UTF8.GetString(piece);
        var renamed = FormerNames.Values.Aggregate(
            text, (all, value) => all.Replace(Quoted(value.Former), Quoted(value.Now), StringComparison.Ordinal));
        return ReferenceEquals(renamed, text) ? piece : Encoding.UTF8.GetBytes(renamed);
    }

    private static string Quoted(string name) => $"\"{char.ToUpperInvariant(name[0])}{name[1..]}\"";
}
