using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Each core's busy share, from /proc/stat. Time that a host took from a virtual machine's core is not
/// idle time, so it counts as busy.</summary>
public sealed class CoreLoads(SystemFiles files) : ILoadReader
{
    private readonly Dictionary<int, (long Busy, long All)> before = [];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        foreach (var line in (files.ReadText("proc/stat") ?? string.Empty).Split('\n'))
        {
            var fields = line.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            if (fields.Length < 9 || !fields[0].StartsWith("cpu", StringComparison.Ordinal)
                || !int.TryParse(fields[0].AsSpan(3), NumberStyles.None, CultureInfo.InvariantCulture, out var core))
            {
                continue;
            }

            // user nice system idle iowait irq softirq steal; guest times are within user and nice.
            var times = fields[1..9].Select(field => long.Parse(field, CultureInfo.InvariantCulture)).ToArray();
            var all = times.Sum();
            var busy = all - times[3] - times[4];
            if (before.TryGetValue(core, out var last) && all > last.All)
            {
                into.Add(new LoadReading(at, LoadKind.Core, core, (float)(busy - last.Busy) / (all - last.All)));
            }

            before[core] = (busy, all);
        }
    }
}
