namespace HardyBench.Core.Playback;

/// <summary>The drop decisions, as pure functions of time.</summary>
public static class Pacing
{
    /// <summary>What becomes of a frame that is ready at <paramref name="ready"/>: on time before its slot begins,
    /// late within it, else dropped.</summary>
    public static FrameStatus StatusOf(TimeSpan ready, TimeSpan slotStart, TimeSpan slotEnd) =>
        ready <= slotStart ? FrameStatus.OnTime
        : ready < slotEnd ? FrameStatus.Late
        : FrameStatus.Dropped;

    /// <summary>Keep time: whether work of <paramref name="expected"/> length begun now can still be seen.
    /// Work that would end after the slot is skipped before it is spent.</summary>
    public static bool IsWorthTreating(TimeSpan now, TimeSpan expected, TimeSpan slotEnd) => now + expected < slotEnd;

    /// <summary>Keep time, in a passage that is too much: whether it is time to begin the first frame of the next one, before the last of
    /// this, so that nothing of the overload is carried over the cut.</summary>
    /// <param name="way">How long a frame of this passage takes from beginning to end.</param>
    public static bool IsNextDue(TimeSpan now, TimeSpan way, TimeSpan cut) => now + WaysBefore * way >= cut;

    /// <summary>Two frames may be on their way when it is begun, and it has to be ready when the slot begins.</summary>
    private const int WaysBefore = 3;
}
