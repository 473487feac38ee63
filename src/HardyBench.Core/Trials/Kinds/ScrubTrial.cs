using HardyBench.Core.Playback.Hand;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>Does the picture keep up with the hand?</summary>
public sealed class ScrubTrial : HandTrial
{
    protected override IReadOnlyList<HandMove> Moves(TrialPlan plan) => HandScripts.Scrub(plan.Start.Timeline);
}
