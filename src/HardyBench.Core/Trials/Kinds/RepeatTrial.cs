using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Statistics;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using static System.FormattableString;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>Is the result repeatable?</summary>
/// <param name="Times">Runs.</param>
public sealed record RepeatTrial(int Times = 3) : Trial(TrialKind.Repeat)
{
    public override string? Problem(PlaybackPlan start) => Times is < 3 or > MaxTimes
        ? $"A repeat takes 3 to {MaxTimes} runs, not {Times}: with fewer the spread says nothing."
        : null;

    public override int? StepCount(PlaybackPlan start) => Times;

    public override TrialStep? Next(PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed) =>
        done.Count < Times ? new TrialStep(new StepRole($"{done.Count + 1} of {Times}"), start) : null;

    protected override string NextStep(IReadOnlyList<StepOutcome> done) => done.Count < 3 ? "Repeat it three times or more."
        : "A comparison finds differences that are larger than this spread.";

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done) =>
        blank with { Rows = Told(blank, OfPassage), Words = OfAll(blank.Rows, done.Count) };

    private static string OfPassage(PassageAnswer row)
    {
        var shown = Shown(row);
        if (shown.Count < 2)
        {
            return string.Empty;
        }

        var spread = Spread.Of([.. shown]);
        var verdicts = row.Cells.Select(cell => cell?.Verdict).OfType<Verdict>().Distinct().ToList();
        return Invariant($"median {spread.Median:0.0}, {spread.Mean:0.00} ± {spread.Half:0.00} shown a second")
            + (spread.Variation is { } variation ? Invariant($", varies by {variation * 100:0.0} %") : string.Empty)
            + (verdicts.Count > 1 ? ", verdicts differ" : string.Empty)
            + (
                spread.Outliers.Count > 0
                    ? $", outlier in run {string.Join(", ", spread.Outliers.Select(place => place + 1))}"
                    : string.Empty
            );
    }

    private static string OfAll(IReadOnlyList<PassageAnswer> rows, int runs)
    {
        var differing = rows.Count(row => row.Cells.Select(cell => cell?.Verdict).OfType<Verdict>().Distinct().Count() > 1);
        return runs < 2 ? "One run says nothing about spread."
            : differing == 0 ? $"All {runs} runs give every passage the same verdict."
            : $"{differing} of {rows.Count} passages got different verdicts in {runs} runs: they are at a limit, or something else ran.";
    }
}
