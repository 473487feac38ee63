using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>A device that is at its ceiling.</summary>
public abstract class BusyDeviceRule(LoadKind kind, Limiter limiter, string name, LimiterAdvice advice) : LimiterRule
{
    /// <summary>A device as findings name it: the one whose load is read.</summary>
    /// <exception cref="InvalidOperationException">There is no rule about such a load.</exception>
    public static string NameOf(LoadKind load) => InOrder.OfType<BusyDeviceRule>().First(rule => rule.Load == load).Name;

    private LoadKind Load => kind;

    private string Name => name;

    protected override IReadOnlyDictionary<Limiter, LimiterAdvice> Names => new Dictionary<Limiter, LimiterAdvice> { [limiter] = advice };

    /// <summary>Whether a reading by its number is of a device that counts.</summary>
    protected virtual bool Counts(int index, Conditions conditions) => true;

    public override LimiterFinding? Find(LoadMeans loads, Conditions conditions) =>
        loads.HighestOf(kind, index => Counts(index, conditions)) is { Value: >= DeviceCeiling } device
            ? Found(loads, limiter, new BusyDevice(kind, device.Value))
            : null;

    protected override string? KnownBy(LimiterFinding finding) =>
        finding.Evidence is BusyDevice busy ? $"{name} {Figures.Percent(busy.Busy)} busy" : null;
}
