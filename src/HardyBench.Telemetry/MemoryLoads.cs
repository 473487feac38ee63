using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Memory and swap, from /proc/meminfo, /proc/vmstat and /proc/pressure; of memory what a control group leaves to this process,
/// where that is less than the machine has.</summary>
public sealed class MemoryLoads(SystemFiles files) : ILoadReader
{
    private readonly MemoryGroup? group = MemoryGroup.Of(files);
    private double? swappedPages;
    private double? stalledMicroseconds;

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        var memory = files.ReadText("proc/meminfo");
        if (Figure(memory, "MemTotal:") is { } fitted && Figure(memory, "MemAvailable:") is { } available)
        {
            var all = (Used: (fitted - available) * 1024, Fitted: fitted * 1024);
            var ours = group?.Read() is { } limited && limited.Fitted < all.Fitted ? limited : all;
            into.Add(new LoadReading(at, LoadKind.MemoryUsed, 0, (float)ours.Used));
            into.Add(new LoadReading(at, LoadKind.MemoryFitted, 0, (float)ours.Fitted));
        }

        if (Figure(memory, "SwapTotal:") is { } swap && Figure(memory, "SwapFree:") is { } free)
        {
            into.Add(new LoadReading(at, LoadKind.SwapUsed, 0, (float)((swap - free) * 1024)));
        }

        var paging = files.ReadText("proc/vmstat");
        if (Figure(paging, "pswpin ") is { } pagesIn && Figure(paging, "pswpout ") is { } pagesOut)
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
            into.Add(
                new LoadReading(at, LoadKind.MemoryPressure, 0, (float)Math.Clamp((stalled - before) / elapsed.TotalMicroseconds, 0, 1))
            );
        }

        stalledMicroseconds = stalled;
    }

    /// <summary>The figure after a name that begins a line.</summary>
    private static double? Figure(string? table, string name)
    {
        for (var place = 0; table is not null && (place = table.IndexOf(name, place, StringComparison.Ordinal)) >= 0; place += name.Length)
        {
            if (place == 0 || table[place - 1] == '\n')
            {
                var rest = table.AsSpan(place + name.Length).TrimStart(' ');
                var length = rest.IndexOfAnyExceptInRange('0', '9');
                return double.TryParse(length < 0 ? rest : rest[..length], NumberStyles.None, CultureInfo.InvariantCulture, out var value)
                    ? value
                    : null;
            }
        }

        return null;
    }
}
