using System.Diagnostics;
using System.Globalization;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Tests.Timelines;

/// <summary>SMPTE ST 12-1 timecode over a whole day against the npm package smpte-timecode.</summary>
public sealed class TimecodeReferenceTests
{
    [Theory]
    [InlineData(24, 1, "24", false)]
    [InlineData(25, 1, "25", false)]
    [InlineData(30, 1, "30", false)]
    [InlineData(30000, 1001, "29.97", true)]
    [InlineData(30000, 1001, "29.97", false)]
    [InlineData(60000, 1001, "59.94", true)]
    public async Task Every_frame_of_a_day_agrees_and_comes_back(int numerator, int denominator, string name, bool dropFrame)
    {
        var rate = new FrameRate(numerator, denominator);
        var nominal = rate.NominalFramesPerSecond;
        // A day by the clock: the package starts anew there, whichever way it counts.
        var frames = denominator == 1001 ? 17_982L * (nominal / 30) * 144 : nominal * 86_400L;
        using var node = Process.Start(new ProcessStartInfo("node")
        {
            ArgumentList = { "timecode.mjs", name, dropFrame ? "true" : "false", frames.ToString(CultureInfo.InvariantCulture) },
            WorkingDirectory = Repository.PathOf("tests", "reference"),
            RedirectStandardOutput = true,
        })!;

        for (var frame = 0L; frame < frames; frame++)
        {
            var expected = await node.StandardOutput.ReadLineAsync();
            var ours = Timecode.Of(frame, rate, countsAll: !dropFrame);
            if (expected != ours || Timecode.Parse(ours, rate, dropFrame) != frame)
            {
                Assert.Fail(
                    $"Frame {frame}: '{ours}', the package says '{expected}', and it comes back as {Timecode.Parse(ours, rate, dropFrame)}."
                );
            }
        }

        Assert.Null(await node.StandardOutput.ReadLineAsync());
    }

    [Theory]
    [InlineData("00:01:00;00")]
    [InlineData("00:01:00;30")]
    [InlineData("00:60:00:00")]
    [InlineData("1:2:3:4")]
    [InlineData("nonsense")]
    [InlineData("00:00:00")]
    [InlineData("")]
    public void What_is_no_timecode_is_a_clear_error(string text) =>
        Assert.Throws<FormatException>(() => Timecode.Parse(text, new FrameRate(30000, 1001)));
}
