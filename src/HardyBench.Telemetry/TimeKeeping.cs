using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Notices when the machine slept and when somebody set its clock. A run goes by a clock that neither moves, so that it
/// needs to be stated; the kernel's uptime goes on in sleep, and the time of day follows whoever sets it.</summary>
/// <param name="now">The time of day.</param>
public sealed class TimeKeeping(SystemFiles files, TimeProvider now) : ILoadReader
{
    /// <summary>Less is the coarseness of the figures and of the samples.</summary>
    private const double MinSeconds = 0.5;

    private (double Uptime, DateTimeOffset Day)? before;

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        var first = files.ReadText("proc/uptime")?.Split(' ')[0];
        if (!double.TryParse(first, NumberStyles.Float, CultureInfo.InvariantCulture, out var uptime))
        {
            return;
        }

        var day = now.GetUtcNow();
        if (before is { } last)
        {
            var passed = uptime - last.Uptime;
            Add(LoadKind.Asleep, passed - elapsed.TotalSeconds);
            Add(LoadKind.ClockSet, (day - last.Day).TotalSeconds - passed);
        }

        before = (uptime, day);

        void Add(LoadKind kind, double seconds)
        {
            if (Math.Abs(seconds) >= MinSeconds)
            {
                into.Add(new LoadReading(at, kind, 0, (float)seconds));
            }
        }
    }
}
