using System.Buffers.Binary;
using System.Text;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Formats.PlayerProtocol;

namespace HardyBench.Workbench.Playing;

/// <summary>The pictures of a passage, made in a process apart.</summary>
/// <param name="started">Told of that process; null for nobody.</param>
public sealed class HostPictures(PlayerProgram program, IClipFiles files, EffectPlaces effects, Action<int>? started = null)
    : IPassagePictures
{
    /// <summary>Of the largest raster there is, 16 bits a sample in three planes.</summary>
    private const int LargestPicture = 1 << 30;

    /// <inheritdoc />
    public IEnumerable<ReadOnlyMemory<byte>> Of(PlaybackPlan plan, int index, CancellationToken stop)
    {
        var clips = HostPlayback.PlacesOf(plan, files);
        var home = program.NewHome();
        using var process = program.Start(home, program.Unreached(clips.Values.Select(place => place.Path).OfType<string>()), "render");
        started?.Invoke(process.Id);
        var errors = process.StandardError.ReadToEndAsync(CancellationToken.None);
        using var stopping = stop.Register(() => process.Kill(entireProcessTree: true));
        try
        {
            PlayerTalk.Write(
                process.StandardInput.BaseStream,
                new PlayerRequest { Render = new StartRender(plan, index, clips, effects) },
                PlayerTalk.Asks
            );
            var (from, length) = (process.StandardOutput.BaseStream, new byte[sizeof(int)]);
            var picture = Array.Empty<byte>();
            while (from.ReadAtLeast(length, length.Length, throwOnEndOfStream: false) == length.Length)
            {
                var size = BinaryPrimitives.ReadInt32LittleEndian(length);
                picture = size is > 0 and <= LargestPicture
                    ? (picture.Length == size ? picture : new byte[size])
                    : throw new MediaException("the player sent no picture");
                if (from.ReadAtLeast(picture, size, throwOnEndOfStream: false) < size)
                {
                    break;
                }

                yield return picture;
            }

            stop.ThrowIfCancellationRequested();
            process.WaitForExit();
            if (process.ExitCode != 0)
            {
                throw new MediaException(WhyOf(errors.Result) ?? $"the player ended with code {process.ExitCode}");
            }
        }
        finally
        {
            if (!process.HasExited)
            {
                process.Kill(entireProcessTree: true);
            }

            PlayerProgram.DeleteHome(home);
        }
    }

    /// <summary>The last line that says why.</summary>
    private static string? WhyOf(string errors)
    {
        var line = errors.Split('\n', StringSplitOptions.RemoveEmptyEntries).LastOrDefault();
        try
        {
            return line is null ? null : PlayerTalk.Read(Encoding.UTF8.GetBytes(line), PlayerTalk.Tells).Failed?.Words ?? line;
        }
        catch (System.Text.Json.JsonException)
        {
            return line;
        }
    }
}
