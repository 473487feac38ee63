using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>What is kept beside a run, so that sheets and lists need not decode it.</summary>
/// <param name="Passages">One a passage, in order.</param>
/// <param name="Disturbance">Why it does not count for its machine; null where it counts.</param>
public sealed record RunSummary(IReadOnlyList<PassageSummary> Passages, Disturbance? Disturbance)
{
    /// <summary>Rises whenever a rule changes by which runs are judged; what was kept by earlier ones is drawn again.</summary>
    public const int Rules = 5;

    public static RunSummary Of(Run run)
    {
        var findings = RunFindings.Of(run);
        return new(
            [
                .. findings.Select(finding =>
                    PassageSummary.Of(
                        finding,
                        CombTeeth.Of(run.FramesOf(finding.Index), run.Header.Timeline.Rate),
                        DecodedOn(run, finding.Index))),
            ],
            Disturbance.Of(run, findings));
    }

    /// <summary>Where the clips of a passage were decoded, each place once: the fact behind many a difference that nobody saw.</summary>
    public static IReadOnlyList<string> DecodedOn(Run run, int passage) =>
        [
            .. run
                .Header.Timeline.Passages[passage]
                .Layers.Select(layer => run.Header.Conditions.Footage?.GetValueOrDefault(layer.ClipId)?.DecodedOn)
            .OfType<string>().Distinct()];
}

/// <summary>The same of one passage.</summary>
/// <param name="Second">What would limit it next, as in <see cref="LimiterFinding"/>.</param>
/// <param name="DecodedOn">Devices by FFmpeg's names, or <see cref="WorkPlace"/>s; empty where it is unknown.</param>
/// <param name="Teeth">As <see cref="CombTeeth"/> writes them.</param>
public sealed record PassageSummary(
    int Index,
    Verdict? Verdict,
    Limiter? Limiter,
    Limiter? Second,
    double? Headroom,
    int Slots,
    int Shown,
    double ShownRate,
    int StartUpDrops,
    int SteadyDrops,
    TimeSpan LongestFreeze, string? Failure, string Teeth, IReadOnlyList<string> DecodedOn)
{
    /// <inheritdoc cref="PassageFinding.Fails"/>
    public bool Fails => Verdict is Findings.Verdict.Wavers or Findings.Verdict.Breaks;

    public static PassageSummary Of(PassageFinding finding, string teeth, IReadOnlyList<string> decodedOn) => new(
        finding.Index,
        finding.Verdict,
        finding.Limiter?.Limiter,
        finding.Limiter?.Second?.Limiter,
        finding.Headroom,
        finding.Counts.Slots,
        finding.Counts.Shown,
        finding.Counts.ShownRate,
        finding.Counts.StartUpDrops, finding.Counts.SteadyDrops, finding.Counts.LongestFreeze, finding.Failure, teeth, decodedOn);
}
