using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>The drive that the footage lies on is busy, or decoders wait for it. Drives without any of it do not count.</summary>
public sealed class DriveRule() : BusyDeviceRule(LoadKind.DriveBusy, Limiter.Drive, "media drive", new LimiterAdvice(
    "Media on a faster drive, or footage of a lower data rate.",
    "A faster processor or graphics unit will not help while they wait for the drive.",
    "the drive still is too slow"))
{
    /// <summary>A decoder that waits for its footage also hands over what came: with this much of its time spent waiting, the drive is the
    /// limit, whether or not the system calls it busy.</summary>
    private const double FootageCeiling = 0.85;

    protected override bool Counts(int index, Conditions conditions) => conditions.IsMediaDrive(index);

    public override LimiterFinding? Find(LoadMeans loads, Conditions conditions) =>
        base.Find(loads, conditions)
        ?? (loads.HighestOf(LoadKind.FootageWait) is { Value: >= FootageCeiling and var waiting }
            ? Found(loads, Limiter.Drive, new LateFootage(waiting))
            : null);

    protected override string? KnownBy(LimiterFinding finding) => finding.Evidence is LateFootage footage
        ? $"the player waited for footage to be read {Figures.Percent(footage.Waiting)} of the time"
        : base.KnownBy(finding);
}
