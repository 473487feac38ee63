using HardyBench.Core.Footage;

namespace HardyBench.Player.Decoding;

/// <summary>Decoded frames of one layer between the thread that decodes and the one that treats them. Every member may be used on any
/// thread.</summary>
/// <param name="clipName">For messages.</param>
internal sealed class FrameHandOver(string clipName) : IDisposable
{
    private readonly object gate = new();
    private readonly Queue<DecodedFrame> decoded = new();
    private DecodedFrame? last;
    private MediaException? failure;
    private string? damage;
    private string? lostDevice;
    private long held;
    private long asked = -1;
    private long wantedFrom;
    private TimeSpan letGo;
    private volatile bool hasEnded;

    /// <summary>Whether a frame was decoded and not taken, or none will be.</summary>
    public bool HasFrame
    {
        get
        {
            lock (gate)
            {
                return decoded.Count > 0 || failure is not null;
            }
        }
    }

    /// <summary>Whether nobody takes frames any more. Read without waiting for anything, since others ask it while they hold a lock of
    /// their own.</summary>
    public bool HasEnded => hasEnded;

    /// <summary>The last source frame that was asked for; -1 before the first.</summary>
    public long Asked
    {
        get
        {
            lock (gate)
            {
                return asked;
            }
        }
    }

    /// <summary>Why no frame comes any more; null while some do.</summary>
    public MediaException? Failure
    {
        get
        {
            lock (gate)
            {
                return failure;
            }
        }
    }

    /// <summary>What went wrong so far without ending it, a phrase each.</summary>
    public IReadOnlyList<string> Overcome
    {
        get
        {
            lock (gate)
            {
                var without = held == 0 ? null
                    : $"{(held == 1 ? "1 frame of" : $"{held} frames of")} {clipName} {(held == 1 ? "has" : "have")} no picture of {(held == 1 ? "its" : "their")} own; the picture before stayed on";
                return [.. new[] { lostDevice, damage, without }.OfType<string>()];
            }
        }
    }

    /// <summary>Waits for a source frame. Earlier ones are let go; their time counts towards this one. The same source frame
    /// can be taken again, as a slower layer asks.</summary>
    /// <returns>The caller's own reference; null when decoding went past it, or when it has ended.</returns>
    /// <exception cref="MediaException">The clip failed.</exception>
    public DecodedFrame? Take(long number)
    {
        var (read, decode) = (TimeSpan.Zero, TimeSpan.Zero);
        lock (gate)
        {
            if (last?.Number == number)
            {
                return Again(last);
            }

            asked = number;
            Monitor.PulseAll(gate);
            while (true)
            {
                while (decoded.Count == 0 && failure is null && !hasEnded)
                {
                    Monitor.Wait(gate);
                }

                if (hasEnded)
                {
                    return null;
                }

                if (decoded.Count == 0)
                {
                    throw failure!;
                }

                if (decoded.Peek().Number > number)
                {
                    return Held(number);
                }

                last?.Dispose();
                last = decoded.Dequeue();
                Monitor.PulseAll(gate);
                (read, decode) = (read + last.Read, decode + last.Decode);
                if (last.Number == number)
                {
                    return last with { Picture = last.Picture.Another(), Read = read, Decode = decode };
                }
            }
        }
    }

    /// <summary>Frames before a source frame will not be taken: they make room, also those that are still being decoded.</summary>
    /// <returns>How long was read and decoded for those that were let go since the last call.</returns>
    public TimeSpan PassOverBefore(long number)
    {
        var spent = TimeSpan.Zero;
        Change(() =>
        {
            wantedFrom = number;
            Release();
            (spent, letGo) = (letGo, TimeSpan.Zero);
        });
        return spent;
    }

    /// <summary>Hands a frame over, with the one before it where that is shown instead of it.</summary>
    /// <param name="damageSoFar">What the decoder called damaged so far; null for nothing.</param>
    public void Give(DecodedFrame? earlier, DecodedFrame frame, string? damageSoFar) => Change(() =>
    {
        if (earlier is not null)
        {
            decoded.Enqueue(earlier);
        }

        decoded.Enqueue(frame);
        Release();
        damage = damageSoFar;
    });

    /// <summary>No frame comes any more.</summary>
    public void Fail(MediaException cause) => Change(() => failure = cause);

    /// <summary>Notes that a device was lost, in words.</summary>
    public void LoseDevice(string words) => Change(() => lostDevice = words);

    /// <summary>Waits until fewer frames than so many are ready.</summary>
    /// <param name="ahead">How many may be; it can change meanwhile.</param>
    /// <param name="lookAgain">How often that is looked at.</param>
    /// <returns>False when it has ended.</returns>
    public bool WaitForRoom(Func<int> ahead, TimeSpan lookAgain)
    {
        lock (gate)
        {
            while (decoded.Count >= ahead() && !hasEnded)
            {
                Monitor.Wait(gate, lookAgain);
            }

            return !hasEnded;
        }
    }

    /// <summary>Waits until something changes, no longer than a time.</summary>
    public void Wait(TimeSpan atMost)
    {
        lock (gate)
        {
            if (!hasEnded)
            {
                Monitor.Wait(gate, atMost);
            }
        }
    }

    /// <summary>Nobody takes frames any more; whoever waits goes on.</summary>
    public void End() => Change(() => hasEnded = true);

    /// <summary>Lets go of what was not taken; nothing is handed over after this.</summary>
    public void Dispose()
    {
        last?.Dispose();
        while (decoded.TryDequeue(out var frame))
        {
            frame.Dispose();
        }
    }

    /// <summary>Makes room of what was passed over, also of what was still being decoded then.</summary>
    private void Release()
    {
        while (decoded.TryPeek(out var frame) && frame.Number < wantedFrom)
        {
            last?.Dispose();
            last = decoded.Dequeue();
            letGo += last.Read + last.Decode;
        }
    }

    private static DecodedFrame Again(DecodedFrame frame) =>
        frame with { Picture = frame.Picture.Another(), Read = TimeSpan.Zero, Decode = TimeSpan.Zero };

    /// <summary>The picture before, where the footage has none for a frame; null where there was none before either.</summary>
    private DecodedFrame? Held(long number)
    {
        if (last is null || last.Number > number)
        {
            return null;
        }

        held++;
        return Again(last);
    }

    private void Change(Action change)
    {
        lock (gate)
        {
            change();
            Monitor.PulseAll(gate);
        }
    }
}
