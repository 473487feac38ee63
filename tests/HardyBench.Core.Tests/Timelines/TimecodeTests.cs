using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Tests.Timelines;

/// <summary>Values of SMPTE ST 12-1, from memory: 1 min of 30 drop-frame has 1 798 numbers, 10 min 17 982,
/// 01:00:00;00 is frame 107 892.</summary>
public sealed class TimecodeTests
{
    private static readonly FrameRate Ntsc = new(30000, 1001), Ntsc60 = new(60000, 1001);

    [Theory]
    [InlineData(0, "00:00:00;00")]
    [InlineData(1799, "00:00:59;29")]
    [InlineData(1800, "00:01:00;02")]
    [InlineData(17981, "00:09:59;29")]
    [InlineData(17982, "00:10:00;00")]
    [InlineData(107892, "01:00:00;00")]
    [InlineData(2589407, "23:59:59;29")]
    [InlineData(2589408, "00:00:00;00")]
    public void Drop_frame_counting_at_30(long frame, string expected) => Assert.Equal(expected, Timecode.Of(frame, Ntsc));

    [Fact]
    public void Drop_frame_counting_at_60_skips_four_numbers()
    {
        Assert.Equal("00:01:00;04", Timecode.Of(3600, Ntsc60));
        Assert.Equal("01:00:00;00", Timecode.Of(215784, Ntsc60));
    }

    [Theory]
    [InlineData(150, 25, 1, "00:00:06:00")]
    [InlineData(90001, 25, 1, "01:00:00:01")]
    [InlineData(24, 24000, 1001, "00:00:01:00")]
    public void Other_rates_count_every_number(long frame, int numerator, int denominator, string expected) =>
        Assert.Equal(expected, Timecode.Of(frame, new FrameRate(numerator, denominator)));
}
