using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>Which is the first preview scale that holds?</summary>
public sealed record StepDownTrial() : Trial(TrialKind.StepDown)
{
    private static readonly PreviewScale[] Scales = [PreviewScale.Full, PreviewScale.Half, PreviewScale.Quarter, PreviewScale.Eighth];

    public override string? Problem(PlaybackPlan start) => AllTooShort(start);

    public override int? StepCount(PlaybackPlan start) => null;

    public override TrialStep? Next(PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed)
    {
        var next = Array.IndexOf(Scales, start.Settings.Scale) + done.Count;
        return next < Scales.Length && (done.Count == 0 || !done[^1].Holds)
            ? new TrialStep(
                new StepRole($"{Scales[next].ToString().ToLowerInvariant()} scale"),
                start with
                {
                    Settings = start.Settings with { Scale = Scales[next] },
                }
            )
            : null;
    }

    protected override string NextStep(IReadOnlyList<StepOutcome> done) => done[^1].Holds
        ? done.Count == 1 ? "A capacity trial shows how much more the machine could do." : $"Work at {done[^1].Role.Label}, or see under Advice what would hold at full scale."
        : "Compare with half-raster proxies, or see under Advice what would hold.";

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done) =>
        blank with
        {
            Rows = Told(blank, row => OfPassage(done, row.Index)),
            Words = done[^1].Holds ? $"Every passage holds from {done[^1].Role.Label} on." : NoneHolds(done[^1], blank.Rows.Count),
        };

    private static string OfPassage(IReadOnlyList<StepOutcome> done, int passage)
    {
        var first = done.FirstOrDefault(outcome => outcome.Findings[passage].Verdict == Verdict.Holds);
        return first is not null ? $"holds from {first.Role.Label}"
            : done.All(outcome => outcome.Findings[passage].IsTooShort) ? "too short for a verdict"
            : done.All(outcome => outcome.Findings[passage].Verdict is null) ? "could not be played"
            : $"does not hold at {done[^1].Role.Label}";
    }

    private static string NoneHolds(StepOutcome last, int passages)
    {
        var failing = last.Findings.Where(finding => finding.Fails).ToList();
        if (failing.Count == 0)
        {
            return NoneLongEnough;
        }

        if (last.Header.Settings.Scale != PreviewScale.Eighth)
        {
            return $"At {last.Role.Label} {failing.Count} of {passages} passages do not hold yet.";
        }

        return $"No scale is small enough: at {last.Role.Label} {failing.Count} of {passages} passages do not hold."
            + (failing.TrueForAll(finding => finding.Limiter?.Limiter is Limiter.ProcessorDecode or Limiter.MediaEngine)
                ? " Decoding is the limit, which no scale changes; proxies would."
                : string.Empty);
    }
}
