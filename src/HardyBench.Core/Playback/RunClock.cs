using System.Diagnostics;
using HardyBench.Core.Pacing;

namespace HardyBench.Core.Playback;

/// <summary>Monotonic time of one run from its key on, and its slots once the first frame was shown.</summary>
public sealed class RunClock
{
    /// <summary>Sleep is trusted to end within this; the rest is spun.</summary>
    public static readonly TimeSpan SpinLength = TimeSpan.FromMilliseconds(1.2);

    private readonly long start = Stopwatch.GetTimestamp();
    private volatile Published? slots;

    public TimeSpan Now => Stopwatch.GetElapsedTime(start);

    /// <summary>The slots, or null before the first frame was shown.</summary>
    public SlotClock? Slots => slots?.Clock;

    public void Publish(SlotClock? clock) => slots = clock is { } known ? new Published(known) : null;

    /// <summary>Sleeps to just short of a moment and spins the rest; ends at once when playing is stopped.</summary>
    public void WaitUntil(TimeSpan moment, CancellationToken stop)
    {
        var sleep = moment - Now - SpinLength;
        if (sleep > TimeSpan.Zero)
        {
            stop.WaitHandle.WaitOne(sleep);
        }

        while (Now < moment && !stop.IsCancellationRequested)
        {
            Thread.SpinWait(20);
        }
    }

    private sealed record Published(SlotClock Clock);
}
