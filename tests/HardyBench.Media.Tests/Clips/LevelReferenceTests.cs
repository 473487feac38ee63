using System.Diagnostics;
using HardyBench.Core.Footage;
using HardyBench.Core.Footage.Levels;
using HardyBench.Media.Clips;

namespace HardyBench.Media.Tests.Clips;

/// <summary>Levels against what x264 and x265 write into the stream and ffprobe reads back.</summary>
public sealed class LevelReferenceTests
{
    public static TheoryData<Codec, int, int> Grid()
    {
        var data = new TheoryData<Codec, int, int>();
        foreach (
            var (width, height) in new[]
            {
                (320, 180),
                (640, 360),
                (720, 576),
                (1280, 720),
                (1920, 1080),
                (2048, 1080),
                (3840, 2160),
                (4096, 2160),
            }
        )
        {
            data.Add(Codec.Avc, width, height);
            data.Add(Codec.Hevc, width, height);
        }

        return data;
    }

    [Theory]
    [MemberData(nameof(Grid))]
    public async Task Encoders_agree_at_every_rate(Codec codec, int width, int height)
    {
        var folder = TestData.NewFolder("level");
        foreach (
            var rate in new[] { new FrameRate(24000, 1001), new FrameRate(25), new FrameRate(30), new FrameRate(50), new FrameRate(60) }
        )
        {
            var file = Path.Combine(folder, $"{rate}.mp4");
            var encoder = codec == Codec.Avc
                ? "-c:v libx264 -preset ultrafast -refs 1"
                : "-c:v libx265 -preset ultrafast -x265-params log-level=error:ref=1:bframes=0";
            using var ffmpeg = Process.Start(
                "ffmpeg",
                $"-v error -f lavfi -i color=gray:s={width}x{height}:r={rate.Numerator}/{rate.Denominator}:d=0.12 {encoder} -pix_fmt "
                    + $"yuv420p {file}"
            );
            await ffmpeg.WaitForExitAsync();

            var report = await ClipProbe.LookAsync(file, null, CancellationToken.None);

            var ours = LevelTables.Of(report.Format with { GopLength = 50 })!;
            Assert.EndsWith($", level {ours.Level}", report.Profile, StringComparison.Ordinal);
            Assert.StartsWith(
                ours.Profile,
                report.Profile!.Replace("Constrained Baseline", "High", StringComparison.Ordinal),
                StringComparison.Ordinal
            );
        }
    }
}
