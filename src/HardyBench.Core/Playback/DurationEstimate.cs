namespace HardyBench.Core.Playback;

/// <summary>How long the next piece of work will take, learned from the last ones: an exponential mean with weight
/// 1/4 on the newest, which follows a change of load within a few frames.</summary>
public struct DurationEstimate
{
    private const double NewestWeight = 0.25;
    private double ticks;
    private bool any;

    /// <summary>Zero until something was observed.</summary>
    public readonly TimeSpan Expected => TimeSpan.FromTicks((long)ticks);

    public void Observe(TimeSpan duration)
    {
        ticks = any ? ticks + NewestWeight * (duration.Ticks - ticks) : duration.Ticks;
        any = true;
    }

    /// <summary>Notes that work was skipped because of this estimate, and trusts it a little less, so that one bad
    /// estimate cannot stop all work for good.</summary>
    public void Doubt() => ticks *= 0.9;
}
