using HardyBench.Core.Findings.Lags;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Playback.Subjects;
using HardyBench.Core.Timelines;
using static System.FormattableString;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>A trial that requests places and measures the time until they are shown.</summary>
public abstract record GestureTrial(TrialKind Kind) : Trial(Kind)
{
    /// <summary>It goes as fast as the machine shows the requests.</summary>
    public override TimeSpan? Length(PlaybackPlan start) => null;

    public override TrialStep? Next(PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed) =>
        done.Count == 0 ? new TrialStep(StepRole.Only, start with { Subject = new ByHand(Moves(start)) }) : null;

    protected abstract IReadOnlyList<Gesture> Moves(PlaybackPlan start);

    protected override string NextStep(IReadOnlyList<StepOutcome> done) =>
        done.SelectMany(outcome => outcome.Lags).Any(lag => lag.Longest > LagFindings.Unbroken)
            ? "Where it takes longer than a second, compare with half-raster proxies or an intermediate, whose frames all stand alone."
            : "Play it through to see whether it also keeps up in real time.";

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done)
    {
        var lags = done.SelectMany(outcome => outcome.Lags).ToList();
        var rows = Told(blank, row => OfPassage([.. lags.Where(lag => lag.PassageIndex == row.Index)]));
        return new TrialAnswer(OfAll(timeline, lags), rows, lags);
    }

    /// <summary>The answer for one passage.</summary>
    protected virtual string OfPassage(IReadOnlyList<LagFinding> lags) => lags.Count == 0 ? string.Empty
        : Came(lags) == 0 ? "no picture was shown"
        : Invariant(
            $"{Within(lags, lag => lag.WithinTenth) * 100:0} % within 0.1 s, {Within(lags, lag => lag.WithinSecond) * 100:0} % within 1 s"
        ) + PassedOver(lags, ", ", "requests skipped");

    /// <summary>The answer in a sentence.</summary>
    protected virtual string OfAll(Timeline timeline, IReadOnlyList<LagFinding> lags)
    {
        if (lags.Count == 0)
        {
            return "Nothing was asked for.";
        }

        if (Came(lags) == 0)
        {
            return "None of the requested pictures was shown.";
        }

        return Invariant(
                $"{Within(lags, lag => lag.WithinTenth) * 100:0} % of the {Came(lags)} pictures that were shown came at once (0.1 s), "
            )
            + Invariant(
                $"{Within(lags, lag => lag.WithinSecond) * 100:0} % within a second; the longest took {Longest(lags).TotalMilliseconds:0} ms"
            )
            + PassedOver(lags, "; ", "requests were skipped because a later one replaced them") + ".";
    }

    private static double Within(IReadOnlyList<LagFinding> lags, Func<LagFinding, double> share) =>
        lags.Sum(lag => share(lag) * lag.Came) / Came(lags);

    /// <summary>The longest that took to come on screen.</summary>
    protected static TimeSpan Longest(IReadOnlyList<LagFinding> lags) =>
        lags.Select(lag => lag.Longest).OfType<TimeSpan>().DefaultIfEmpty().Max();

    /// <summary>Places that came on screen.</summary>
    protected static int Came(IReadOnlyList<LagFinding> lags) => lags.Sum(lag => lag.Came);

    /// <summary>How many places never came, a phrase that begins with <paramref name="before"/>; empty where all came.</summary>
    protected static string PassedOver(IReadOnlyList<LagFinding> lags, string before, string words) =>
        lags.Sum(lag => lag.PassedOver) is > 0 and var over ? $"{before}{over} of {lags.Sum(lag => lag.Asked)} {words}" : string.Empty;
}
