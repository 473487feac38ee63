using System.Diagnostics;
using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>How busy the machine is in the moment before a run.</summary>
/// <param name="Own">Cores busy with this program; null where it cannot be read.</param>
/// <param name="Others">Cores busy with other programs; null where it cannot be read.</param>
public readonly record struct Quiet(double? Own, double? Others)
{
    /// <summary>Below this share of a core the program counts as quiet.</summary>
    private const double QuietBelow = 0.05;

    private static readonly TimeSpan Window = TimeSpan.FromMilliseconds(250);

    /// <summary>The longest a run is held back for the program to be idle, unless told otherwise.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromSeconds(6);

    /// <summary>Waits until this program is idle, so that its own start, compiling and storing do not load the
    /// machine that is measured. Gives up after some seconds and says how it stood then.</summary>
    /// <param name="owner">The process that asked for the run; null where it is this one.</param>
    public static async Task<Quiet> WaitAsync(SystemFiles files, TimeSpan longest, int? owner, CancellationToken stop)
    {
        var began = Stopwatch.GetTimestamp();
        Quiet now;
        do
        {
            now = await MeasureAsync(files, owner, stop);
        }
        while (now.Own >= QuietBelow && Stopwatch.GetElapsedTime(began) < longest && !stop.IsCancellationRequested);
        return now;
    }

    /// <summary>Over a quarter of a second.</summary>
    private static async Task<Quiet> MeasureAsync(SystemFiles files, int? owner, CancellationToken stop)
    {
        using var threads = new OwnThreads(files, owner);
        ILoadReader[] readers = [new CoreLoads(files), threads];
        var readings = new List<LoadReading>();
        Read(TimeSpan.Zero);
        readings.Clear();
        var began = Stopwatch.GetTimestamp();
        await Task.Delay(Window, stop).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        Read(Stopwatch.GetElapsedTime(began));

        double? own = Sum(LoadKind.OwnProcess);
        return new Quiet(own, Sum(LoadKind.Core) is { } all ? Math.Max(0, all - (own ?? 0)) : null);

        void Read(TimeSpan elapsed) => Array.ForEach(readers, reader => reader.Read(elapsed, elapsed, readings));

        double? Sum(LoadKind kind) =>
            readings.Exists(reading => reading.Kind == kind)
                ? readings.Where(reading => reading.Kind == kind).Sum(reading => reading.Value)
                : null;
    }
}
