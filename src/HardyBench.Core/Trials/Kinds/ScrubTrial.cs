using HardyBench.Core.Playback.Gestures;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>Does the picture follow while scrubbing?</summary>
public sealed class ScrubTrial : GestureTrial
{
    protected override IReadOnlyList<Gesture> Moves(TrialPlan plan) => GestureScripts.Scrub(plan.Start.Timeline);
}
