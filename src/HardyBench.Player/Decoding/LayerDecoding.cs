using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Playing;

namespace HardyBench.Player.Decoding;

/// <summary>Gives the frames of one layer in order.</summary>
public interface ILayerFrames : IDisposable
{
    /// <summary>Waits for what one frame of the passage shows of the layer.</summary>
    /// <returns>The caller's own reference; null when it is past, or when the layer was disposed.</returns>
    /// <exception cref="Native.MediaException">The clip failed.</exception>
    DecodedFrame? Take(long position);

    /// <summary>What the decoder said of damaged data so far, in words, or null.</summary>
    string? Damage { get; }
}

/// <summary>Decodes one layer ahead of its treatment on a thread of its own, and catches up when it must.</summary>
public sealed class LayerDecoding : ILayerFrames
{
    /// <summary>How often a full queue is looked through for frames that are past.</summary>
    private static readonly TimeSpan StaleCheck = TimeSpan.FromMilliseconds(10);

    private readonly object gate = new();
    private readonly Queue<DecodedFrame> decoded = new();
    private readonly PassageClock clock;
    private readonly Layer layer;
    private readonly Thread thread;
    private DecodedFrame? last;
    private Exception? failure;
    private string? damage;
    private bool disposed;

    /// <summary>Starts decoding at once. The decoder is opened on the thread itself, so that the threads it starts
    /// carry the same name and their work is counted as decoding.</summary>
    public LayerDecoding(string path, int threads, string? device, Layer layer, PassageClock clock)
    {
        (this.layer, this.clock) = (layer, clock);
        thread = new Thread(() => Decode(path, threads, device)) { Name = ThreadRoles.Decode, IsBackground = true };
        thread.Start();
        WaitUntilOpen();
    }

    /// <summary>The open clip; its picture format is settled, its frames belong to the thread.</summary>
    public ClipDecoder Source { get; private set; } = null!;

    /// <inheritdoc />
    public string? Damage
    {
        get
        {
            lock (gate)
            {
                return damage;
            }
        }
    }

    /// <inheritdoc />
    public DecodedFrame? Take(long position) => TakeSource(SourceFrame(position));

    /// <summary>Waits for a source frame. Earlier ones are let go; their time counts towards this one. The same source frame
    /// can be taken again, as a slower layer asks.</summary>
    /// <returns>The caller's own reference; null when decoding went past it, or when the layer was disposed.</returns>
    /// <exception cref="Native.MediaException">The clip failed.</exception>
    public DecodedFrame? TakeSource(long number)
    {
        if (last?.Number == number)
        {
            return last with { Picture = last.Picture.Another(), Read = TimeSpan.Zero, Decode = TimeSpan.Zero };
        }

        last?.Dispose();
        last = Next(number);
        return last is null ? null : last with { Picture = last.Picture.Another() };
    }

    private DecodedFrame? Next(long number)
    {
        var (read, decode) = (TimeSpan.Zero, TimeSpan.Zero);
        lock (gate)
        {
            while (!disposed)
            {
                while (decoded.Count == 0 && failure is null && !disposed)
                {
                    Monitor.Wait(gate);
                }

                if (decoded.Count == 0 || decoded.Peek().Number > number)
                {
                    return failure is null || decoded.Count > 0 ? null : throw failure;
                }

                var frame = decoded.Dequeue();
                Monitor.PulseAll(gate);
                (read, decode) = (read + frame.Read, decode + frame.Decode);
                if (frame.Number == number)
                {
                    return frame with { Read = read, Decode = decode };
                }

                frame.Dispose();
            }
        }

        return null;
    }

    public void Dispose()
    {
        lock (gate)
        {
            disposed = true;
            Monitor.PulseAll(gate);
        }

        thread.Join();
        last?.Dispose();
        while (decoded.TryDequeue(out var frame))
        {
            frame.Dispose();
        }
    }

    /// <summary>The source frame due in a frame of the passage.</summary>
    public long SourceFrame(long position) => SourceFrame(position, null);

    private long SourceFrame(long position, ClipDecoder? source) =>
        layer.SourceFrameAt(position, clock.Rate, (source ?? Source).Rate);

    private void WaitUntilOpen()
    {
        lock (gate)
        {
            while (Source is null && failure is null)
            {
                Monitor.Wait(gate);
            }
        }

        if (failure is not null)
        {
            throw failure;
        }
    }

    private void Decode(string path, int threads, string? device)
    {
        try
        {
            using var source = new ClipDecoder(path, threads, device);
            if (layer.StartFrame > 0)
            {
                source.LeapTo(source.Keys.LastUpTo(layer.StartFrame));
            }

            Tell(() => Source = source);
            var (latency, behind) = (default(DurationEstimate), default(Behind));
            while (HasRoom())
            {
                CatchUp(source, latency.Expected, ref behind);
                var frame = source.Next();
                latency.Observe(frame.Latency);
                if (clock.FirstInTime(TimeSpan.Zero) is { } target && frame.Number >= SourceFrame(target, source))
                {
                    behind.Reset();
                }

                if (frame.Number < layer.StartFrame)
                {
                    frame.Dispose();
                    continue;
                }

                Tell(() =>
                {
                    decoded.Enqueue(frame);
                    damage = source.Damage;
                });
            }
        }
        catch (Exception cause) when (cause is Native.MediaException or OutOfMemoryException)
        {
            Tell(() => failure = cause);
        }
    }

    private void CatchUp(ClipDecoder source, TimeSpan latency, ref Behind behind)
    {
        if (clock.FirstInTime(latency) is not { } target)
        {
            return;
        }

        var wanted = SourceFrame(target, source);
        var behindFor = behind.Observe(wanted > source.NextToSend, clock.Now);
        var catchUp = Pacing.CatchUpFor(source.NextToSend, wanted, behindFor, source.Keys);
        if (catchUp.From > source.NextToSend)
        {
            source.LeapTo(catchUp.From);
            behind.Reset();
        }

        source.SkipUnreferenced(catchUp.SkipUnreferenced);
    }

    /// <summary>Waits for room. Frames that nobody will treat any more make room by themselves.</summary>
    private bool HasRoom()
    {
        lock (gate)
        {
            while (decoded.Count >= PlaybackSettings.DecodeAhead && !disposed)
            {
                if (clock.FirstInTime(TimeSpan.Zero) is { } target
                    && decoded.Peek().Number < SourceFrame(target))
                {
                    decoded.Dequeue().Dispose();
                }
                else
                {
                    Monitor.Wait(gate, StaleCheck);
                }
            }

            return !disposed;
        }
    }

    private void Tell(Action change)
    {
        lock (gate)
        {
            change();
            Monitor.PulseAll(gate);
        }
    }
}
