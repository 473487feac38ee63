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

    /// <summary>Keep time: how the decoder of one clip catches up.</summary>
    /// <param name="next">Source frame it would decode next.</param>
    /// <param name="target">First source frame that can still reach the screen in time.</param>
    /// <param name="lastKeyUpTo">The last frame at or before a given one that stands alone.</param>
    /// <remarks>Nothing before <paramref name="target"/> can be seen, so starting afresh at any frame that stands alone
    /// on the way there is always less work. Where there is none, the frames that nothing refers to are left out.
    /// For all-intra footage the target itself stands alone, so the rule leaps straight to it.</remarks>
    public static CatchUp CatchUpFor(long next, long target, Func<long, long> lastKeyUpTo)
    {
        if (target <= next)
        {
            return new CatchUp(next, SkipUnreferenced: false);
        }

        var key = lastKeyUpTo(target);
        return key > next ? new CatchUp(key, SkipUnreferenced: key < target) : new CatchUp(next, SkipUnreferenced: true);
    }
}

/// <summary>What a decoder does next.</summary>
/// <param name="From">The source frame to go on from.</param>
/// <param name="SkipUnreferenced">Whether to leave out frames that no other frame refers to.</param>
public readonly record struct CatchUp(long From, bool SkipUnreferenced);
