using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Whole drives' reading, writing and busy time, from /proc/diskstats and /sys/block.</summary>
public sealed class DriveLoads(SystemFiles files) : ILoadReader
{
    /// <summary>The kernel counts in sectors of this size whatever the drive's own.</summary>
    private const int SectorBytes = 512;

    private readonly List<string> drives = [.. files.Names("sys/block").Where(IsReal)];
    private readonly Dictionary<string, (long Read, long Written, long BusyMilliseconds)> before = [];

    /// <summary>Which drive each index stands for; drives that come while it samples are not among them.</summary>
    public IReadOnlyList<LoadSource> Sources =>
        [.. drives.Index().Select(drive => new LoadSource(LoadKind.DriveBusy, drive.Index, drive.Item))];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        foreach (var line in (files.ReadText("proc/diskstats") ?? string.Empty).Split('\n'))
        {
            var fields = line.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            var index = fields.Length >= 13 ? drives.IndexOf(fields[2]) : -1;
            if (index < 0)
            {
                continue;
            }

            // After the name: reads, merged, sectors read, ms reading, writes, merged, sectors, ms, in flight, ms busy.
            var (read, written) = (
                long.Parse(fields[5], CultureInfo.InvariantCulture),
                long.Parse(fields[9], CultureInfo.InvariantCulture)
            );
            var busy = long.Parse(fields[12], CultureInfo.InvariantCulture);
            if (before.TryGetValue(fields[2], out var last) && elapsed > TimeSpan.Zero)
            {
                into.Add(new LoadReading(at, LoadKind.DriveRead, index, PerSecond(read - last.Read)));
                into.Add(new LoadReading(at, LoadKind.DriveWrite, index, PerSecond(written - last.Written)));
                into.Add(new LoadReading(
                    at, LoadKind.DriveBusy, index, (float)Math.Min(1, (busy - last.BusyMilliseconds) / elapsed.TotalMilliseconds)));
            }

            before[fields[2]] = (read, written, busy);
        }

        float PerSecond(long sectors) => (float)(sectors * SectorBytes / elapsed.TotalSeconds);
    }

    private static bool IsReal(string name) =>
        !name.StartsWith("loop", StringComparison.Ordinal) && !name.StartsWith("ram", StringComparison.Ordinal);
}
