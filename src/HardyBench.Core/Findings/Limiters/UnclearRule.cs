using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>Nothing that was measured is at its ceiling, or nothing could be measured. It always fits.</summary>
public sealed class UnclearRule : LimiterRule
{
    protected override IReadOnlyDictionary<Limiter, LimiterAdvice> Names { get; } = new Dictionary<Limiter, LimiterAdvice>
    {
        [Limiter.Unknown] = new(
            "Play it three times to see whether it stays; then look at the software.", null, "what limits is not clear"),
    };

    public override LimiterFinding Find(LoadMeans loads, Conditions conditions)
    {
        if (Pool(loads, conditions) is not { } pool)
        {
            return Found(loads, Limiter.Unknown, new NothingRead());
        }

        var other = loads.HighestOf(LoadKind.DriveBusy) is { Value: >= DeviceCeiling } busy ? busy : ((int Index, double Value)?)null;
        return Found(loads, Limiter.Unknown, new NothingAtItsLimit(
            pool, other is { } drive ? conditions.NameOf(LoadKind.DriveBusy, drive.Index) : null, other?.Value));
    }

    protected override string? KnownBy(LimiterFinding finding) => finding.Evidence switch
    {
        NothingAtItsLimit { OtherDrive: { } drive } nothing =>
            $"nothing that it uses is at its limit (processor {Figures.Percent(nothing.Pool)}); "
            + $"drive {drive}, without any of this footage, is {Figures.Percent(nothing.OtherBusy ?? 0)} busy",
        NothingAtItsLimit nothing => $"nothing measured is at its limit (processor {Figures.Percent(nothing.Pool)})",
        _ => null,
    };
}
