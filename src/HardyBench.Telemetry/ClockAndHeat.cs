using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Clock speed from cpufreq; the processor's temperature from its own thermal zone or, without one, from its hardware monitor.
/// Other zones (drives, batteries, wireless) are hotter than it and say nothing of it. Many virtual machines have none of these.</summary>
public sealed class ClockAndHeat(SystemFiles files) : ILoadReader
{
    private readonly IReadOnlyList<string> cores =
        [
            .. files
                .Names("sys/devices/system/cpu")
                .Where(name => name.StartsWith("cpu", StringComparison.Ordinal) && char.IsAsciiDigit(name[^1])),
        ];

    /// <summary>How drivers call the zones and monitors of a processor.</summary>
    private static readonly string[] OfProcessor = ["x86_pkg_temp", "cpu", "soc", "pkg", "package", "coretemp", "k10temp", "zenpower"];

    private readonly IReadOnlyList<string> sensors =
    [
        .. files.Names("sys/class/thermal").Where(name => name.StartsWith("thermal_zone", StringComparison.Ordinal))
            .Where(zone => IsProcessor(files.ReadText($"sys/class/thermal/{zone}/type"))).Select(zone => $"sys/class/thermal/{zone}/temp"),
        .. files.Names("sys/class/hwmon").Where(monitor => IsProcessor(files.ReadText($"sys/class/hwmon/{monitor}/name")))
            .Select(monitor => $"sys/class/hwmon/{monitor}/temp1_input"),
    ];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        AddMean(into, at, LoadKind.Clock, "cpufreq/scaling_cur_freq");
        AddMean(into, at, LoadKind.RatedClock, "cpufreq/base_frequency");
        var hottest = sensors.Select(files.ReadNumber).Max();
        if (hottest is { } thousandths)
        {
            into.Add(new LoadReading(at, LoadKind.Temperature, 0, (float)(thousandths / 1000)));
        }
    }

    private static bool IsProcessor(string? name) =>
        name is not null && OfProcessor.Any(part => name.Trim().StartsWith(part, StringComparison.OrdinalIgnoreCase));

    /// <summary>The kernel gives kilohertz.</summary>
    private void AddMean(List<LoadReading> into, TimeSpan at, LoadKind kind, string file)
    {
        if (cores.Select(core => files.ReadNumber($"sys/devices/system/cpu/{core}/{file}")).Average() is { } kilohertz)
        {
            into.Add(new LoadReading(at, kind, 0, (float)(kilohertz * 1000)));
        }
    }
}
