using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Pacing;

public sealed class TimingTests
{
    [Fact]
    public void Work_that_would_end_more_than_a_second_after_the_slot_is_not_begun()
    {
        Assert.True(Timing.IsWorthTreating(Samples.Ms(10), Samples.Ms(1029), Samples.Ms(40)));
        Assert.False(Timing.IsWorthTreating(Samples.Ms(10), Samples.Ms(1030), Samples.Ms(40)));
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
