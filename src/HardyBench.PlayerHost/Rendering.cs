using System.Buffers.Binary;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Player.Effects;
using HardyBench.Player.Playing;
using HardyBench.Telemetry;

namespace HardyBench.PlayerHost;

/// <summary>Renders one passage: its pictures, each after its length in bytes (four, the lowest first). An error is reported in a line
/// on standard error.</summary>
internal static class Rendering
{
    /// <returns>The exit code: 0 when all pictures were written.</returns>
    public static async Task<int> RunAsync(Stream input, Stream output)
    {
        try
        {
            var line =
                await new BoundedLines(input).ReadAsync(CancellationToken.None) ?? throw new InvalidDataException("Nothing was requested.");
            var ask = PlayerTalk.Read(line.Span, PlayerTalk.Asks).Render ?? throw new InvalidDataException("No render was requested.");
            var length = new byte[sizeof(int)];
            var pictures = new PassagePictures(
                new ProvidedClips(ask.Clips, _ => { }),
                new EffectFilters(ask.Effects.Looks, ask.Effects.Font)
            );
            await OwnThread.Start(ThreadRoles.Effects, () =>
            {
                foreach (var picture in pictures.Of(ask.Plan, ask.Passage, CancellationToken.None))
                {
                    BinaryPrimitives.WriteInt32LittleEndian(length, picture.Length);
                    output.Write(length);
                    output.Write(picture.Span);
                }

                output.Flush();
            });
            return 0;
        }
        catch (Exception failure)
        {
            PlayerTalk.Write(Console.OpenStandardError(), new PlayerEvent { Failed = Failures.Of(failure) }, PlayerTalk.Tells);
            return 1;
        }
    }
}
