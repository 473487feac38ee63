using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Player.Telemetry;

/// <summary>Memory and swap, from /proc/meminfo, /proc/vmstat and /proc/pressure.</summary>
public sealed class MemoryLoads(SystemFiles files) : ILoadReader
{
    private double? swappedPages;
    private double? stalledMicroseconds;

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        var memory = Table("proc/meminfo");
        if (memory.TryGetValue("MemTotal:", out var fitted) && memory.TryGetValue("MemAvailable:", out var available))
        {
            into.Add(new LoadReading(at, LoadKind.MemoryUsed, 0, (float)((fitted - available) * 1024)));
            into.Add(new LoadReading(at, LoadKind.MemoryFitted, 0, (float)(fitted * 1024)));
        }

        if (memory.TryGetValue("SwapTotal:", out var swap) && memory.TryGetValue("SwapFree:", out var free))
        {
            into.Add(new LoadReading(at, LoadKind.SwapUsed, 0, (float)((swap - free) * 1024)));
        }

        var paging = Table("proc/vmstat");
        if (paging.TryGetValue("pswpin", out var pagesIn) && paging.TryGetValue("pswpout", out var pagesOut))
        {
            var pages = pagesIn + pagesOut;
            if (swappedPages is { } before && elapsed > TimeSpan.Zero)
            {
                var bytes = (pages - before) * Environment.SystemPageSize;
                into.Add(new LoadReading(at, LoadKind.SwapTraffic, 0, (float)(bytes / elapsed.TotalSeconds)));
            }

            swappedPages = pages;
        }

        ReadPressure(at, elapsed, into);
    }

    /// <summary>/proc/pressure/memory: microseconds in which some task stood still, as "some … total=123".</summary>
    private void ReadPressure(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        var total = files.ReadText("proc/pressure/memory")?.Split('\n')[0].Split("total=").ElementAtOrDefault(1);
        if (!double.TryParse(total, NumberStyles.None, CultureInfo.InvariantCulture, out var stalled))
        {
            return;
        }

        if (stalledMicroseconds is { } before && elapsed > TimeSpan.Zero)
        {
            into.Add(new LoadReading(at, LoadKind.MemoryPressure, 0, (float)Math.Clamp((stalled - before) / elapsed.TotalMicroseconds, 0, 1)));
        }

        stalledMicroseconds = stalled;
    }

    private Dictionary<string, double> Table(string path)
    {
        var table = new Dictionary<string, double>(StringComparer.Ordinal);
        foreach (var line in (files.ReadText(path) ?? string.Empty).Split('\n'))
        {
            var fields = line.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            if (fields.Length >= 2 && double.TryParse(fields[1], NumberStyles.Float, CultureInfo.InvariantCulture, out var value))
            {
                table[fields[0]] = value;
            }
        }

        return table;
    }
}
