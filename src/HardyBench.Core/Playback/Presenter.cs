using HardyBench.Core.Footage;

namespace HardyBench.Core.Playback;

/// <summary>What the presenter does next.</summary>
public enum PresenterAct
{
    /// <summary>Nothing before a given moment, unless the frame becomes ready earlier.</summary>
    Wait,

    /// <summary>Show the frame now.</summary>
    Show,

    /// <summary>Give the slot up.</summary>
    Drop,
}

/// <summary>One decision of the presenter.</summary>
/// <param name="Until">For a wait: when to ask again; <see cref="TimeSpan.MaxValue"/> when only the frame can end it.</param>
public readonly record struct PresenterDecision(
    PresenterAct Act, FrameStatus Status, DropReason Reason, TimeSpan Until)
{
    internal static PresenterDecision Wait(TimeSpan until) => new(PresenterAct.Wait, default, default, until);

    internal static PresenterDecision Show(FrameStatus status) => new(PresenterAct.Show, status, default, default);

    internal static PresenterDecision Drop(DropReason reason) =>
        new(PresenterAct.Drop, FrameStatus.Dropped, reason, default);
}

/// <summary>Settles the slots of a run one after another. It keeps the clock and holds no frames and no threads:
/// whoever drives it, a real player or a test with a made-up clock, tells it the time and what is ready.</summary>
public sealed class Presenter(FrameRate rate, PlayingPolicy policy)
{
    /// <summary>The slot that is settled next.</summary>
    public long Frame { get; private set; }

    /// <summary>The clock, or null before the first frame was shown.</summary>
    public SlotClock? Clock { get; private set; }

    private TimeSpan start;
    private TimeSpan end;

    /// <summary>Decides about the slot of <see cref="Frame"/>.</summary>
    /// <param name="ready">When the frame became ready, or null while it is not.</param>
    /// <param name="lost">Why the frame will never be ready, or <see cref="DropReason.None"/>.</param>
    public PresenterDecision Decide(TimeSpan now, TimeSpan? ready, DropReason lost)
    {
        if (Clock is null || policy == PlayingPolicy.Unpaced)
        {
            return lost != DropReason.None ? PresenterDecision.Drop(lost)
                : ready is null ? PresenterDecision.Wait(TimeSpan.MaxValue)
                : PresenterDecision.Show(FrameStatus.OnTime);
        }

        if (now < start)
        {
            return PresenterDecision.Wait(start);
        }

        if (lost != DropReason.None)
        {
            return PresenterDecision.Drop(lost);
        }

        return policy == PlayingPolicy.KeepTime ? KeepingTime(now, ready, start, end) : KeepingFrames(ready, start);
    }

    /// <summary>Notes that a show or a drop was carried out at <paramref name="now"/> and moves to the next slot.
    /// The first frame shown sets t0; under keep frames a late frame slips the clock.</summary>
    /// <returns>When the slot that was settled began, before any slip that this frame caused; without a clock, now.</returns>
    public TimeSpan Settle(PresenterDecision decision, TimeSpan now)
    {
        if (decision.Act == PresenterAct.Show && Clock is null)
        {
            // Frames lost before the first one shown have slots too, so t0 lies their length earlier.
            SetClock(new SlotClock(rate, now - rate.StartOf(Frame), TimeSpan.Zero));
        }

        var began = policy == PlayingPolicy.Unpaced || Clock is null ? now : start;
        if (policy == PlayingPolicy.KeepFrames && decision.Status == FrameStatus.Late && Clock is { } slipping)
        {
            SetClock(slipping.SlippedTo(Frame, now));
        }

        Frame++;
        if (Clock is { } clock)
        {
            (start, end) = (end, clock.EndOf(Frame));
        }

        return began;
    }

    private void SetClock(SlotClock clock)
    {
        Clock = clock;
        (start, end) = (clock.StartOf(Frame), clock.EndOf(Frame));
    }

    private static PresenterDecision KeepingTime(TimeSpan now, TimeSpan? ready, TimeSpan start, TimeSpan end) =>
        ready switch
        {
            { } at when now < end => PresenterDecision.Show(Pacing.StatusOf(at, start, end)),
            { } at when at < end => PresenterDecision.Drop(DropReason.PresenterLate),
            null when now < end => PresenterDecision.Wait(end),
            _ => PresenterDecision.Drop(DropReason.NotReady),
        };

    private static PresenterDecision KeepingFrames(TimeSpan? ready, TimeSpan start) =>
        ready is not { } at ? PresenterDecision.Wait(TimeSpan.MaxValue)
        : PresenterDecision.Show(at <= start ? FrameStatus.OnTime : FrameStatus.Late);
}
