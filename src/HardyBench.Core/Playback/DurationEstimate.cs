namespace HardyBench.Core.Playback;

/// <summary>How long the next piece of work will take, learned from the last ones: a running mean and a running mean
/// deviation, with the gains that Jacobson gives for round-trip times (Congestion Avoidance and Control, 1988).</summary>
public struct DurationEstimate
{
    private const double MeanGain = 1.0 / 8, DeviationGain = 1.0 / 4, DeviationsAllowed = 2, DoubtFactor = 0.9;
    private double mean;
    private double deviation;
    private bool any;

    /// <summary>Zero until something was observed; then a time within which the next piece is likely done: mean and two deviations. Aiming at the mean itself
    /// would miss every second time.</summary>
    public readonly TimeSpan Expected => TimeSpan.FromTicks((long)(mean + DeviationsAllowed * deviation));

    public void Observe(TimeSpan duration)
    {
        var error = duration.Ticks - mean;
        mean += any ? MeanGain * error : error;
        deviation += any ? DeviationGain * (Math.Abs(error) - deviation) : 0;
        any = true;
    }

    /// <summary>Notes that work was skipped because of this estimate, and trusts it a little less, so that one bad
    /// estimate cannot stop all work for good.</summary>
    public void Doubt() => (mean, deviation) = (mean * DoubtFactor, deviation * DoubtFactor);
}
