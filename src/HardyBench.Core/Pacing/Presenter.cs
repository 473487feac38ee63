using HardyBench.Core.Footage;

namespace HardyBench.Core.Pacing;

/// <summary>What the presenter does next.</summary>
public enum PresenterAct
{
    /// <summary>Nothing before a given moment, unless a frame becomes ready earlier.</summary>
    Wait,

    /// <summary>Show a frame now.</summary>
    Show,

    /// <summary>The slot ends without its own frame.</summary>
    Pass,
}

/// <summary>One decision of the presenter.</summary>
/// <param name="Frame">For a show: which frame.</param>
/// <param name="Until">For a wait: when to ask again; <see cref="TimeSpan.MaxValue"/> when only a frame can end it.</param>
/// <param name="OnlyTime">For a wait: no frame that becomes ready can end it earlier.</param>
public readonly record struct PresenterDecision(
    PresenterAct Act, long Frame = 0, FrameStatus Status = default, TimeSpan Until = default, bool OnlyTime = false)
{
    internal static PresenterDecision Wait(TimeSpan until, bool onlyTime = false) =>
        new(PresenterAct.Wait, Until: until, OnlyTime: onlyTime);

    internal static PresenterDecision Show(long frame, FrameStatus status) => new(PresenterAct.Show, frame, status);

    internal static PresenterDecision Pass => new(PresenterAct.Pass);
}

/// <summary>What is known of frames, by timeline frame.</summary>
public interface ITreatedFrames
{
    /// <summary>When a frame became ready to be shown; null while it is not.</summary>
    TimeSpan? ReadyAt(long frame);

    /// <summary>Why a frame will never be ready, or <see cref="DropReason.None"/>.</summary>
    DropReason LostOf(long frame);
}

/// <summary>The result of one frame, which nothing changes any more.</summary>
/// <param name="SlotStart">When its slot began, before any slip that it caused; without a clock, when it was settled.</param>
/// <param name="Shown">Null when it was dropped.</param>
public readonly record struct SettledSlot(long Frame, TimeSpan SlotStart, TimeSpan? Shown, FrameStatus Status, DropReason Reason);

/// <summary>Shows frames and settles their slots. It keeps the clock and holds no frames and no threads: whoever drives it, a real
/// player or the stand-in model, tells it the time and what is ready.</summary>
/// <remarks>Keep time: a frame is shown in its own slot where it is ready by the end of it. Where the slot on screen has no picture of its
/// own yet, the newest frame that was finished after its own slot is shown in it instead (<see cref="FrameStatus.Overdue"/>). No frame is
/// shown after a newer one, after a cut, or more than <see cref="Timing.MaxOverdue"/> after its slot.</remarks>
/// <param name="cuts">Where passages begin, after the first, and the end of the timeline; ascending.</param>
public sealed class Presenter(FrameRate rate, PlayingPolicy policy, IReadOnlyList<long> cuts)
{
    private readonly List<SettledSlot> settled = [];
    private readonly long mostOverdue = (long)Math.Ceiling(Timing.MaxOverdue / rate.FrameDuration);
    private TimeSpan start;
    private TimeSpan end;
    private bool isSlotUsed;
    private int cutsPassed;

    /// <summary>The frame whose slot is on, or comes next.</summary>
    public long Frame { get; private set; }

    /// <summary>All frames before this one are settled. It is below <see cref="Frame"/> while frames can still be shown after their
    /// slots.</summary>
    public long FirstOpen { get; private set; }

    /// <summary>The clock, or null before the first frame was shown.</summary>
    public SlotClock? Clock { get; private set; }

    /// <summary>Decides what happens now.</summary>
    public PresenterDecision Decide(TimeSpan now, ITreatedFrames frames)
    {
        if (Clock is null || policy == PlayingPolicy.Unpaced)
        {
            return frames.LostOf(Frame) != DropReason.None ? PresenterDecision.Pass
                : frames.ReadyAt(Frame) is null ? PresenterDecision.Wait(TimeSpan.MaxValue)
                : PresenterDecision.Show(Frame, FrameStatus.OnTime);
        }

        if (now < start)
        {
            return PresenterDecision.Wait(start, onlyTime: true);
        }

        return policy == PlayingPolicy.KeepTime ? KeepingTime(now, frames) : KeepingFrames(frames);
    }

    /// <summary>Notes that a decision was carried out at <paramref name="now"/>. The first frame shown sets t0; under keep frames a late
    /// frame slips the clock.</summary>
    /// <returns>The frames that are settled by it, in order; valid until the next call.</returns>
    public IReadOnlyList<SettledSlot> Settle(PresenterDecision decision, TimeSpan now, ITreatedFrames frames)
    {
        settled.Clear();
        if (decision.Act == PresenterAct.Show)
        {
            Show(decision, now, frames);
        }
        else if (decision.Act == PresenterAct.Pass)
        {
            EndSlot();
        }

        DropEndedSlots(now, frames);
        return settled;
    }

    /// <summary>Nothing more is shown: what could still have been is dropped.</summary>
    /// <returns>The frames that are settled by it.</returns>
    public IReadOnlyList<SettledSlot> End(TimeSpan now, ITreatedFrames frames)
    {
        settled.Clear();
        DropUpTo(Frame, now, frames);
        return settled;
    }

    private void Show(PresenterDecision decision, TimeSpan now, ITreatedFrames frames)
    {
        if (Clock is null)
        {
            // Frames lost before the first one shown have slots too, so t0 lies their length earlier.
            SetClock(new SlotClock(rate, now - rate.StartOf(Frame), TimeSpan.Zero));
        }

        DropUpTo(decision.Frame, now, frames);
        var reason = decision.Status == FrameStatus.Overdue && frames.ReadyAt(decision.Frame) < Clock!.Value.EndOf(decision.Frame)
            ? DropReason.PresenterLate
            : DropReason.None;
        settled.Add(new SettledSlot(FirstOpen++, StartOf(decision.Frame, now), now, decision.Status, reason));
        if (policy == PlayingPolicy.KeepFrames && decision.Status == FrameStatus.Late)
        {
            SetClock(Clock!.Value.SlippedTo(Frame, now));
        }

        isSlotUsed = decision.Frame < Frame;
        if (!isSlotUsed)
        {
            EndSlot();
        }
    }

    private void EndSlot()
    {
        Frame++;
        isSlotUsed = false;
        if (Clock is { } clock)
        {
            (start, end) = (end, clock.EndOf(Frame));
        }
    }

    /// <summary>Settles the oldest frames that can never be shown any more.</summary>
    private void DropEndedSlots(TimeSpan now, ITreatedFrames frames)
    {
        while (cutsPassed < cuts.Count && cuts[cutsPassed] <= Frame)
        {
            cutsPassed++;
        }

        var oldest = policy != PlayingPolicy.KeepTime || Clock is null ? Frame
            : Math.Max(Frame - mostOverdue, cutsPassed > 0 ? cuts[cutsPassed - 1] : 0);
        while (FirstOpen < Frame && (FirstOpen < oldest || frames.LostOf(FirstOpen) != DropReason.None))
        {
            Drop(now, frames);
        }
    }

    private void DropUpTo(long frame, TimeSpan now, ITreatedFrames frames)
    {
        while (FirstOpen < frame)
        {
            Drop(now, frames);
        }
    }

    private void Drop(TimeSpan now, ITreatedFrames frames)
    {
        var lost = frames.LostOf(FirstOpen);
        var reason = lost != DropReason.None ? lost
            : frames.ReadyAt(FirstOpen) < Clock?.EndOf(FirstOpen) ? DropReason.PresenterLate
            : DropReason.NotReady;
        settled.Add(new SettledSlot(FirstOpen, StartOf(FirstOpen, now), null, FrameStatus.Dropped, reason));
        FirstOpen++;
    }

    private TimeSpan StartOf(long frame, TimeSpan now) =>
        policy == PlayingPolicy.Unpaced || Clock is null ? now : frame == Frame ? start : Clock.Value.StartOf(frame);

    private void SetClock(SlotClock clock)
    {
        Clock = clock;
        (start, end) = (clock.StartOf(Frame), clock.EndOf(Frame));
    }

    private PresenterDecision KeepingTime(TimeSpan now, ITreatedFrames frames)
    {
        if (now >= end)
        {
            return PresenterDecision.Pass;
        }

        if (frames.ReadyAt(Frame) is { } at)
        {
            return PresenterDecision.Show(Frame, StatusOf(at));
        }

        for (var older = Frame - 1; older >= FirstOpen && !isSlotUsed; older--)
        {
            if (frames.ReadyAt(older) is not null)
            {
                return PresenterDecision.Show(older, FrameStatus.Overdue);
            }
        }

        return PresenterDecision.Wait(end, onlyTime: FirstOpen == Frame && frames.LostOf(Frame) != DropReason.None);
    }

    private PresenterDecision KeepingFrames(ITreatedFrames frames) =>
        frames.LostOf(Frame) != DropReason.None ? PresenterDecision.Pass
        : frames.ReadyAt(Frame) is not { } at ? PresenterDecision.Wait(TimeSpan.MaxValue)
        : PresenterDecision.Show(Frame, StatusOf(at));

    private FrameStatus StatusOf(TimeSpan ready) => ready <= start ? FrameStatus.OnTime : FrameStatus.Late;
}
