namespace HardyBench.Core.Pacing;

/// <summary>The longer and the shorter of two spans.</summary>
public static class TimeSpans
{
    public static TimeSpan Longer(TimeSpan one, TimeSpan other) => one > other ? one : other;

    public static TimeSpan Shorter(TimeSpan one, TimeSpan other) => one < other ? one : other;
}
