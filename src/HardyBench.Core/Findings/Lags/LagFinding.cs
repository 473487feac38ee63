using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using MathNet.Numerics.Statistics;

namespace HardyBench.Core.Findings.Lags;

/// <summary>How one sort of gesture went in one passage.</summary>
/// <param name="PassageIndex">From 0.</param>
/// <param name="Asked">Places asked for.</param>
/// <param name="PassedOver">Those that never came on screen because a later request replaced them.</param>
/// <param name="Median">Of those that came; null without any.</param>
/// <param name="WithinTenth">Share of those that came within <see cref="LagFindings.AtOnce"/>, 0 to 1; 0 where none came. Places that the
/// hand left before they could come are neither early nor late, and stand apart.</param>
/// <param name="WithinSecond">The same for <see cref="LagFindings.Unbroken"/>.</param>
public sealed record LagFinding(
    int PassageIndex, GestureKind Kind, string Name, int Asked, int PassedOver,
    TimeSpan? Median, TimeSpan? NinetyFifth, TimeSpan? Longest, double WithinTenth, double WithinSecond)
{
    /// <summary>Places that came on screen.</summary>
    public int Came => Asked - PassedOver;
}

/// <summary>Draws findings from lags.</summary>
public static class LagFindings
{
    /// <summary>Up to this long an answer seems to come at once (Miller 1968; Nielsen 1993).</summary>
    public static readonly TimeSpan AtOnce = TimeSpan.FromSeconds(0.1);

    /// <summary>Up to this long the flow of thought is not broken (same sources).</summary>
    public static readonly TimeSpan Unbroken = TimeSpan.FromSeconds(1);

    /// <summary>One finding a passage and sort of gesture, in the order they were done.</summary>
    public static IReadOnlyList<LagFinding> Of(Run run) =>
    [
        .. run.Lags.GroupBy(lag => (Passage: run.Header.Timeline.PassageIndexAt(lag.Frame), lag.Kind, lag.Name))
            .Select(group => Of(group.Key.Passage, group.Key.Kind, group.Key.Name, [.. group])),
    ];

    private static LagFinding Of(int passage, GestureKind kind, string name, List<LagReading> lags)
    {
        var came = lags.Where(lag => lag.Lag is not null).Select(lag => lag.Lag!.Value.TotalSeconds).ToArray();
        return new LagFinding(
            passage, kind, name, lags.Count, lags.Count - came.Length,
            At(0.5), At(0.95), At(1),
            Share(AtOnce), Share(Unbroken));

        TimeSpan? At(double share) => came.Length == 0 ? null : TimeSpan.FromSeconds(came.QuantileCustom(share, QuantileDefinition.R7));

        double Share(TimeSpan limit) => came.Length == 0 ? 0 : (double)came.Count(lag => lag <= limit.TotalSeconds) / came.Length;
    }
}
