using System.Diagnostics;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;

namespace HardyBench.Player.Playing;

/// <summary>Monotonic time of one run from its key on, and its slots once the first frame was shown.</summary>
public sealed class RunClock
{
    /// <summary>Sleep is trusted to end within this; the rest is spun.</summary>
    private static readonly TimeSpan SpinLength = TimeSpan.FromMilliseconds(1.2);

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

/// <summary>What a passage's decoders know of time.</summary>
/// <param name="run">The run's clock.</param>
/// <param name="rate">The timeline's rate.</param>
/// <param name="start">Timeline frame on which the passage begins.</param>
/// <param name="keepsTime">Whether frames may be dropped at all.</param>
public sealed class PassageClock(RunClock run, FrameRate rate, long start, bool keepsTime)
{
    private long treatingTicks;

    public FrameRate Rate => rate;

    public TimeSpan Now => run.Now;

    /// <summary>How long the treatment of a frame takes at present; the treating thread keeps it up to date.</summary>
    public TimeSpan Treating
    {
        get => new(Volatile.Read(ref treatingTicks));
        set => Volatile.Write(ref treatingTicks, value.Ticks);
    }

    /// <summary>The first frame of the passage, from 0, that is still in time when it is decoded this long from now.</summary>
    /// <returns>Null while there is no clock to keep to.</returns>
    public long? FirstInTime(TimeSpan decoding)
    {
        if (!keepsTime || run.Slots is not { } slots)
        {
            return null;
        }

        var arrival = run.Now + decoding + Treating;
        return Math.Max(0, rate.FrameAt(arrival - slots.FirstShown) - start);
    }
}
