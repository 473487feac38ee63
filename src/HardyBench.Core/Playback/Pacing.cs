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

    /// <summary>How long a decoder may stay behind before it gives up catching up frame by frame.</summary>
    public static readonly TimeSpan Patience = TimeSpan.FromSeconds(1);

    /// <summary>Keep time: how the decoder of one clip catches up.</summary>
    /// <param name="next">Source frame it would decode next.</param>
    /// <param name="target">First source frame that can still reach the screen in time.</param>
    /// <param name="behindFor">How long it has been behind without a single frame that came in time.</param>
    /// <remarks>Nothing before <paramref name="target"/> can be seen, so starting afresh on the way there is less work
    /// than decoding up to it, and the rest of the way is shortened by leaving out unreferenced frames. Where that has
    /// not caught up within its patience, nothing would ever be in time again: decoding starts afresh ahead of the
    /// target, on the next frame that stands alone, and the picture stands until then. For all-intra footage the target
    /// itself stands alone, so the rule leaps straight to it.</remarks>
    public static CatchUp CatchUpFor(long next, long target, TimeSpan behindFor, IKeyFrames keys)
    {
        if (target <= next)
        {
            return new CatchUp(next, SkipUnreferenced: false);
        }

        var from = Math.Max(next, keys.LastUpTo(target));
        return from == target || behindFor <= Patience
            ? new CatchUp(from, SkipUnreferenced: from < target)
            : new CatchUp(keys.FirstFrom(target), SkipUnreferenced: false);
    }
}

/// <summary>Which frames stand alone, so that decoding can start afresh on them.</summary>
public interface IKeyFrames
{
    /// <summary>The last one at or before a frame.</summary>
    long LastUpTo(long frame);

    /// <summary>The first one at or after a frame.</summary>
    long FirstFrom(long frame);
}

/// <summary>What a decoder does next.</summary>
/// <param name="From">The source frame to go on from.</param>
/// <param name="SkipUnreferenced">Whether to leave out frames that no other frame refers to.</param>
public readonly record struct CatchUp(long From, bool SkipUnreferenced);
