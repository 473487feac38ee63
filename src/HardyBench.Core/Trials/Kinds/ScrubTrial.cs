using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>Does the picture follow while scrubbing?</summary>
public sealed record ScrubTrial() : GestureTrial(TrialKind.Scrub)
{
    protected override IReadOnlyList<Gesture> Moves(PlaybackPlan start) => GestureScripts.Scrub(start.Timeline);
}
