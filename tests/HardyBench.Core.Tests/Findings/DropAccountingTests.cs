using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Findings;

public sealed class DropAccountingTests
{
    /// <summary>Common practice, no source: a count means nothing without rate and duration.</summary>
    [Theory]
    [InlineData(300, 0.208)]
    [InlineData(800, 0.556)]
    public void Drops_in_a_minute_at_24_are_a_share_of_1440_slots(int drops, double share)
    {
        var counts = Count(24, 1440, frame => frame >= 1440 - drops);

        Assert.Equal(share, counts.SteadyLoss, 3);
        Assert.Equal(24 * (1 - share), counts.ShownRate, 1);
    }

    /// <summary>Frame 50 is shown 3 slots late, frame 10, in the first second, 2 slots late.</summary>
    [Fact]
    public void An_overdue_frame_is_shown_and_its_slot_is_missed()
    {
        var frames = Frames(25, 100, frame => frame is 51 or 52)
            .Select(frame => frame.Frame is 10 or 50
                ? frame with { Status = FrameStatus.Overdue, Shown = frame.SlotStart + Samples.Ms(frame.Frame == 10 ? 80 : 120) }
                : frame)
            .ToList();
        var counts = DropAccounting.Count(frames, new FrameRate(25), PlayingPolicy.KeepTime, frames[0].Shown);

        Assert.Equal((96, 0, 2, 0, 2), (counts.OnTime, counts.Late, counts.Overdue, counts.StartUpDrops, counts.SteadyDrops));
        Assert.Equal((3, 0.03, 98), (counts.SteadyMisses, counts.SteadyLoss, counts.Shown));
        Assert.Equal((Samples.Ms(100), Samples.Ms(120)), counts.OverdueBy);
        Assert.Equal(24.5, counts.ShownRate, 6);
        // Frame 49 stays until frame 50 is shown in the slot of frame 53.
        Assert.Equal(Samples.Ms(160), counts.LongestFreeze);
    }

    [Fact]
    public void A_freeze_is_the_time_one_picture_stays()
    {
        var counts = Count(25, 100, frame => frame is 60 or 61 or 62);

        Assert.Equal(Samples.Ms(160), counts.LongestFreeze);
    }

    [Fact]
    public void A_freeze_runs_from_the_cut_when_the_first_frames_are_missing_and_to_the_end_when_the_last_are()
    {
        Assert.Equal(Samples.Ms(200), Count(25, 100, frame => frame < 5, startedLongAgo: true).LongestFreeze);
        Assert.Equal(Samples.Ms(240), Count(25, 100, frame => frame >= 95).LongestFreeze);
    }

    [Theory]
    [InlineData(0, 0.0)]
    [InlineData(5, 200.0)]
    [InlineData(90, null)]
    public void Recovery_after_a_cut_ends_where_half_a_second_goes_by_without_a_miss(int missed, double? ms) =>
        Assert.Equal(ms, Count(25, 100, frame => frame < missed, startedLongAgo: true).Recovery?.TotalMilliseconds);

    [Fact]
    public void A_stutter_right_after_the_first_frames_is_no_recovery_yet() =>
        Assert.Equal(Samples.Ms(400), Count(25, 100, frame => frame is 0 or 3 or 9, startedLongAgo: true).Recovery);

    [Fact]
    public void What_freezes_during_start_up_is_not_held_against_the_rest()
    {
        var counts = Count(25, 100, frame => frame is > 2 and < 20);

        Assert.Equal((17, 0), (counts.StartUpDrops, counts.SteadyDrops));
        Assert.Equal(Samples.Ms(40), counts.LongestFreeze);
    }

    [Fact]
    public void Uneven_gaps_show_even_when_the_counter_is_full()
    {
        var even = Count(25, 100, _ => false);
        var frames = Frames(25, 100, _ => false)
            .Select(frame => frame with { Shown = frame.Shown + Samples.Ms(frame.Frame % 2 == 0 ? 0 : 15) }).ToList();
        var uneven = DropAccounting.Count(frames, new FrameRate(25), PlayingPolicy.KeepTime, TimeSpan.Zero);

        Assert.Equal(even.ShownRate, uneven.ShownRate);
        Assert.InRange(even.GapDeviation, TimeSpan.Zero, Samples.Ms(0.001));
        Assert.InRange(uneven.GapDeviation, Samples.Ms(14), Samples.Ms(16));
    }

    [Fact]
    public void Nothing_played_adds_up_to_nothing()
    {
        var counts = DropAccounting.Count([], new FrameRate(25), PlayingPolicy.KeepTime, null);

        Assert.Equal((0, 0, 0.0, TimeSpan.Zero), (counts.Slots, counts.Shown, counts.ShownRate, counts.LongestFreeze));
    }

    [Theory]
    [InlineData(400, 2, Verdict.Holds)] // 0.5 %
    [InlineData(399, 2, Verdict.Wavers)]
    [InlineData(400, 100, Verdict.Wavers)] // 25 %
    [InlineData(400, 101, Verdict.Breaks)]
    [InlineData(49, 0, null)] // under two seconds
    [InlineData(50, 0, Verdict.Holds)]
    public void The_verdict_follows_the_share_of_steady_drops(int slots, int drops, Verdict? expected)
    {
        // Every third frame from the second second on, so that no freeze decides.
        var counts = Count(25, slots, frame => frame >= 25 && (frame - 25) % 3 == 0 && (frame - 25) / 3 < drops);

        Assert.Equal(expected, VerdictLimits.Default.Of(counts));
    }

    [Fact]
    public void The_verdict_follows_freezes_too()
    {
        Assert.Equal(Verdict.Holds, VerdictLimits.Default.Of(Count(25, 1000, frame => frame == 500)));
        Assert.Equal(Verdict.Wavers, VerdictLimits.Default.Of(Count(25, 1000, frame => frame is 500 or 501)));
        Assert.Equal(Verdict.Breaks, VerdictLimits.Default.Of(Count(25, 1000, frame => frame is >= 500 and < 526)));
    }

    private static PassageCounts Count(int rate, int slots, Func<int, bool> dropped, bool startedLongAgo = false) =>
        DropAccounting.Count(
            Frames(rate, slots, dropped), new FrameRate(rate), PlayingPolicy.KeepTime,
            startedLongAgo ? TimeSpan.FromSeconds(-10) : TimeSpan.Zero);

    private static List<FrameRecord> Frames(int rate, int slots, Func<int, bool> dropped) =>
    [
        .. Enumerable.Range(0, slots).Select(n =>
        {
            var start = new FrameRate(rate).StartOf(n);
            return dropped(n)
                ? new FrameRecord(n, start, null, null, FrameStatus.Dropped, DropReason.NotReady, default, default, default, default, 0)
                : new FrameRecord(n, start, start, start, FrameStatus.OnTime, DropReason.None, default, default, default, default, 1);
        }),
    ];
}
