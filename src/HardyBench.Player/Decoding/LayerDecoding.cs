using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Native;
using HardyBench.Player.Playing;

namespace HardyBench.Player.Decoding;

/// <summary>Gives the frames of one layer in order.</summary>
public interface ILayerFrames : IDisposable
{
    /// <summary>Waits for what one frame of the passage shows of the layer.</summary>
    /// <returns>The caller's own reference; null when it is past, or when the layer was disposed.</returns>
    /// <exception cref="MediaException">The clip failed.</exception>
    DecodedFrame? Take(long position);

    /// <summary>What went wrong so far without ending it, a phrase each.</summary>
    IReadOnlyList<string> Overcome { get; }
}

/// <summary>Opens a clip for decoding on a device, or on the processor (null).</summary>
public delegate ClipDecoder ClipOpener(ClipSource clip, int threads, string? device);

/// <summary>Decodes one layer ahead of its treatment on a thread of its own, and catches up when it must. A slot for which the footage
/// has no picture shows the one before it.</summary>
public sealed class LayerDecoding : ILayerFrames
{
    /// <summary>How often a full queue is looked through for frames that are past.</summary>
    private static readonly TimeSpan StaleCheck = TimeSpan.FromMilliseconds(10);

    private readonly object gate = new();
    private readonly Queue<DecodedFrame> decoded = new();
    private readonly SkippedFrames skipped = new();
    private readonly PassageClock clock;
    private readonly Layer layer;
    private readonly ClipSource clip;
    private readonly int threads;
    private readonly ClipOpener open;
    private readonly Thread thread;
    private DecodedFrame? last;
    private MediaException? failure;
    private string? damage;
    private string? lostDevice;
    private long held;
    private bool disposed;

    /// <summary>Starts decoding at once. The decoder is opened on the thread itself, so that the threads it starts
    /// carry the same name and their work is counted as decoding.</summary>
    /// <param name="open">How a clip is opened; null for the usual way.</param>
    /// <exception cref="MediaException">The clip cannot be opened.</exception>
    public LayerDecoding(ClipSource clip, int threads, string? device, Layer layer, PassageClock clock, ClipOpener? open = null)
    {
        (this.clip, this.threads, this.layer, this.clock) = (clip, threads, layer, clock);
        this.open = open ?? ((source, count, on) => new ClipDecoder(source, count, on));
        thread = new Thread(() => Decode(device)) { Name = ThreadRoles.Decode, IsBackground = true };
        thread.Start();
        WaitUntilOpen();
    }

    /// <summary>The open clip; its picture format is settled, its frames belong to the thread.</summary>
    public ClipDecoder Source { get; private set; } = null!;

    /// <inheritdoc />
    public IReadOnlyList<string> Overcome
    {
        get
        {
            lock (gate)
            {
                var without = held == 0 ? null
                    : $"{(held == 1 ? "1 frame of" : $"{held} frames of")} {clip.Name} {(held == 1 ? "has" : "have")} no picture of {(held == 1 ? "its" : "their")} own; the picture before stayed on";
                return [.. new[] { lostDevice, damage, without }.OfType<string>()];
            }
        }
    }

    /// <inheritdoc />
    public DecodedFrame? Take(long position) => TakeSource(SourceFrame(position));

    /// <summary>Waits for a source frame. Earlier ones are let go; their time counts towards this one. The same source frame
    /// can be taken again, as a slower layer asks.</summary>
    /// <returns>The caller's own reference; null when decoding went past it, or when the layer was disposed.</returns>
    /// <exception cref="MediaException">The clip failed.</exception>
    public DecodedFrame? TakeSource(long number)
    {
        if (last?.Number == number)
        {
            return Again(last);
        }

        var (read, decode) = (TimeSpan.Zero, TimeSpan.Zero);
        lock (gate)
        {
            while (true)
            {
                while (decoded.Count == 0 && failure is null && !disposed)
                {
                    Monitor.Wait(gate);
                }

                if (disposed)
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
                skipped.Forget(last.Number);
                Monitor.PulseAll(gate);
                (read, decode) = (read + last.Read, decode + last.Decode);
                if (last.Number == number)
                {
                    return last with { Picture = last.Picture.Another(), Read = read, Decode = decode };
                }
            }
        }
    }

    public void Dispose()
    {
        lock (gate)
        {
            disposed = true;
            Source?.GiveUp();
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

    private static DecodedFrame Again(DecodedFrame frame) =>
        frame with { Picture = frame.Picture.Another(), Read = TimeSpan.Zero, Decode = TimeSpan.Zero };

    /// <summary>The picture before, where the footage has none for a frame; null where it was left out to catch up.</summary>
    private DecodedFrame? Held(long number)
    {
        if (last is null || last.Number > number || skipped.Touches(last.Number + 1, number))
        {
            return null;
        }

        held++;
        return Again(last);
    }

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

    /// <summary>The thread's work. Whatever goes wrong on it fails the passage and not the program.</summary>
    private void Decode(string? device)
    {
        ClipDecoder? source = null;
        try
        {
            source = Begin(null, device);
            var enqueued = DecodeFrom(SourceFrame(0, source), source, device is not null, out var lost);
            if (lost is not null)
            {
                source.Dispose();
                Tell(() => lostDevice = $"decoding {clip.Name} on {device} failed: {lost.Message} It went on on the processor");
                source = Begin(enqueued, null);
                DecodeFrom(enqueued, source, false, out _);
            }
        }
        catch (MediaException cause)
        {
            Tell(() => failure = cause);
        }
        catch (Exception cause)
        {
            Tell(() => failure = new MediaException($"Decoding {clip.Name} failed in a way that was not foreseen: {cause.Message}"));
        }
        finally
        {
            source?.Dispose();
        }
    }

    /// <summary>Opens the clip and goes to where a frame can be decoded from.</summary>
    /// <param name="from">Null for the layer's first.</param>
    private ClipDecoder Begin(long? from, string? device)
    {
        var source = open(clip, threads, device);
        try
        {
            var first = from ?? SourceFrame(0, source);
            if (first > 0)
            {
                source.SeekTo(source.Keys.LastUpTo(first));
            }
        }
        catch
        {
            source.Dispose();
            throw;
        }

        Tell(() => Source = source);
        return source;
    }

    /// <summary>Decodes until the layer is disposed.</summary>
    /// <param name="from">The first frame wanted; of those before it only the last is kept, for frames without a picture.</param>
    /// <param name="lost">Why the device cannot go on; null when decoding ended otherwise.</param>
    /// <returns>The frame after the last that was handed on.</returns>
    private long DecodeFrom(long from, ClipDecoder source, bool onDevice, out MediaException? lost)
    {
        lost = null;
        var (latency, behind, before, next) = (default(DurationEstimate), default(Behind), (DecodedFrame?)null, from);
        try
        {
            while (HasRoom())
            {
                CatchUp(source, latency.Expected, ref behind);
                DecodedFrame frame;
                try
                {
                    frame = source.Next();
                }
                catch (MediaException gone) when (onDevice && !disposed)
                {
                    lost = gone;
                    return next;
                }

                latency.Observe(frame.Latency);
                if (clock.FirstInTime(TimeSpan.Zero) is { } target && frame.Number >= SourceFrame(target, source))
                {
                    behind.Reset();
                }

                if (frame.Number < from)
                {
                    before?.Dispose();
                    before = frame;
                    continue;
                }

                var earlier = before;
                (before, next) = (null, frame.Number + 1);
                Tell(() =>
                {
                    if (earlier is not null)
                    {
                        decoded.Enqueue(earlier);
                    }

                    decoded.Enqueue(frame);
                    damage = source.Damage;
                });
            }
        }
        finally
        {
            before?.Dispose();
        }

        return next;
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
        var next = source.NextToSend;
        if (catchUp.From > next)
        {
            source.LeapTo(catchUp.From);
            behind.Reset();
        }

        source.SkipUnreferenced(catchUp.SkipUnreferenced);
        lock (gate)
        {
            // A leap that empties the decoder also loses what it still held.
            skipped.Add(catchUp.From > next ? next - Reordered(source) : next, catchUp.From);
            skipped.Skipping(catchUp.SkipUnreferenced, catchUp.From);
        }
    }

    private int Reordered(ClipDecoder source) => source.Keys.AllIntra ? 0 : threads + 16;

    /// <summary>Waits for room. Frames that nobody will treat any more make room by themselves.</summary>
    private bool HasRoom()
    {
        lock (gate)
        {
            while (decoded.Count >= PlaybackSettings.DecodeAhead && !disposed)
            {
                // The picture before stays on where there is none, so a frame is past when the one after it is due.
                if (clock.FirstInTime(TimeSpan.Zero) is { } target && decoded.ElementAt(1).Number <= SourceFrame(target))
                {
                    using var past = decoded.Dequeue();
                    skipped.Add(past.Number, decoded.Peek().Number);
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
