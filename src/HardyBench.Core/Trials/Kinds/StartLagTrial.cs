using HardyBench.Core.Playback.Hand;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>How long is it from the key to a moving picture?</summary>
public sealed class StartLagTrial : HandTrial
{
    public override string? Problem(TrialPlan plan) => plan.Times is < 1 or > TrialPlan.MostTimes
        ? $"Start lag takes 1 to {TrialPlan.MostTimes} places a passage, not {plan.Times}."
        : null;

    protected override IReadOnlyList<HandMove> Moves(TrialPlan plan) => HandScripts.Starts(plan.Start.Timeline, plan.Times);
}
