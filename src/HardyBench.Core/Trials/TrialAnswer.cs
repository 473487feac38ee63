using System.Globalization;
using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Lags;
using HardyBench.Core.Findings.Statistics;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Trials;

/// <summary>What a trial has found so far.</summary>
/// <param name="Words">The answer in a sentence or two.</param>
/// <param name="Rows">One a passage of the timeline, in order.</param>
/// <param name="Lags">For scrub and start lag: each sort of gesture in each passage; else empty.</param>
public sealed record TrialAnswer(string Words, IReadOnlyList<PassageAnswer> Rows, IReadOnlyList<LagFinding> Lags);

/// <summary>What a trial has found about one passage.</summary>
/// <param name="Words">Short; empty while nothing can be said.</param>
/// <param name="Cells">One a run, in the order played; null where the run did not play this passage.</param>
public sealed record PassageAnswer(int Index, string Question, string Words, IReadOnlyList<PassageFinding?> Cells);

/// <summary>Draws the answer of a trial from its runs.</summary>
public static class TrialAnswers
{
    /// <param name="timeline">The whole timeline asked about.</param>
    /// <param name="done">The runs so far.</param>
    /// <param name="clips">Of a ramp, to see whether it is one; null where that is not asked.</param>
    public static TrialAnswer Of(TrialKind kind, Timeline timeline, IReadOnlyList<StepOutcome> done, IReadOnlyDictionary<string, Clip>? clips = null)
    {
        var cells = timeline.Passages.Select((_, index) => CellsOf(kind, index, done)).ToList();
        var lags = done.SelectMany(outcome => LagFindings.Of(outcome.Run)).ToList();
        var real = kind == TrialKind.Compare ? RealDifferences(done, timeline.Passages.Count) : [];
        var rows = timeline.Passages.Select((passage, index) => new PassageAnswer(
            index, passage.Question, kind switch
            {
                TrialKind.Repeat => Repeat(cells[index]),
                TrialKind.StepDown => StepDown(done, cells[index]),
                TrialKind.HalfRate => HalfRate(done, index),
                TrialKind.Soak => Soak(cells[index]),
                TrialKind.Compare => Compare(done, index, real.Contains(index)),
                TrialKind.Scrub or TrialKind.StartLag => Lag([.. lags.Where(lag => lag.PassageIndex == index)]),
                _ => string.Empty,
            },
            cells[index])).ToList();
        var words = done.Count == 0 ? "Nothing has been played yet." : Overall(kind, timeline, done, rows, lags, real);
        var flat = kind == TrialKind.Ramp && clips is not null ? RampSearch.WhyNotRising(timeline, clips) : null;
        return new TrialAnswer(flat is null ? words : $"{words} {flat}", rows, lags);
    }

    private static List<PassageFinding?> CellsOf(TrialKind kind, int index, IReadOnlyList<StepOutcome> done) => kind switch
    {
        TrialKind.Scrub or TrialKind.StartLag => [],
        TrialKind.Ramp => [.. done.Select(outcome => outcome.Label == RampSearch.LabelOf(index) ? outcome.Findings[0] : null)],
        _ => [.. done.Select(outcome => outcome.Findings[index])],
    };

    private static string Overall(
        TrialKind kind, Timeline timeline, IReadOnlyList<StepOutcome> done, List<PassageAnswer> rows, List<LagFinding> lags, HashSet<int> real) => kind switch
    {
        TrialKind.Play => Counted(done[0]),
        TrialKind.Repeat => RepeatOverall(rows, done.Count),
        TrialKind.StepDown => done[^1].Holds
            ? $"Every passage holds from {done[^1].Label} on."
            : StepDownOverall(done[^1], rows.Count),
        TrialKind.Ramp => RampOverall(timeline, done),
        TrialKind.HalfRate => done.Count < 2 ? "Half the rate has not been played yet." : HalfRateOverall(done),
        TrialKind.Soak => SoakOverall(done),
        TrialKind.Compare => CompareOverall(rows, done, real.Count),
        _ => LagOverall(lags),
    };

    private const string NoneLongEnough = "No passage was played long enough for a verdict.";

    private static string Counted(StepOutcome outcome)
    {
        var judged = outcome.Findings.Where(finding => finding.Verdict is not null).ToList();
        return judged.Count == 0
            ? NoneLongEnough
            : $"{judged.Count(finding => finding.Verdict == Verdict.Holds)} of {judged.Count} passages hold.";
    }

    private static string Repeat(List<PassageFinding?> cells)
    {
        var shown = Shown(cells);
        if (shown.Count < 2)
        {
            return string.Empty;
        }

        var spread = Spread.Of(shown);
        var verdicts = cells.Select(cell => cell?.Verdict).OfType<Verdict>().Distinct().ToList();
        return Say($"median {spread.Median:0.0}, {spread.Mean:0.00} ± {spread.Half:0.00} shown a second")
            + (spread.Variation is { } variation ? Say($", varies by {variation * 100:0.0} %") : string.Empty)
            + (verdicts.Count > 1 ? ", verdicts differ" : string.Empty)
            + (spread.Outliers.Count > 0 ? $", outlier in run {string.Join(", ", spread.Outliers.Select(place => place + 1))}" : string.Empty);
    }

    private static string RepeatOverall(List<PassageAnswer> rows, int runs)
    {
        var differing = rows.Count(row => row.Cells.Select(cell => cell?.Verdict).OfType<Verdict>().Distinct().Count() > 1);
        return runs < 2 ? "One run says nothing about spread."
            : differing == 0 ? $"All {runs} runs give every passage the same verdict."
            : $"{differing} of {rows.Count} passages got different verdicts in {runs} runs: they stand at a limit, or something else ran.";
    }

    private static string StepDown(IReadOnlyList<StepOutcome> done, List<PassageFinding?> cells)
    {
        var first = cells.FindIndex(cell => cell?.Verdict == Verdict.Holds);
        return first >= 0 ? $"holds from {done[first].Label}"
            : cells.TrueForAll(cell => cell?.Verdict is null) ? "too short for a verdict"
            : $"does not hold at {done[^1].Label}";
    }

    private static string RampOverall(Timeline timeline, IReadOnlyList<StepOutcome> done)
    {
        var judged = RampSearch.Judged(timeline);
        var (holds, fails) = RampSearch.Bounds(judged, RampSearch.Known(done));
        if (fails - holds > 1)
        {
            return holds < 0
                ? $"The break lies at {Named(fails)} at the latest."
                : $"The break lies after {Named(holds)}{(fails < judged.Count ? $" and at {Named(fails)} at the latest" : string.Empty)}.";
        }

        return fails == judged.Count ? $"It holds to the end of the ramp, {Named(holds)}: the ramp is too short for this machine."
            : holds < 0 ? $"It does not hold even at {Named(fails)}."
            : $"It holds up to {Named(holds)}, and no longer at {Named(fails)}.";

        string Named(int place) => $"passage {judged[place] + 1}, “{timeline.Passages[judged[place]].Question}”";
    }

    /// <summary>A machine that drops frames works as hard as it can at either rate, so only passages that hold at both say anything.</summary>
    private static bool TellsOfRate(IReadOnlyList<StepOutcome> done, int index) =>
        done.All(outcome => outcome.Findings[index].Verdict == Verdict.Holds);

    private static string HalfRate(IReadOnlyList<StepOutcome> done, int index) => done.Count < 2 ? string.Empty
        : done.Any(outcome => outcome.Findings[index].Fails) ? "does not tell: frames are dropped"
        : !TellsOfRate(done, index) ? "too short for a verdict"
        : WorkOf(done[0].Run, index) is { } full && WorkOf(done[1].Run, index) is { } half && full > 0
            ? Say($"{full:0.00} to {half:0.00} cores, {half / full * 100:0} %")
            : string.Empty;

    private static string HalfRateOverall(IReadOnlyList<StepOutcome> done)
    {
        var telling = done[0].Findings.Select(finding => finding.Index).Where(index => TellsOfRate(done, index)).ToList();
        if (telling.Count == 0)
        {
            return done.Any(outcome => outcome.Findings.Any(finding => finding.Fails))
                ? "It does not tell: no passage holds at both rates, and a machine that drops frames works as hard as it can at either."
                : NoneLongEnough;
        }

        var (full, half) = (WorkOver(done[0].Run, telling), WorkOver(done[1].Run, telling));
        return full is > 0 && half is not null
            ? Say($"At half the rate the player's work falls from {full:0.00} to {half:0.00} cores, to {half / full * 100:0} %, ")
                + (telling.Count == done[0].Findings.Count ? "over all passages." : $"over the {telling.Count} of {done[0].Findings.Count} passages that hold at both.")
            : "The player's work could not be read.";
    }

    /// <summary>Over several passages, each by its length.</summary>
    private static double? WorkOver(Run run, List<int> passages)
    {
        var lengths = run.Header.Timeline.Passages;
        return passages.Sum(index => WorkOf(run, index) * lengths[index].FrameCount) / passages.Sum(index => lengths[index].FrameCount);
    }

    private static string StepDownOverall(StepOutcome last, int passages)
    {
        var failing = last.Findings.Where(finding => finding.Fails).ToList();
        if (failing.Count == 0)
        {
            return NoneLongEnough;
        }

        if (last.Run.Header.Settings.Scale != PreviewScale.Eighth)
        {
            return $"At {last.Label} {failing.Count} of {passages} passages do not hold yet.";
        }

        return $"No scale is small enough: at {last.Label} {failing.Count} of {passages} passages do not hold."
            + (failing.TrueForAll(finding => finding.Limiter?.Limiter is Limiter.ProcessorDecode or Limiter.MediaEngine)
                ? " Decoding is the limit, which no scale changes; proxies would."
                : string.Empty);
    }

    /// <summary>Cores that decoding and effects took, over the run or one passage; null where it could not be read.</summary>
    public static double? WorkOf(Run run, int? passage = null)
    {
        var slots = passage is { } index ? run.FramesOf(index) : run.Frames;
        if (slots.Count == 0)
        {
            return null;
        }

        var loads = LoadMeans.Over(run.Loads, slots[0].SlotStart, slots[^1].SlotStart + run.Header.Timeline.Rate.FrameDuration);
        return loads.Of(LoadKind.OwnDecode) is { } decode ? decode + (loads.Of(LoadKind.OwnEffects) ?? 0) : null;
    }

    private static string Soak(List<PassageFinding?> cells) =>
        Shown(cells) is { Count: > 1 } shown ? Say($"{shown[0]:0.0} at first, {shown[^1]:0.0} shown a second at last") : string.Empty;

    private static string SoakOverall(IReadOnlyList<StepOutcome> done)
    {
        var heat = SoakHeat.EndTemperature(done[^1]) is { } celsius
            ? Say($"{(SoakHeat.IsSettled(done) ? "heat settled at" : "it stood at")} {celsius:0} °C")
            : "its temperature cannot be read";
        var worse = done[0].Findings.Zip(done[^1].Findings)
            .Where(pair => pair.Second.Verdict > pair.First.Verdict).Select(pair => pair.First.Index + 1).ToList();
        return $"After {done.Count} rounds {heat}. " + (worse.Count == 0
            ? "No passage does worse than in the first round."
            : $"{(worse.Count == 1 ? "Passage" : "Passages")} {string.Join(", ", worse)} {(worse.Count == 1 ? "does" : "do")} worse than in the first round.");
    }

    private static string Compare(IReadOnlyList<StepOutcome> done, int index, bool isReal)
    {
        if (Pairs(done, index) is not { } difference)
        {
            return string.Empty;
        }

        var spread = difference.Difference;
        if (spread is { Mean: 0, Deviation: 0 })
        {
            return "no difference at all";
        }

        var width = spread.Half is { } half ? Say($" ± {half:0.00}") : string.Empty;
        return Say($"{spread.Mean:+0.00;−0.00;0.00}{width} shown a second: ") + (isReal ? "a real difference"
            : difference.PairsToSettle is { } pairs ? $"within noise; about {pairs} pairs would settle it"
            : "within noise");
    }

    private static string CompareOverall(List<PassageAnswer> rows, IReadOnlyList<StepOutcome> done, int real)
    {
        return done.Count < 2 ? "The second side has not been played yet."
            : done.Count < 4 ? "One pair says nothing about noise."
            : real == 0 ? $"In {done.Count / 2} pairs no passage differs by more than noise."
            : $"In {done.Count / 2} pairs {real} of {rows.Count} passages differ by more than noise.";
    }

    /// <summary>Passages, from 0, that differ by more than noise even though so many were looked at: with twenty passages and no
    /// difference at all, one of them would seem to differ if each was judged alone.</summary>
    private static HashSet<int> RealDifferences(IReadOnlyList<StepOutcome> done, int passages)
    {
        var pairs = Enumerable.Range(0, passages).Select(index => (Index: index, Chance: Pairs(done, index)?.Chance)).Where(pair => pair.Chance is not null).ToList();
        return [.. HolmCorrection.Rejected([.. pairs.Select(pair => pair.Chance!.Value)], MostChance).Select(place => pairs[place].Index)];
    }

    private const double MostChance = 0.05;

    /// <summary>Frames shown a second, changed side − side as set, pair by pair.</summary>
    public static PairedDifference? Pairs(IReadOnlyList<StepOutcome> done, int index)
    {
        var (first, second) = (Side(TrialCourse.FirstSide), Side(TrialCourse.SecondSide));
        var pairs = Math.Min(first.Count, second.Count);
        return pairs == 0 ? null : PairedDifference.Of([.. first.Take(pairs)], [.. second.Take(pairs)]);

        List<double> Side(string label) =>
            [.. done.Where(outcome => outcome.Label.StartsWith(label, StringComparison.Ordinal)).Select(outcome => outcome.Findings[index].Counts.ShownRate)];
    }

    private static string Lag(List<LagFinding> lags) => lags.Count == 0 ? string.Empty
        : Came(lags) == 0 ? "nothing came on screen"
        : Say($"{Within(lags, lag => lag.WithinTenth) * 100:0} % within 0.1 s, {Within(lags, lag => lag.WithinSecond) * 100:0} % within 1 s") + PassedOver(lags, ", ", "places passed over");

    private static string LagOverall(List<LagFinding> lags)
    {
        if (lags.Count == 0)
        {
            return "Nothing was asked for.";
        }

        if (Came(lags) == 0)
        {
            return "Nothing that was asked for came on screen.";
        }

        var longest = lags.Select(lag => lag.Longest).OfType<TimeSpan>().DefaultIfEmpty().Max();
        return Say($"{Within(lags, lag => lag.WithinTenth) * 100:0} % of the {Came(lags)} pictures that were shown came at once (0.1 s), {Within(lags, lag => lag.WithinSecond) * 100:0} % within a second; the longest took {longest.TotalMilliseconds:0} ms")
            + PassedOver(lags, "; ", "places were passed over because the hand had moved on") + ".";
    }

    private static double Within(List<LagFinding> lags, Func<LagFinding, double> share) =>
        lags.Sum(lag => share(lag) * lag.Came) / Came(lags);

    private static int Came(List<LagFinding> lags) => lags.Sum(lag => lag.Came);

    private static string PassedOver(List<LagFinding> lags, string before, string words) => lags.Sum(lag => lag.PassedOver) is > 0 and var over
        ? $"{before}{over} of {lags.Sum(lag => lag.Asked)} {words}"
        : string.Empty;

    private static List<double> Shown(List<PassageFinding?> cells) =>
        [.. cells.OfType<PassageFinding>().Where(cell => cell.Counts.Slots > 0).Select(cell => cell.Counts.ShownRate)];

    private static string Say(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
