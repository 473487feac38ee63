using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>How much more a passage that holds could ask.</summary>
public static class Headrooms
{
    /// <summary>Capacity over demand of the busiest resource, by the utilisation law: 1 / U at real-time rate.
    /// Null where no load could be read or all are idle.</summary>
    public static double? Least(LoadMeans loads, Conditions conditions)
    {
        double?[] busy =
        [
            loads.Cores(conditions.UsableCores) is { Count: > 0 } cores ? cores.Average() : null,
            loads.HighestOf(LoadKind.OwnThread)?.Value,
            loads.HighestOf(LoadKind.MediaEngineBusy)?.Value,
            loads.HighestOf(LoadKind.GraphicsBusy)?.Value,
            loads.HighestOf(LoadKind.DriveBusy, conditions.IsMediaDrive)?.Value,
            loads.Of(LoadKind.BusBusy),
        ];
        return busy.Max() is { } highest && highest > 0.001 ? Math.Max(1, 1 / highest) : null;
    }
}
