using CsCheck;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Playback;

/// <summary>Drop accounting with a made-up clock: each frame's moment of readiness is given, time is only counted.</summary>
public sealed class PresenterTests
{
    private static readonly FrameRate Rate = new(25);

    [Fact]
    public void Frames_ready_before_their_slots_are_on_time_and_shown_as_the_slot_begins()
    {
        var frames = Play(PlayingPolicy.KeepTime, 100, 110, 120, 130);

        Assert.All(frames, frame => Assert.Equal(FrameStatus.OnTime, frame.Status));
        Assert.Equal([100, 140, 180, 220], frames.Select(frame => frame.Shown!.Value.TotalMilliseconds));
    }

    [Fact]
    public void The_start_lag_never_counts_as_drops()
    {
        var frames = Play(PlayingPolicy.KeepTime, 3000, 3001, 3002);

        Assert.DoesNotContain(frames, frame => frame.Status == FrameStatus.Dropped);
        Assert.Equal(Samples.Ms(3000), frames[0].SlotStart);
    }

    [Fact]
    public void A_frame_ready_within_its_slot_is_late_and_shown_at_once()
    {
        var frames = Play(PlayingPolicy.KeepTime, 0, 55, 60);

        Assert.Equal(FrameStatus.Late, frames[1].Status);
        Assert.Equal(Samples.Ms(55), frames[1].Shown);
        Assert.Equal(FrameStatus.OnTime, frames[2].Status);
    }

    [Fact]
    public void A_frame_ready_as_its_slot_ends_is_dropped()
    {
        var frames = Play(PlayingPolicy.KeepTime, 0, 80, 81);

        Assert.Equal((FrameStatus.Dropped, DropReason.NotReady), (frames[1].Status, frames[1].Reason));
        Assert.Null(frames[1].Shown);
    }

    /// <summary>A frame that never comes is waited for, and one that is lost is passed.</summary>
    [Fact]
    public void Without_a_clock_each_frame_is_shown_as_soon_as_it_is_ready()
    {
        var frames = Play(PlayingPolicy.Unpaced, 100, 101, 350, 351);

        Assert.All(frames, frame => Assert.Equal((FrameStatus.OnTime, frame.Shown), (frame.Status, (TimeSpan?)frame.SlotStart)));
        Assert.Equal([100, 101, 350, 351], frames.Select(frame => frame.Shown!.Value.TotalMilliseconds));
        Assert.Equal(
            PresenterAct.Drop,
            new Presenter(Rate, PlayingPolicy.Unpaced).Decide(TimeSpan.Zero, null, DropReason.PassageFailed).Act
        );
    }

    [Fact]
    public void The_last_frame_has_a_whole_slot_too()
    {
        Assert.Equal(FrameStatus.Late, Play(PlayingPolicy.KeepTime, 0, 10, 119)[^1].Status);
        Assert.Equal(FrameStatus.Dropped, Play(PlayingPolicy.KeepTime, 0, 10, 120)[^1].Status);
    }

    [Fact]
    public void Drops_of_the_first_second_are_start_up_drops_and_later_ones_steady()
    {
        var ready = Enumerable.Range(0, 100).Select(n => n is 5 or 24 or 25 or 60 ? 1e6 : 0).ToArray();
        var counts = DropAccounting.Count(Play(PlayingPolicy.KeepTime, ready), Rate, PlayingPolicy.KeepTime, TimeSpan.Zero);

        Assert.Equal((100, 96, 2, 2), (counts.Slots, counts.OnTime, counts.StartUpDrops, counts.SteadyDrops));
    }

    [Fact]
    public void Keep_frames_shows_every_frame_and_the_slip_is_the_sum_of_the_latenesses()
    {
        // Frame 1 comes 60 ms late and frame 3 another 20 ms after its slipped slot.
        var frames = Play(PlayingPolicy.KeepFrames, 0, 100, 110, 200, 210);
        var counts = DropAccounting.Count(frames, Rate, PlayingPolicy.KeepFrames, TimeSpan.Zero);

        Assert.Equal([0, 100, 140, 200, 240], frames.Select(frame => frame.Shown!.Value.TotalMilliseconds));
        Assert.Equal(Samples.Ms(80), counts.Slip);
        Assert.Equal(5 / 0.28, counts.ShownRate, 6);
    }

    [Fact]
    public void Frames_lost_before_anything_was_shown_still_have_slots()
    {
        var presenter = new Presenter(Rate, PlayingPolicy.KeepTime);
        var lost = presenter.Decide(Samples.Ms(5), null, DropReason.PassageFailed);
        presenter.Settle(lost, Samples.Ms(5));
        var shown = presenter.Decide(Samples.Ms(300), Samples.Ms(290), DropReason.None);

        Assert.Equal(PresenterAct.Drop, lost.Act);
        Assert.Equal(PresenterAct.Show, shown.Act);
        Assert.Equal(Samples.Ms(300), presenter.Settle(shown, Samples.Ms(300)));
        Assert.Equal(Samples.Ms(340), presenter.Clock!.Value.StartOf(2));
    }

    [Fact]
    public void A_presenter_that_wakes_after_the_slot_drops_the_frame_and_says_that_it_was_its_own_fault()
    {
        var presenter = new Presenter(Rate, PlayingPolicy.KeepTime);
        presenter.Settle(presenter.Decide(default, TimeSpan.Zero, DropReason.None), TimeSpan.Zero);

        var decision = presenter.Decide(Samples.Ms(90), Samples.Ms(20), DropReason.None);

        Assert.Equal((PresenterAct.Drop, DropReason.PresenterLate), (decision.Act, decision.Reason));
    }

    [Fact]
    public void Whatever_the_readiness_every_slot_is_settled_once_in_order_and_keep_time_never_lags_a_slot() =>
        Gen.Double[0, 200].Array[1, 60].Sample(gaps =>
        {
            var ready = gaps.Select((gap, n) => n * 20 + gap).ToArray();
            var frames = Play(PlayingPolicy.KeepTime, ready);
            var counts = DropAccounting.Count(frames, Rate, PlayingPolicy.KeepTime, frames[0].Shown);

            Assert.Equal(Enumerable.Range(0, ready.Length), frames.Select(frame => frame.Frame));
            Assert.Equal(counts.Slots, counts.OnTime + counts.Late + counts.StartUpDrops + counts.SteadyDrops);
            Assert.All(frames.Where(frame => frame.Shown is not null),
                frame => Assert.InRange(frame.Shown!.Value - frame.SlotStart, TimeSpan.Zero, Rate.FrameDuration));
            Assert.DoesNotContain(Play(PlayingPolicy.KeepFrames, ready), frame => frame.Status == FrameStatus.Dropped);
        });

    /// <summary>Drives a presenter by a clock that jumps from one moment of interest to the next.</summary>
    private static List<FrameRecord> Play(PlayingPolicy policy, params double[] readyMilliseconds)
    {
        var presenter = new Presenter(Rate, policy);
        var ready = readyMilliseconds.Select(Samples.Ms).ToArray();
        var (frames, now) = (new List<FrameRecord>(), TimeSpan.Zero);
        while (presenter.Frame < ready.Length)
        {
            var frame = (int)presenter.Frame;
            var known = ready[frame] <= now ? ready[frame] : (TimeSpan?)null;
            var decision = presenter.Decide(now, known, DropReason.None);
            if (decision.Act == PresenterAct.Wait)
            {
                now = known is null && ready[frame] < decision.Until ? ready[frame] : decision.Until;
                continue;
            }

            var shown = decision.Act == PresenterAct.Show ? now : (TimeSpan?)null;
            var slotStart = presenter.Settle(decision, now);
            frames.Add(
                new FrameRecord(frame, slotStart, known, shown, decision.Status, decision.Reason, default, default, default, default, 0)
            );
        }

        return frames;
    }
}
