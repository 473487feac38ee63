using static System.FormattableString;

namespace HardyBench.Core;

/// <summary>Figures as people read them.</summary>
public static class Figures
{
    /// <summary>"0.4 s", "12 s", "3:05 min" or "2:10 h".</summary>
    public static string Length(TimeSpan time) =>
        time.TotalSeconds < 10 ? Invariant($"{time.TotalSeconds:0.0} s")
        : time.TotalMinutes < 1 ? Invariant($"{time.TotalSeconds:0} s")
        : time.TotalHours < 1 ? Invariant($"{(int)time.TotalMinutes}:{time.Seconds:00} min")
        : Invariant($"{(int)time.TotalHours}:{time.Minutes:00} h");

    /// <param name="share">0 to 1.</param>
    public static string Percent(double share) => Invariant($"{Math.Round(share * 100)} %");
}
