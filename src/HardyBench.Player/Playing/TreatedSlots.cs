using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Player.Native;

namespace HardyBench.Player.Playing;

/// <summary>A treated frame that waits for its slot.</summary>
public sealed record TreatedFrame(
    FrameHandle Picture,
    TimeSpan Ready,
    TimeSpan Read,
    TimeSpan Decode,
    TimeSpan Effects,
    PreviewScale Scale
);

/// <summary>Where treating hands over to presenting: a bounded number of treated frames, and the slots that were given
/// up. Both threads may call it.</summary>
public sealed class TreatedSlots(int capacity) : ITreatedFrames
{
    private readonly object gate = new();
    private readonly Dictionary<long, TreatedFrame> treated = [];
    private readonly Dictionary<long, DropReason> lost = [];
    private long settledUpTo;
    private long changes;
    private bool closed;

    /// <summary>Treating: waits until there is room. False when the run is over.</summary>
    public bool WaitForRoom()
    {
        lock (gate)
        {
            while (treated.Count >= capacity && !closed)
            {
                Monitor.Wait(gate);
            }

            return !closed;
        }
    }

    /// <summary>Treating: hands a frame over; one whose slot is over is let go.</summary>
    /// <returns>Whether it can still be shown.</returns>
    public bool Publish(long frame, TreatedFrame picture)
    {
        lock (gate)
        {
            if (frame < settledUpTo || closed)
            {
                picture.Picture.Dispose();
                return false;
            }

            treated.Add(frame, picture);
            Change();
            return true;
        }
    }

    /// <summary>Treating: gives slots up for a reason, those that are over excepted.</summary>
    public void Lose(long from, long to, DropReason reason)
    {
        lock (gate)
        {
            for (var frame = Math.Max(from, settledUpTo); frame < to; frame++)
            {
                lost[frame] = reason;
            }

            Change();
        }
    }

    /// <summary>How often something became known of a frame.</summary>
    public long Changes => Locked(() => changes);

    /// <summary>Treated frames that wait.</summary>
    public int Waiting => Locked(() => treated.Count);

    /// <inheritdoc />
    public TimeSpan? ReadyAt(long frame) => Find(frame)?.Ready;

    /// <inheritdoc />
    public DropReason LostOf(long frame) => Locked(() => lost.GetValueOrDefault(frame));

    /// <summary>Presenting: a treated frame; null while there is none.</summary>
    public TreatedFrame? Find(long frame) => Locked(() => treated.GetValueOrDefault(frame));

    /// <summary>Presenting: waits until something more is known than when <see cref="Changes"/> was asked, or a time has passed, or the run
    /// is over.</summary>
    public void WaitForChange(long since, TimeSpan atMost)
    {
        lock (gate)
        {
            if (!closed && changes == since)
            {
                Monitor.Wait(gate, (int)Math.Clamp(atMost.TotalMilliseconds, 1, 1000));
            }
        }
    }

    /// <summary>Presenting: a frame is settled, and all before it are; its picture, if any, is let go.</summary>
    public void Settle(long frame)
    {
        lock (gate)
        {
            settledUpTo = frame + 1;
            lost.Remove(frame);
            if (treated.Remove(frame, out var picture))
            {
                picture.Picture.Dispose();
            }

            Monitor.PulseAll(gate);
        }
    }

    /// <summary>Ends all waiting and lets every picture go.</summary>
    public void Close()
    {
        lock (gate)
        {
            closed = true;
            foreach (var picture in treated.Values)
            {
                picture.Picture.Dispose();
            }

            treated.Clear();
            Monitor.PulseAll(gate);
        }
    }

    private void Change()
    {
        changes++;
        Monitor.PulseAll(gate);
    }

    private T Locked<T>(Func<T> look)
    {
        lock (gate)
        {
            return look();
        }
    }
}
