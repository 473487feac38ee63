using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Playback;

public sealed class PacingTests
{
    [Theory]
    [InlineData(10, 10, FrameStatus.OnTime)]
    [InlineData(10.1, 10, FrameStatus.Late)]
    [InlineData(49.9, 10, FrameStatus.Late)]
    [InlineData(50, 10, FrameStatus.Dropped)]
    public void Status_follows_readiness_against_the_slot(double ready, double start, FrameStatus expected) =>
        Assert.Equal(expected, Pacing.StatusOf(Samples.Ms(ready), Samples.Ms(start), Samples.Ms(start + 40)));

    [Fact]
    public void Work_that_would_end_after_the_slot_is_not_begun()
    {
        Assert.True(Pacing.IsWorthTreating(Samples.Ms(10), Samples.Ms(29), Samples.Ms(40)));
        Assert.False(Pacing.IsWorthTreating(Samples.Ms(10), Samples.Ms(30), Samples.Ms(40)));
    }

    [Theory]
    [InlineData(3, 6, 1000, 0, true)]
    [InlineData(2, 6, 1000, 0, false)]
    [InlineData(2, 6, 2, 0, true)]
    [InlineData(1, 6, 1000, 250, true)]
    [InlineData(1, 1, 1000, 0, true)]
    public void Pre_roll_gathers_half_the_look_ahead_but_not_for_long(int waiting, int lookAhead, long left, double heldBack, bool done) =>
        Assert.Equal(done, PreRoll.IsDone(waiting, lookAhead, left, Samples.Ms(heldBack)));
}
