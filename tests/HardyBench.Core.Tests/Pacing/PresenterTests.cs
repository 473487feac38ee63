using CsCheck;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Pacing;

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
    public void A_frame_ready_as_its_slot_ends_is_overdue_and_shown_in_the_next()
    {
        var frames = Play(PlayingPolicy.KeepTime, 0, 80, 100);

        Assert.Equal([FrameStatus.OnTime, FrameStatus.Overdue, FrameStatus.Late], frames.Select(frame => frame.Status));
        Assert.Equal([0, 80, 100], frames.Select(frame => frame.Shown!.Value.TotalMilliseconds));
        Assert.Equal(Samples.Ms(40), frames[1].SlotStart);
    }

    [Fact]
    public void A_slot_whose_own_frame_is_ready_shows_that_one_and_the_older_one_is_dropped()
    {
        var frames = Play(PlayingPolicy.KeepTime, 0, 80, 60);

        Assert.Equal((FrameStatus.Dropped, DropReason.NotReady), (frames[1].Status, frames[1].Reason));
        Assert.Equal((FrameStatus.OnTime, Samples.Ms(80)), (frames[2].Status, frames[2].Shown));
    }

    [Fact]
    public void A_slot_shows_one_overdue_frame_and_the_next_slot_the_newest_of_those_that_came_since()
    {
        // Frame 1 comes in the slot of frame 3, and frames 2 and 3 after it in that of frame 4.
        var frames = Play(PlayingPolicy.KeepTime, 0, 130, 161, 162, 1e6, 1e6);

        Assert.Equal((FrameStatus.Overdue, Samples.Ms(130)), (frames[1].Status, frames[1].Shown));
        Assert.Equal((FrameStatus.Overdue, Samples.Ms(161)), (frames[2].Status, frames[2].Shown));
        Assert.Equal((FrameStatus.Overdue, Samples.Ms(200)), (frames[3].Status, frames[3].Shown));
    }

    [Theory]
    [InlineData(1039, FrameStatus.Overdue)]
    [InlineData(1080, FrameStatus.Dropped)]
    public void A_frame_is_not_shown_more_than_a_second_after_its_slot(double ready, FrameStatus status)
    {
        var others = Enumerable.Repeat(1e6, 50);

        Assert.Equal(status, Play(PlayingPolicy.KeepTime, [0, ready, .. others])[1].Status);
    }

    [Fact]
    public void Nothing_of_a_passage_is_shown_after_the_cut()
    {
        var frames = Play(PlayingPolicy.KeepTime, [2], 0, 81, 1e6, 125);

        Assert.Equal((FrameStatus.Dropped, DropReason.NotReady), (frames[1].Status, frames[1].Reason));
        Assert.Equal(FrameStatus.Late, frames[3].Status);
    }

    /// <summary>A frame that never comes is waited for, and one that is lost is passed.</summary>
    [Fact]
    public void Without_a_clock_each_frame_is_shown_as_soon_as_it_is_ready()
    {
        var frames = Play(PlayingPolicy.Unpaced, 100, 101, 350, 351);

        Assert.All(frames, frame => Assert.Equal((FrameStatus.OnTime, frame.Shown), (frame.Status, (TimeSpan?)frame.SlotStart)));
        Assert.Equal([100, 101, 350, 351], frames.Select(frame => frame.Shown!.Value.TotalMilliseconds));
        var lost = new Known { Lost = { [0] = DropReason.PassageFailed } };
        Assert.Equal(PresenterAct.Pass, new Presenter(Rate, PlayingPolicy.Unpaced, []).Decide(TimeSpan.Zero, lost).Act);
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
        Assert.Equal(0.02, counts.SteadyLoss, 6);
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
        var presenter = new Presenter(Rate, PlayingPolicy.KeepTime, []);
        var known = new Known { Lost = { [0] = DropReason.PassageFailed }, Ready = { [1] = Samples.Ms(290) } };
        var lost = presenter.Settle(presenter.Decide(Samples.Ms(5), known), Samples.Ms(5), known).Single();
        var shown = presenter.Settle(presenter.Decide(Samples.Ms(300), known), Samples.Ms(300), known).Single();

        Assert.Equal((0, FrameStatus.Dropped, DropReason.PassageFailed), (lost.Frame, lost.Status, lost.Reason));
        Assert.Equal((1, FrameStatus.OnTime, Samples.Ms(300)), (shown.Frame, shown.Status, shown.SlotStart));
        Assert.Equal(Samples.Ms(340), presenter.Clock!.Value.StartOf(2));
    }

    [Fact]
    public void A_presenter_that_wakes_after_the_slot_shows_the_frame_overdue_and_says_that_it_was_its_own_fault()
    {
        var presenter = new Presenter(Rate, PlayingPolicy.KeepTime, []);
        var known = new Known { Ready = { [0] = TimeSpan.Zero, [1] = Samples.Ms(20) } };
        presenter.Settle(presenter.Decide(default, known), TimeSpan.Zero, known);

        Assert.Empty(presenter.Settle(presenter.Decide(Samples.Ms(90), known), Samples.Ms(90), known));
        var slot = presenter.Settle(presenter.Decide(Samples.Ms(91), known), Samples.Ms(91), known).Single();

        Assert.Equal((1, FrameStatus.Overdue, DropReason.PresenterLate), (slot.Frame, slot.Status, slot.Reason));
    }

    [Fact]
    public void What_could_still_have_been_shown_is_dropped_when_playing_is_stopped()
    {
        var presenter = new Presenter(Rate, PlayingPolicy.KeepTime, []);
        var known = new Known { Ready = { [0] = TimeSpan.Zero } };
        presenter.Settle(presenter.Decide(default, known), TimeSpan.Zero, known);
        presenter.Settle(presenter.Decide(Samples.Ms(85), known), Samples.Ms(85), known);

        Assert.Equal((1L, 2L), (presenter.FirstOpen, presenter.Frame));
        Assert.Equal([(1L, DropReason.NotReady)], presenter.End(Samples.Ms(90), known).Select(slot => (slot.Frame, slot.Reason)));
    }

    [Fact]
    public void Whatever_the_readiness_every_slot_is_settled_once_in_order_and_keep_time_never_lags_a_slot() =>
        Gen.Double[0, 200].Array[1, 60].Sample(gaps =>
        {
            var ready = gaps.Select((gap, n) => n * 20 + gap).ToArray();
            var frames = Play(PlayingPolicy.KeepTime, ready);
            var counts = DropAccounting.Count(frames, Rate, PlayingPolicy.KeepTime, frames[0].Shown);

            Assert.Equal(Enumerable.Range(0, ready.Length), frames.Select(frame => frame.Frame));
            Assert.Equal(counts.Slots, counts.OnTime + counts.Late + counts.Overdue + counts.StartUpDrops + counts.SteadyDrops);
            var shown = frames.Where(frame => frame.Shown is not null).ToList();
            Assert.Equal(shown.Select(frame => frame.Shown).Order(), shown.Select(frame => frame.Shown));
            Assert.All(shown, frame => Assert.InRange(
                frame.Shown!.Value - frame.SlotStart,
                frame.Status == FrameStatus.Overdue ? Rate.FrameDuration : TimeSpan.Zero,
                Rate.FrameDuration + (frame.Status == FrameStatus.Overdue ? Timing.MaxOverdue : TimeSpan.Zero)));
            Assert.Equal(
                shown.Count(frame => frame.Status == FrameStatus.Overdue),
                shown.Where(frame => frame.Status == FrameStatus.Overdue)
                    .DistinctBy(frame => (long)((frame.Shown!.Value - frames[0].SlotStart) / Rate.FrameDuration)).Count());
            Assert.DoesNotContain(Play(PlayingPolicy.KeepFrames, ready), frame => frame.Status == FrameStatus.Dropped);
        });

    private static List<FrameRecord> Play(PlayingPolicy policy, params double[] readyMilliseconds) => Play(policy, [], readyMilliseconds);

    /// <summary>Drives a presenter by a clock that jumps from one moment of interest to the next.</summary>
    /// <param name="cuts">Where passages begin after the first.</param>
    private static List<FrameRecord> Play(PlayingPolicy policy, long[] cuts, params double[] readyMilliseconds)
    {
        var presenter = new Presenter(Rate, policy, [.. cuts, readyMilliseconds.Length]);
        var ready = readyMilliseconds.Select(Samples.Ms).ToArray();
        var (frames, now, known) = (new List<FrameRecord>(), TimeSpan.Zero, new Known());
        while (presenter.Frame < ready.Length)
        {
            foreach (var (frame, at) in ready.Index().Where(one => one.Item <= now))
            {
                known.Ready[frame] = at;
            }

            var decision = presenter.Decide(now, known);
            if (decision.Act == PresenterAct.Wait)
            {
                now = ready.Where(at => at > now).Append(decision.Until).Min();
                continue;
            }

            frames.AddRange(presenter.Settle(decision, now, known).Select(slot => new FrameRecord(
                (int)slot.Frame, slot.SlotStart, known.ReadyAt(slot.Frame), slot.Shown, slot.Status, slot.Reason, default, default, default,
                default, 0)));
        }

        return frames;
    }

    private sealed class Known : ITreatedFrames
    {
        public Dictionary<long, TimeSpan> Ready { get; } = [];

        public Dictionary<long, DropReason> Lost { get; } = [];

        public TimeSpan? ReadyAt(long frame) => Ready.TryGetValue(frame, out var at) ? at : null;

        public DropReason LostOf(long frame) => Lost.GetValueOrDefault(frame);
    }
}
