using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Server.Runs;

/// <summary>One load over time.</summary>
/// <param name="Group">Loads of one group share a drawing and a unit.</param>
/// <param name="Limit">Where its ceiling lies, in the same unit; null where there is none.</param>
/// <param name="At">Milliseconds from the start of the passage.</param>
public sealed record LoadSeries(
    string Group, string Name, string Unit, double? Limit, IReadOnlyList<double> At, IReadOnlyList<double> Values)
{
    private const string Processor = "Processor", Devices = "Graphics and media engine", Drives = "Drive";

    /// <summary>Of the player's threads only so many, the busiest, are worth a line each.</summary>
    private const int MostThreads = 3;

    public static IReadOnlyList<LoadSeries> Of(IEnumerable<LoadReading> loads, TimeSpan from) =>
    [
        .. WithFewThreads(loads).GroupBy(load => (load.Kind, load.Index))
            .Select(series => (series.Key, About: Describe(series.Key.Kind, series.Key.Index), Readings: series.ToList()))
            .Where(series => series.About is not null)
            .OrderBy(series => series.Key.Kind).ThenBy(series => series.Key.Index)
            .Select(series => new LoadSeries(
                series.About!.Value.Group, series.About.Value.Name, series.About.Value.Unit, series.About.Value.Limit,
                [.. series.Readings.Select(load => Math.Round((load.At - from).TotalMilliseconds, 1))],
                [.. series.Readings.Select(load => Math.Round(load.Value * series.About.Value.Factor, 3))])),
    ];

    private static IEnumerable<LoadReading> WithFewThreads(IEnumerable<LoadReading> loads)
    {
        var byKind = loads.ToLookup(load => load.Kind == LoadKind.OwnThread);
        var busiest = byKind[true].GroupBy(load => load.Index).OrderByDescending(thread => thread.Sum(load => load.Value))
            .Take(MostThreads).SelectMany(thread => thread);
        return byKind[false].Concat(busiest);
    }

    private static (string Group, string Name, string Unit, double? Limit, double Factor)? Describe(LoadKind kind, int index) => kind switch
    {
        LoadKind.Core => (Processor, string.Create(CultureInfo.InvariantCulture, $"core {index}"), "%", 100, 100),
        LoadKind.OwnDecode => ("Player's work", "decoding", "cores", null, 1),
        LoadKind.OwnEffects => ("Player's work", "effects", "cores", null, 1),
        LoadKind.OwnPresenting => ("Player's work", "presenting", "cores", null, 1),
        LoadKind.OwnPictures => ("Player's work", "preview pictures", "cores", null, 1),
        LoadKind.OwnTool => ("Player's work", "the tool itself", "cores", null, 1),
        LoadKind.MemoryUsed => ("Memory", "in use", "GB", null, 1e-9),
        LoadKind.SwapTraffic => ("Swap", "in and out", "MB/s", null, 1e-6),
        LoadKind.DriveRead => (Drives, string.Create(CultureInfo.InvariantCulture, $"read {index}"), "MB/s", null, 1e-6),
        LoadKind.GraphicsBusy => (Devices, "graphics compute", "%", 100, 100),
        LoadKind.MediaEngineBusy => (Devices, "media engine", "%", 100, 100),
        LoadKind.OwnThread => ("Busiest threads", string.Create(CultureInfo.InvariantCulture, $"thread {index}"), "cores", 1, 1),
        LoadKind.MemoryPressure => ("Waiting for memory", "tasks standing still", "%", 100, 100),
        LoadKind.DriveWrite => (Drives, string.Create(CultureInfo.InvariantCulture, $"written {index}"), "MB/s", null, 1e-6),
        LoadKind.PackagePower => ("Power", string.Create(CultureInfo.InvariantCulture, $"package {index}"), "W", null, 1),
        LoadKind.BatteryPower => ("Power", "from the battery", "W", null, 1),
        LoadKind.GraphicsPower => ("Power", string.Create(CultureInfo.InvariantCulture, $"graphics {index}"), "W", null, 1),
        LoadKind.BatteryCharge => ("Battery", "charge", "%", 100, 100),
        LoadKind.FanSpeed => ("Fans", string.Create(CultureInfo.InvariantCulture, $"fan {index}"), "turns a minute", null, 1),
        LoadKind.GraphicsMemoryUsed => ("Graphics memory", string.Create(CultureInfo.InvariantCulture, $"in use {index}"), "GB", null, 1e-9),
        LoadKind.GraphicsTemperature => ("Heat", string.Create(CultureInfo.InvariantCulture, $"graphics {index}"), "°C", null, 1),
        LoadKind.BusBusy => (Devices, "bus", "%", 100, 100),
        LoadKind.Clock => ("Clock", "clock", "GHz", null, 1e-9),
        LoadKind.Temperature => ("Heat", "processor", "°C", null, 1),
        _ => null,
    };
}
