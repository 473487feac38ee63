using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Playback;

public sealed class PacingTests
{
    private static readonly TimeSpan Just = TimeSpan.Zero, TooLong = Pacing.Patience + TimeSpan.FromMilliseconds(1);

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

    [Fact]
    public void A_decoder_in_time_decodes_everything() =>
        Assert.Equal(new CatchUp(7, false), Pacing.CatchUpFor(7, 7, Just, new Every(50)));

    [Fact]
    public void All_intra_leaps_straight_to_the_target() =>
        Assert.Equal(new CatchUp(12, false), Pacing.CatchUpFor(7, 12, Just, new Every(1)));

    [Fact]
    public void Long_gop_a_little_behind_leaves_out_unreferenced_frames() =>
        Assert.Equal(new CatchUp(7, true), Pacing.CatchUpFor(7, 12, Just, new Every(50)));

    [Fact]
    public void A_key_frame_on_the_way_is_always_a_fresh_start() =>
        Assert.Equal(new CatchUp(50, true), Pacing.CatchUpFor(30, 55, Just, new Every(50)));

    [Fact]
    public void Long_gop_behind_for_too_long_starts_afresh_ahead_of_the_target() =>
        Assert.Equal(new CatchUp(50, false), Pacing.CatchUpFor(7, 20, TooLong, new Every(50)));

    [Fact]
    public void Being_behind_is_timed_without_a_break()
    {
        var behind = default(Behind);
        Assert.Equal(Samples.Ms(0), behind.Observe(true, Samples.Ms(100)));
        Assert.Equal(Samples.Ms(300), behind.Observe(true, Samples.Ms(400)));
        Assert.Equal(Samples.Ms(0), behind.Observe(false, Samples.Ms(500)));
        Assert.Equal(Samples.Ms(0), behind.Observe(true, Samples.Ms(600)));
    }

    [Fact]
    public void A_frame_that_came_in_time_starts_the_patience_anew()
    {
        var behind = default(Behind);
        behind.Observe(true, Samples.Ms(100));
        behind.Reset();
        Assert.Equal(Samples.Ms(0), behind.Observe(true, Samples.Ms(1000)));
        Assert.Equal(Samples.Ms(500), behind.Observe(true, Samples.Ms(1500)));
    }

    [Fact]
    public void An_estimate_covers_the_spread_and_follows_a_change()
    {
        var estimate = default(DurationEstimate);
        foreach (var n in Enumerable.Range(0, 100))
        {
            estimate.Observe(Samples.Ms(n % 2 == 0 ? 20 : 40));
        }

        Assert.InRange(estimate.Expected, Samples.Ms(40), Samples.Ms(60));
        foreach (var _ in Enumerable.Range(0, 60))
        {
            estimate.Observe(Samples.Ms(10));
        }

        Assert.InRange(estimate.Expected, Samples.Ms(10), Samples.Ms(11));
    }

    [Theory]
    [InlineData(3, 6, 1000, 0, true)]
    [InlineData(2, 6, 1000, 0, false)]
    [InlineData(2, 6, 2, 0, true)]
    [InlineData(1, 6, 1000, 250, true)]
    [InlineData(1, 1, 1000, 0, true)]
    public void Pre_roll_gathers_half_the_look_ahead_but_not_for_long(int waiting, int lookAhead, long left, double heldBack, bool done) =>
        Assert.Equal(done, PreRoll.IsDone(waiting, lookAhead, left, Samples.Ms(heldBack)));

    private sealed class Every(long interval) : IKeyFrames
    {
        public long LastUpTo(long frame) => frame / interval * interval;

        public long FirstFrom(long frame) => (frame + interval - 1) / interval * interval;
    }
}
