using HardyBench.Core.Playback;

namespace HardyBench.Player.Telemetry;

/// <summary>Clock speed from cpufreq, temperature from the thermal zones; many virtual machines have neither.</summary>
public sealed class ClockAndHeat(SystemFiles files) : ILoadReader
{
    private readonly IReadOnlyList<string> cores =
        [.. files.Names("sys/devices/system/cpu").Where(name => name.StartsWith("cpu", StringComparison.Ordinal) && char.IsAsciiDigit(name[^1]))];

    private readonly IReadOnlyList<string> zones =
        [.. files.Names("sys/class/thermal").Where(name => name.StartsWith("thermal_zone", StringComparison.Ordinal))];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        AddMean(into, at, LoadKind.Clock, "cpufreq/scaling_cur_freq");
        AddMean(into, at, LoadKind.RatedClock, "cpufreq/base_frequency");
        var hottest = zones.Select(zone => files.ReadNumber($"sys/class/thermal/{zone}/temp")).Max();
        if (hottest is { } thousandths)
        {
            into.Add(new LoadReading(at, LoadKind.Temperature, 0, (float)(thousandths / 1000)));
        }
    }

    /// <summary>The kernel gives kilohertz.</summary>
    private void AddMean(List<LoadReading> into, TimeSpan at, LoadKind kind, string file)
    {
        if (cores.Select(core => files.ReadNumber($"sys/devices/system/cpu/{core}/{file}")).Average() is { } kilohertz)
        {
            into.Add(new LoadReading(at, kind, 0, (float)(kilohertz * 1000)));
        }
    }
}
