using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using static System.FormattableString;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>What does half the frame rate do to the load?</summary>
public sealed record HalfRateTrial() : Trial(TrialKind.HalfRate)
{
    public override int? StepCount(PlaybackPlan start) => 2;

    /// <summary>The second run takes twice as long, frame by frame.</summary>
    public override TimeSpan? Length(PlaybackPlan start) => Once(start) * 3;

    public override TrialStep? Next(PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed) =>
        done.Count switch
    {
        0 => AtRateOf(start),
        1 => AtRateOf(start with { Timeline = start.Timeline.AtHalfRate() }),
        _ => null,
    };

    protected override string NextStep(IReadOnlyList<StepOutcome> done) =>
        done.Any(outcome => outcome.Findings.Any(finding => finding.Fails)) ? "Step down first: at a preview scale that holds the load can be compared."
        : "If the delivery allows half the rate, plan with the lower load.";

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done) =>
        blank with
        {
            Rows = Told(blank, row => OfPassage(done, row.Index)),
            Words = done.Count < 2 ? "Half the rate has not been played yet." : OfAll(done),
        };

    private static TrialStep AtRateOf(PlaybackPlan plan) => new(new StepRole($"{plan.Timeline.Rate} a second"), plan);

    /// <summary>A machine that drops frames works as hard as it can at either rate, so only passages that hold at both say
    /// anything.</summary>
    private static bool ShowsRateEffect(IReadOnlyList<StepOutcome> done, int index) =>
        done.All(outcome => outcome.Findings[index].Verdict == Verdict.Holds && outcome.Work[index] is not null);

    private static string OfPassage(IReadOnlyList<StepOutcome> done, int index) => done.Count < 2 ? string.Empty
        : done.Any(outcome => outcome.Findings[index].Fails) ? "no answer: frames are dropped"
        : done.Any(outcome => outcome.Findings[index].Verdict is null) ? "too short for a verdict"
        : done[0].Work[index] is { } full && done[1].Work[index] is { } half
            ? full > 0 ? Invariant($"{full:0.00} to {half:0.00} cores, {half / full * 100:0} %") : "no processor work: everything runs on devices"
            : "the player's work could not be read";

    private static string OfAll(IReadOnlyList<StepOutcome> done)
    {
        var telling = done[0].Findings.Select(finding => finding.Index).Where(index => ShowsRateEffect(done, index)).ToList();
        if (telling.Count == 0)
        {
            return done.Any(outcome => outcome.Findings.Any(finding => finding.Fails))
                ? "No answer: no passage holds at both rates, and a machine that drops frames is fully loaded at either."
                : NoneLongEnough;
        }

        var (full, half) = (WorkOver(done[0], telling), WorkOver(done[1], telling));
        return full is > 0 && half is not null
            ? Invariant($"At half the rate the player's work falls from {full:0.00} to {half:0.00} cores, to {half / full * 100:0} %, ")
                + (
                    telling.Count == done[0].Findings.Count
                        ? "over all passages."
                        : $"over the {telling.Count} of {done[0].Findings.Count} passages that hold at both."
                )
            : "The player's work could not be read.";
    }

    /// <summary>Over several passages, each by its length.</summary>
    private static double? WorkOver(StepOutcome outcome, List<int> passages)
    {
        var lengths = outcome.Header.Timeline.Passages;
        return passages.Sum(index => outcome.Work[index] * lengths[index].FrameCount) / passages.Sum(index => lengths[index].FrameCount);
    }
}
