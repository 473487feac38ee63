using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using static System.FormattableString;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>Does it still hold when it is warm?</summary>
/// <param name="Minutes">No round begins after this time.</param>
public sealed record SoakTrial(double Minutes = 10) : Trial(TrialKind.Soak)
{
    private const double MaxMinutes = 8 * 60;

    public override string? Problem(PlaybackPlan start) => Minutes is > 0 and <= MaxMinutes
        ? null
        : "A soak takes more than 0 and at most 8 hours.";

    public override int? StepCount(PlaybackPlan start) => null;

    public override TimeSpan? Length(PlaybackPlan start) => AtMost;

    public override TrialStep? Next(PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed) =>
        done.Count > 0 && (elapsed >= AtMost || Played(done) >= AtMost || SoakHeat.IsSettled(done))
            ? null
            : new TrialStep(
                new StepRole($"round {done.Count + 1}"), start with { StartCelsius = done.Count > 0 ? done[^1].EndCelsius : null });

    protected override string NextStep(IReadOnlyList<StepOutcome> done) => Worse(done).Count > 0
        ? "Improve the cooling or the room's temperature, then soak again; plan with the last round, not the first."
        : SoakHeat.IsSettled(done) || done[^1].EndCelsius is null ? "Results of a cool machine are valid for a long day too."
        : "Soak longer: the temperature is not stable yet.";

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done) =>
        blank with { Rows = Told(blank, OfPassage), Words = OfAll(done), EndCelsius = [.. done.Select(round => round.EndCelsius)] };

    private static string OfPassage(PassageAnswer row) =>
        Shown(row) is { Count: > 1 } shown ? Invariant($"{shown[0]:0.0} at first, {shown[^1]:0.0} shown a second at last") : string.Empty;

    private static string OfAll(IReadOnlyList<StepOutcome> done)
    {
        var worse = Worse(done);
        return $"After {done.Count} rounds {HeatOf(done)}. " + (worse.Count == 0
            ? "No passage does worse than in the first round."
            : $"{(worse.Count == 1 ? "Passage" : "Passages")} {string.Join(", ", worse)} {(worse.Count == 1 ? "does" : "do")} worse "
                + "than in the first round."
        );
    }

    private static string HeatOf(IReadOnlyList<StepOutcome> done)
    {
        if (done[^1].EndCelsius is not { } celsius)
        {
            return "its temperature cannot be read";
        }

        var rise = done.Count > 1 ? celsius - done[^2].EndCelsius : null;
        return SoakHeat.IsSettled(done) ? Invariant($"temperature stable at {celsius:0} °C")
            : rise > SoakHeat.Still ? Invariant($"{celsius:0} °C and still rising, by {rise:0.0} °C in the last round")
            : Invariant($"{celsius:0} °C and no longer rising");
    }

    /// <summary>Numbers of passages with a worse verdict in the last round than in the first.</summary>
    private static List<int> Worse(IReadOnlyList<StepOutcome> done) =>
    [
        .. done[0].Findings.Zip(done[^1].Findings)
            .Where(pair => pair.Second.Verdict > pair.First.Verdict)
            .Select(pair => pair.First.Index + 1),
    ];

    private TimeSpan AtMost => TimeSpan.FromMinutes(Minutes);

    private static TimeSpan Played(IReadOnlyList<StepOutcome> done) =>
        done.Aggregate(TimeSpan.Zero, (sum, outcome) => sum + outcome.Played);
}
