using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice.Parts;

/// <summary>Parts that another one of their kind replaces in everything: no more expensive, at least as good, and it fits
/// wherever they do. A build of several parts needs none of them. Larger memory may be more than a machine takes: leave out first what
/// does not fit.</summary>
public static class Dominance
{
    /// <summary>Parts that none replaces, in their order; of parts that are alike the first.</summary>
    public static IReadOnlyList<Part> Best(IReadOnlyList<Part> parts) =>
    [
        .. parts.GroupBy(part => part.GetType()).SelectMany(kind =>
        {
            var best = new List<Part>();
            foreach (var part in kind.OrderBy(part => part.Price))
            {
                if (!best.Exists(other => Replaces(other, part)))
                {
                    best.RemoveAll(other => Replaces(part, other));
                    best.Add(part);
                }
            }

            return best;
        }),
    ];

    /// <summary>Whether one part does for another of its kind.</summary>
    public static bool Replaces(Part one, Part other) => one.Price <= other.Price && (one, other) switch
    {
        (MemoryPart a, MemoryPart b) => a.MemoryKind == b.MemoryKind && a.Sticks == b.Sticks && a.Gigabytes >= b.Gigabytes
            && a.MegatransfersPerSecond >= b.MegatransfersPerSecond,
        (DrivePart a, DrivePart b) => a.Interface == b.Interface && a.ReadMegabytesPerSecond >= b.ReadMegabytesPerSecond
            && a.WriteMegabytesPerSecond >= b.WriteMegabytesPerSecond && a.LatencyMilliseconds <= b.LatencyMilliseconds,
        (GraphicsPart a, GraphicsPart b) => a.Watts <= b.Watts && a.Millimetres <= b.Millimetres && a.Engine == b.Engine
            && IsNoLess(a.Unit, b.Unit),
        (ProcessorPart a, ProcessorPart b) => a.Socket == b.Socket && a.Watts <= b.Watts && a.BuiltIn == b.BuiltIn && a.Engine == b.Engine
            && IsNoLess(a.Processor, b.Processor),
        (SupplyPart a, SupplyPart b) => a.Watts >= b.Watts,
        (CoolerPart a, CoolerPart b) => a.Watts >= b.Watts,
        _ => false,
    };

    private static bool IsNoLess(Graphics one, Graphics other) => one.PeakGigaflops >= other.PeakGigaflops
        && one.BandwidthGigabytesPerSecond >= other.BandwidthGigabytesPerSecond && one.MemoryGigabytes >= other.MemoryGigabytes
        && (one.BusGigabytesPerSecond ?? 0) >= (other.BusGigabytesPerSecond ?? 0)
        && one.BusGigabytesPerSecond is null == other.BusGigabytesPerSecond is null;

    private static bool IsNoLess(Processor one, Processor other) => one.SlowCores == other.SlowCores
        && one.RelativeSlowSpeed == other.RelativeSlowSpeed && one.Cores >= other.Cores && one.Threads >= other.Threads
        && one.RelativeCoreSpeed >= other.RelativeCoreSpeed && one.ClockGigahertz == other.ClockGigahertz;
}
