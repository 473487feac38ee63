using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>Does it play in real time?</summary>
public sealed record PlayTrial() : Trial(TrialKind.Play)
{
    public override TrialStep? Next(PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed) =>
        done.Count == 0 ? new TrialStep(StepRole.Only, start) : null;

    protected override string NextStep(IReadOnlyList<StepOutcome> done) => done[0].Findings.Any(finding => finding.Fails)
        ? "Open a passage that fails to see what limits it, or step down to find a preview scale that holds."
        : "A capacity trial shows how much more the machine could do.";

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done)
    {
        var judged = done[0].Findings.Where(finding => finding.Verdict is not null).ToList();
        return blank with
        {
            Words =
                judged.Count == 0
                    ? NoneLongEnough
                    : $"{judged.Count(finding => finding.Verdict == Verdict.Holds)} of {judged.Count} passages hold.",
        };
    }
}
