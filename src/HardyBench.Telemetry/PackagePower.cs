using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Power of each processor package, from the energy counters in /sys/class/powercap: millionths of a joule that start again
/// past a range. On many systems only an administrator may read them.</summary>
public sealed class PackagePower(SystemFiles files) : ILoadReader
{
    private const string Root = "sys/class/powercap";

    private readonly IReadOnlyList<string> packages = [.. files.Names(Root)
        .Where(zone => files.ReadText($"{Root}/{zone}/name")?.StartsWith("package-", StringComparison.Ordinal) == true)];

    private readonly Dictionary<string, double> before = [];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        foreach (var (index, package) in packages.Index())
        {
            if (files.ReadNumber($"{Root}/{package}/energy_uj") is not { } energy)
            {
                before.Remove(package);
                continue;
            }

            // The first constraint is the one for long (Linux kernel documentation, power capping framework), in millionths of a watt.
            if (files.ReadNumber($"{Root}/{package}/constraint_0_power_limit_uw") is > 0 and var limit)
            {
                into.Add(new LoadReading(at, LoadKind.PowerLimit, index, (float)(limit / 1e6)));
            }

            if (before.TryGetValue(package, out var last) && elapsed > TimeSpan.Zero)
            {
                var range = energy < last ? files.ReadNumber($"{Root}/{package}/max_energy_range_uj") ?? 0 : 0;
                into.Add(new LoadReading(at, LoadKind.PackagePower, index, (float)((energy - last + range) / 1e6 / elapsed.TotalSeconds)));
            }

            before[package] = energy;
        }
    }
}
