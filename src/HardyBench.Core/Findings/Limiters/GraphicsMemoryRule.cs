using HardyBench.Core.Playback;
using static System.FormattableString;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>What does not fit into the graphics unit's memory goes over its bus.</summary>
public sealed class GraphicsMemoryRule : LimiterRule
{
    private const double Ceiling = 0.95;

    protected override IReadOnlyDictionary<Limiter, LimiterAdvice> Names { get; } = new Dictionary<Limiter, LimiterAdvice>
    {
        [Limiter.GraphicsMemory] = new(
            "A graphics unit with more memory, a smaller preview scale, or fewer layers at once.",
            "Graphics with more computing power will not help while they wait for their memory.",
            "graphics memory still is too small"),
    };

    public override LimiterFinding? Find(LoadMeans loads, Conditions conditions) =>
        loads.Of(LoadKind.GraphicsMemoryFitted) is > 0 and var fitted
        && loads.Of(LoadKind.GraphicsMemoryUsed) is { } used
        && used >= Ceiling * fitted
        && loads.Of(LoadKind.BusBusy) is >= DeviceCeiling and var bus
            ? Found(loads, Limiter.GraphicsMemory, new FullGraphicsMemory(used, bus))
            : null;

    protected override string? KnownBy(LimiterFinding finding) => finding.Evidence is FullGraphicsMemory memory
        ? Invariant($"graphics memory full ({memory.Used / 1e9:0.0} GB) and the bus {Figures.Percent(memory.Bus)} busy with what does not fit")
        : null;
}
