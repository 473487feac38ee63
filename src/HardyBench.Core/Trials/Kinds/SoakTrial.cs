using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using static System.FormattableString;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>Does it still play so when it is hot?</summary>
public sealed class SoakTrial : Trial
{
    public override string? Problem(TrialPlan plan) => plan.AtMost <= TimeSpan.Zero || plan.AtMost > TrialPlan.LongestSoak
        ? "A soak takes more than no time and at most 8 hours."
        : null;

    public override int? StepCount(TrialPlan plan) => null;

    public override TimeSpan? Length(TrialPlan plan) => plan.AtMost;

    public override TrialStep? Next(TrialPlan plan, PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed) =>
        done.Count > 0 && (elapsed >= plan.AtMost || Played(done) >= plan.AtMost || SoakHeat.IsSettled(done))
            ? null
            : new TrialStep(
                new StepRole($"round {done.Count + 1}"), start with { StartCelsius = done.Count > 0 ? done[^1].EndCelsius : null });

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done) =>
        blank with { Rows = Told(blank, OfPassage), Words = OfAll(done) };

    private static string OfPassage(PassageAnswer row) =>
        Shown(row) is { Count: > 1 } shown ? Invariant($"{shown[0]:0.0} at first, {shown[^1]:0.0} shown a second at last") : string.Empty;

    private static string OfAll(IReadOnlyList<StepOutcome> done)
    {
        var heat = done[^1].EndCelsius is { } celsius
            ? Invariant($"{(SoakHeat.IsSettled(done) ? "heat settled at" : "it stood at")} {celsius:0} °C")
            : "its temperature cannot be read";
        var worse = done[0].Findings.Zip(done[^1].Findings)
            .Where(pair => pair.Second.Verdict > pair.First.Verdict).Select(pair => pair.First.Index + 1).ToList();
        return $"After {done.Count} rounds {heat}. " + (worse.Count == 0
            ? "No passage does worse than in the first round."
            : $"{(worse.Count == 1 ? "Passage" : "Passages")} {string.Join(", ", worse)} {(worse.Count == 1 ? "does" : "do")} worse "
                + "than in the first round."
        );
    }

    private static TimeSpan Played(IReadOnlyList<StepOutcome> done) =>
        done.Aggregate(TimeSpan.Zero, (sum, outcome) => sum + outcome.Played);
}
