namespace HardyBench.Core.Playback;

/// <summary>Since when a decoder has been behind without a break, by its estimates, and without a single frame that came
/// in time all the same.</summary>
public struct Behind
{
    private TimeSpan? since;

    /// <summary>Notes whether it is behind now.</summary>
    /// <returns>For how long it has been; zero when it is not, or has just fallen behind.</returns>
    public TimeSpan Observe(bool isBehind, TimeSpan now)
    {
        since = isBehind ? since ?? now : null;
        return now - (since ?? now);
    }

    /// <summary>A frame came in time, or decoding started afresh: being behind is counted anew.</summary>
    public void Reset() => since = null;
}
