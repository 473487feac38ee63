using HardyBench.Core.Playback;
using static System.FormattableString;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>Memory is full and the system swaps, or tasks wait for memory.</summary>
public sealed class MemoryRule : LimiterRule
{
    private const double Ceiling = 0.95;

    /// <summary>Share of time for which tasks stand still for want of memory before it is named, whatever is called free: a control group
    /// has limits of its own.</summary>
    private const double PressureCeiling = 0.25;

    protected override IReadOnlyDictionary<Limiter, LimiterAdvice> Names { get; } = new Dictionary<Limiter, LimiterAdvice>
    {
        [Limiter.Memory] = new(
            "More memory, or fewer layers at once.",
            "A faster processor will not help while it waits for memory.",
            "memory still is too small"),
    };

    public override LimiterFinding? Find(LoadMeans loads, Conditions conditions) =>
        loads.Of(LoadKind.SwapTraffic) is > 0 and var traffic
        && loads.Of(LoadKind.MemoryUsed) is { } used
        && loads.Of(LoadKind.MemoryFitted) is { } fitted
        && used >= Ceiling * fitted
            ? Found(loads, Limiter.Memory, new FullMemory(used / fitted, traffic))
            : loads.Of(LoadKind.MemoryPressure) is >= PressureCeiling and var standing
                ? Found(loads, Limiter.Memory, new ShortOfMemory(standing))
                : null;

    protected override string? KnownBy(LimiterFinding finding) => finding.Evidence switch
    {
        FullMemory memory =>
            Invariant($"memory {Figures.Percent(memory.Used)} full and {memory.SwapTraffic / 1e6:0} MB/s going to and from swap"),
        ShortOfMemory memory => $"tasks waited for memory {Figures.Percent(memory.Standing)} of the time",
        _ => null,
    };
}
