using HardyBench.Core.Findings.Lags;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Timelines;
using MathNet.Numerics.Statistics;
using static System.FormattableString;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>How long is it from the key to a moving picture?</summary>
/// <param name="Places">Places in each passage.</param>
public sealed record StartLagTrial(int Places = 3) : GestureTrial(TrialKind.StartLag)
{
    public override string? Problem(PlaybackPlan start) => Places is < 1 or > MaxTimes
        ? $"Start lag takes 1 to {MaxTimes} places a passage, not {Places}."
        : null;

    protected override IReadOnlyList<Gesture> Moves(PlaybackPlan start) => GestureScripts.Starts(start.Timeline, Places);

    /// <summary>There are a few starts a passage only, so the usual and the longest lag are stated, and no shares.</summary>
    protected override string OfPassage(IReadOnlyList<LagFinding> lags) => Came(lags) == 0
        ? base.OfPassage(lags)
        : $"usually {Usual(lags)}" + (Longest(lags) > Usually(lags) ? $", up to {Seconds(Longest(lags))}" : string.Empty)
            + PassedOver(lags, ", ", "never came");

    protected override string OfAll(Timeline timeline, IReadOnlyList<LagFinding> lags)
    {
        if (Came(lags) == 0)
        {
            return base.OfAll(timeline, lags);
        }

        var slowest = lags.Where(lag => lag.Longest is not null).MaxBy(lag => lag.Longest)!;
        var words = $"Usually {Usual(lags)} from the key to a moving picture";
        if (slowest.Longest > Usually(lags))
        {
            words += $"; passage {slowest.PassageIndex + 1}, “{timeline.Passages[slowest.PassageIndex].Question}”, up to {Seconds(slowest.Longest!.Value)}";
        }

        return $"{words}{PassedOver(lags, "; ", "never came")}.";
    }

    private static string Usual(IReadOnlyList<LagFinding> lags) => Seconds(Usually(lags));

    /// <summary>The median over passages of their medians.</summary>
    private static TimeSpan Usually(IReadOnlyList<LagFinding> lags) =>
        TimeSpan.FromSeconds(lags.Select(lag => lag.Median?.TotalSeconds).Median());

    private static string Seconds(TimeSpan time) => Invariant($"{time.TotalSeconds:0.0#} s");
}
