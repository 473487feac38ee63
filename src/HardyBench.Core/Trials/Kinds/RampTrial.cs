using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>At which step of a ramp does it stop holding?</summary>
public sealed record RampTrial() : Trial(TrialKind.Ramp)
{
    public override string? Problem(PlaybackPlan start) => start.Timeline.Passages.Count < 2
        ? "A ramp needs at least two passages, each with more load than the one before."
        : AllTooShort(start);

    public override string? Remark(Timeline timeline, IReadOnlyDictionary<string, Clip> clips) => RampSearch.WhyNotRising(timeline, clips);

    public override int? StepCount(PlaybackPlan start) => null;

    public override TrialStep? Next(PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed) =>
        RampSearch.Next(RampSearch.Judged(start.Timeline), RampSearch.Known(done)) is { } index
            ? new TrialStep(Of(index), start with { Timeline = start.Timeline.Only(index) })
            : null;

    protected override PassageFinding? FindingOf(StepOutcome outcome, int passage) =>
        outcome.Role.Passage == passage ? outcome.Findings[0] : null;

    protected override string NextStep(IReadOnlyList<StepOutcome> done) =>
        "Open the first passage that does not hold to see what limits it; a better part of that kind moves the break.";

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done) =>
        blank with { Words = OfAll(timeline, done) };

    private static StepRole Of(int passage) => new($"passage {passage + 1}", passage);

    private static string OfAll(Timeline timeline, IReadOnlyList<StepOutcome> done)
    {
        var judged = RampSearch.Judged(timeline);
        var (holds, fails) = RampSearch.Bounds(judged, RampSearch.Known(done));
        if (fails - holds > 1)
        {
            return holds < 0
                ? $"It stops holding at {Named(fails)} at the latest."
                : $"It stops holding after {Named(holds)}{(fails < judged.Count ? $" and at {Named(fails)} at the latest" : string.Empty)}.";
        }

        return fails == judged.Count ? $"It holds to the end of the ramp, {Named(holds)}: the ramp is too short for this machine."
            : holds < 0 ? $"It does not hold even at {Named(fails)}."
            : $"It holds up to {Named(holds)}, and no longer at {Named(fails)}.";

        string Named(int place) => $"passage {judged[place] + 1}, “{timeline.Passages[judged[place]].Question}”";
    }
}
