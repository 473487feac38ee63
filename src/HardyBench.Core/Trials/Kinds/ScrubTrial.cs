using HardyBench.Core.Playback.Hand;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>Does the picture follow while scrubbing?</summary>
public sealed class ScrubTrial : HandTrial
{
    protected override IReadOnlyList<HandMove> Moves(TrialPlan plan) => HandScripts.Scrub(plan.Start.Timeline);
}
