using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Course;
using HardyBench.Telemetry;

namespace HardyBench.Player.Decoding;

/// <summary>Gives the frames of one layer in order.</summary>
public interface ILayerFrames : IDisposable
{
    /// <summary>Whether a frame was decoded and not taken, or none will be.</summary>
    bool HasFrame { get; }

    /// <summary>Waits for what one frame of the passage shows of the layer.</summary>
    /// <returns>The caller's own reference; null when it is past, or when the layer was disposed.</returns>
    /// <exception cref="MediaException">The clip failed.</exception>
    DecodedFrame? Take(long position);

    /// <summary>A frame of the passage will not be taken: what was decoded for it, and is for none after it, makes room.</summary>
    /// <returns>How long that was read and decoded, and what was passed over earlier and decoded since.</returns>
    TimeSpan PassOver(long position);

    /// <summary>What went wrong so far without ending it, a phrase each.</summary>
    IReadOnlyList<string> Overcome { get; }
}

/// <summary>Opens a clip for decoding on a device, or on the processor (null).</summary>
public delegate ClipDecoder ClipOpener(ClipSource clip, int threads, string? device);

/// <summary>What a layer's decoding goes by.</summary>
public enum DecodingPart
{
    /// <summary>It chooses the frames that are begun.</summary>
    Leads,

    /// <summary>It decodes what was chosen.</summary>
    Follows,

    /// <summary>It decodes every frame from where it is asked for one.</summary>
    Free,
}

/// <summary>Decodes one layer ahead of its treatment on a thread of its own. A slot for which the footage has no picture shows the one
/// before it.</summary>
public sealed class LayerDecoding : ILayerFrames
{
    /// <summary>How often a decoding that follows looks for what to follow, unless stated otherwise.</summary>
    private static readonly TimeSpan LookAgain = TimeSpan.FromMilliseconds(20);

    /// <summary>A frame's data may go to the decoder so many frames before it in the order of showing.</summary>
    private const int Reordering = 16;

    /// <summary>Footage may lack so many pictures in a row without one that is shown being left out.</summary>
    private const int LongestGap = 8;

    private readonly object gate = new();
    private readonly Queue<DecodedFrame> decoded = new();

    /// <summary>Source frames that were begun and have not come out of the decoder yet.</summary>
    private readonly Queue<long> owed = new();

    private readonly PassageCourse course;
    private readonly Layer layer;
    private readonly ClipSource clip;
    private readonly int threads;
    private readonly DecodingPart part;
    private readonly ClipOpener open;
    private readonly Thread thread;
    private DecodedFrame? last;
    private DecodedFrame? before;
    private MediaException? failure;
    private string? damage;
    private string? lostDevice;
    private long held;
    private long asked = -1;
    private long wantedFrom;
    private TimeSpan letGo;
    private bool disposed;

    // The thread's own.
    private (TimeSpan Read, TimeSpan Decode) passedOver;
    private long followed = -1;
    private long seenTaken = -1;
    private long newest = -1;
    private long output = -1;
    private long? firstOf;
    private DropReason reasonBefore;
    private long leftOutBelow;

    /// <summary>The frame of the passage that stands alone and was sent behind those that the decoder works on.</summary>
    private long leapsTo = -1;

    /// <summary>Where decoding began afresh, while nothing came of it yet.</summary>
    private long? afreshFrom;
    private bool isOver;

    /// <summary>Starts decoding at once. The decoder is opened on the thread itself, so that the threads it starts
    /// carry the same name and their work is counted as decoding.</summary>
    /// <param name="open">How a clip is opened; null for the usual way.</param>
    /// <exception cref="MediaException">The clip cannot be opened.</exception>
    public LayerDecoding(
        ClipSource clip,
        int threads,
        string? device,
        Layer layer,
        PassageCourse course,
        DecodingPart part = DecodingPart.Leads,
        ClipOpener? open = null
    )
    {
        (this.clip, this.threads, this.layer, this.course, this.part) = (clip, threads, layer, course, part);
        this.open = open ?? ((source, count, on) => new ClipDecoder(source, count, on));
        thread = new Thread(() => Decode(device)) { Name = ThreadRoles.Decode, IsBackground = true };
        thread.Start();
        WaitUntilOpen();
    }

    /// <summary>The open clip; its picture format is settled, its frames belong to the thread.</summary>
    public ClipDecoder Source { get; private set; } = null!;

    /// <inheritdoc />
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
                Monitor.PulseAll(gate);
                (read, decode) = (read + last.Read, decode + last.Decode);
                if (last.Number == number)
                {
                    return last with { Picture = last.Picture.Another(), Read = read, Decode = decode };
                }
            }
        }
    }

    /// <inheritdoc />
    public TimeSpan PassOver(long position)
    {
        var spent = TimeSpan.Zero;
        Tell(() =>
        {
            wantedFrom = SourceFrame(position + 1);
            Release();
            (spent, letGo) = (letGo, TimeSpan.Zero);
        });
        return spent;
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
        before?.Dispose();
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

    /// <summary>The source frame due in a frame of the passage.</summary>
    public long SourceFrame(long position) => SourceFrame(position, null);

    private long SourceFrame(long position, ClipDecoder? source) =>
        layer.SourceFrameAt(position, course.Rate, (source ?? Source).Rate);

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
            source = Begin(0, device);
            var lost = DecodeFrom(source, device is not null);
            if (lost is not null)
            {
                source.Dispose();
                Tell(() => lostDevice = $"decoding {clip.Name} on {device} failed: {lost.Message} The processor took over");
                source = Begin(owed.TryPeek(out var next) ? next : newest + 1, null);
                DecodeFrom(source, false);
            }
        }
        catch (MediaException cause)
        {
            Fail(cause);
        }
        catch (Exception cause)
        {
            Fail(new MediaException($"Decoding {clip.Name} failed unexpectedly: {cause.Message}"));
        }
        finally
        {
            source?.Dispose();
        }
    }

    private void Fail(MediaException cause)
    {
        Tell(() => failure = cause);
        if (part == DecodingPart.Leads)
        {
            course.Break();
        }
    }

    /// <summary>Opens the clip and goes to where a frame can be decoded from.</summary>
    /// <param name="from">A source frame; 0 for the layer's first.</param>
    private ClipDecoder Begin(long from, string? device)
    {
        var source = open(clip, threads, device);
        try
        {
            from = Math.Max(from, SourceFrame(0, source));
            if (from > 0)
            {
                source.SeekTo(source.Keys.LastUpTo(from));
            }

            newest = Math.Max(newest, from - 1);
            output = from - 1;
            afreshFrom = source.NextToSend;
        }
        catch
        {
            source.Dispose();
            throw;
        }

        if (part == DecodingPart.Leads && Source is null)
        {
            course.Lead(start => new LayerReferences(source.Keys, position => SourceFrame(position, source), start, course.FrameCount));
        }

        Tell(() => Source = source);
        return source;
    }

    /// <summary>Decodes until the layer is disposed.</summary>
    /// <returns>Why the device cannot go on; null when decoding ended otherwise.</returns>
    private MediaException? DecodeFrom(ClipDecoder source, bool onDevice)
    {
        using var watched = FootageReads.OfProgram.Watch(() => source.Reading);
        try
        {
            Deliver(source);
            while (HasRoom())
            {
                var isNew = part switch
                {
                    DecodingPart.Leads => Lead(source),
                    DecodingPart.Follows => Follow(source),
                    _ => GoOn(source),
                };
                if (isNew)
                {
                    Deliver(source, source.Keys.AllIntra ? source.FramesAtOnce - 1 : 0);
                }
            }
        }
        catch (MediaException gone) when (onDevice && !disposed)
        {
            return gone;
        }

        return null;
    }

    /// <summary>Has frames come out of the decoder until it owes no more than so many.</summary>
    /// <param name="stillOwed">A decoder that works on several frames at once gives the first when it has the data of them all. Where they
    /// stand alone these are frames that were chosen, and not those that happen to follow.</param>
    private void Deliver(ClipDecoder source, int stillOwed = 0)
    {
        using var turn = owed.Count > stillOwed ? course.Turn(() => disposed) : null;
        while (owed.Count > stillOwed && !disposed)
        {
            var began = course.Now;
            var frame = source.Next();
            Learn(frame, course.Now - began, source);
            output = frame.Number;
            Sort(frame, source);
        }
    }

    /// <summary>Where all up to a frame that stands alone is given up, what the decoder works on already is shown first.</summary>
    private void DeliverHeld(ClipDecoder source)
    {
        using var turn = course.Turn(() => disposed);
        owed.Clear();
        while (!disposed && source.NextHeld() is { } frame)
        {
            output = frame.Number;
            firstOf = course.LastBegun + 1;
            reasonBefore = DropReason.PassedOver;
            if (frame.Number > newest)
            {
                Sort(frame, source);
            }
            else
            {
                frame.Dispose();
            }
        }

        owed.Clear();
        firstOf = null;
    }

    /// <summary>Chooses what is decoded next.</summary>
    /// <returns>Whether there is something to decode.</returns>
    private bool Lead(ClipDecoder source)
    {
        if (leapsTo > course.LastBegun)
        {
            (firstOf, reasonBefore) = (firstOf ?? (course.LastBegun + 1), DropReason.DecodeSkipped);
            owed.Enqueue(SourceFrame(leapsTo, source));
            return true;
        }

        if (isOver || course.Choose() is not { } choice)
        {
            if (!isOver)
            {
                // Should the device be lost over it, this comes again on the processor.
                Deliver(source);
                isOver = true;
                course.End();
            }

            Wait();
            return false;
        }

        var wanted = SourceFrame(choice.Frame, source);
        // What a decoder works on already can be shown before it where no other layer has to follow.
        var leaps = choice.GivesUp && course.IsOfOneLayer && !source.Keys.AllIntra && source.Keys.LastUpTo(wanted) > source.NextToSend;
        if (leaps && !source.GoesOn)
        {
            DeliverHeld(source);
        }

        // Which frame it is will show where unreferenced ones are left out, or were of what the decoder has already: the first that comes.
        leapsTo = leaps && source.GoesOn ? choice.Frame : -1;
        firstOf = leapsTo >= 0 ? course.LastBegun + 1
            : !source.Keys.AllIntra && wanted > newest && (choice.LeavesOut || wanted < leftOutBelow) ? choice.Frame
            : null;
        reasonBefore = choice.Reason;
        if (firstOf is null)
        {
            course.Begin(choice.Frame, choice.Reason);
        }

        Go(wanted, source, firstOf is not null && choice.LeavesOut ? long.MaxValue : LeftOutBefore(wanted));
        leftOutBelow =
            firstOf is not null && choice.LeavesOut ? long.MaxValue
            : leftOutBelow == long.MaxValue ? source.NextToSend + Reordering
            : leftOutBelow;
        return true;
    }

    /// <summary>Takes up what was chosen, or has come out what is owed where nothing new was chosen and that is waited for.</summary>
    private bool Follow(ClipDecoder source)
    {
        var (position, taken) = course.Follow(followed, seenTaken, LookAgain);
        seenTaken = taken;
        if (position is { } next)
        {
            var wanted = SourceFrame(next, source);
            Go(wanted, source, LeftOutBefore(wanted));
            followed = next;
            return true;
        }

        if (taken >= 0 && owed.TryPeek(out var first) && SourceFrame(taken, source) >= first)
        {
            Deliver(source);
        }

        return false;
    }

    /// <summary>Up to where unreferenced frames are left out on the way to one: where the footage may lack its picture, the one on screen
    /// instead lies a little before.</summary>
    private long LeftOutBefore(long wanted) => wanted > newest + 1 ? wanted - (clip.Track?.IsEven == true ? 0 : LongestGap) : 0;

    /// <summary>Decodes the next frame, or begins afresh where a far later one is asked for.</summary>
    private bool GoOn(ClipDecoder source)
    {
        long wanted;
        lock (gate)
        {
            wanted = Math.Max(newest + 1, asked);
        }

        Go(wanted, source);
        return true;
    }

    /// <summary>Has the decoder go to a frame by the shortest way, unless it was there already.</summary>
    /// <param name="leavesOutBefore">Up to where unreferenced frames are left out.</param>
    private void Go(long wanted, ClipDecoder source, long leavesOutBefore = 0)
    {
        if (wanted <= newest)
        {
            return;
        }

        owed.Enqueue(wanted);
        if (source.Keys.AllIntra)
        {
            newest = wanted;
            if (wanted >= source.NextToSend)
            {
                source.GoTo(wanted);
            }

            return;
        }

        var afresh = source.Keys.LastUpTo(wanted);
        if (afresh > source.NextToSend)
        {
            source.GoTo(afresh);
            afreshFrom = source.GoesOn ? null : afresh;
        }

        source.SkipUnreferencedBefore(leavesOutBefore);
    }

    private void Learn(DecodedFrame frame, TimeSpan took, ClipDecoder source)
    {
        if (part != DecodingPart.Leads)
        {
            return;
        }

        // A frame that stands alone costs far more than those after it, which are what decoding goes on with.
        var runsUp = owed.TryPeek(out var wanted) && frame.Number < wanted;
        var standsAlone = !source.Keys.AllIntra && source.Keys.LastUpTo(frame.Number) == frame.Number;
        course.Decoded(new LeadSample(
            source.Keys.AllIntra ? frame.Latency
                : runsUp || standsAlone ? null
                : took,
            took,
            frame.Number - output)
        {
            StandsAlone = standsAlone,
            LeftOut = (firstOf is not null || runsUp) && !standsAlone,
            Begun = source.NextToSend - afreshFrom,
            GoesOnAfter = source.GoesOn ? frame.Latency : null,
        });
        afreshFrom = null;
    }

    /// <summary>Hands a frame on, or passes over it.</summary>
    private void Sort(DecodedFrame frame, ClipDecoder source)
    {
        if (firstOf is { } position && !Place(frame, position, source))
        {
            PassOver(frame);
            return;
        }

        if (owed.TryPeek(out var wanted) && frame.Number < wanted)
        {
            PassOver(frame);
            return;
        }

        while (owed.TryPeek(out var one) && one <= frame.Number)
        {
            owed.Dequeue();
        }

        newest = Math.Max(newest, frame.Number);
        var earlier = frame.Number > wanted ? before : null;
        if (earlier is null)
        {
            before?.Dispose();
        }

        before = null;
        var full = frame with { Read = frame.Read + passedOver.Read, Decode = frame.Decode + passedOver.Decode };
        passedOver = default;
        Tell(() =>
        {
            if (earlier is not null)
            {
                decoded.Enqueue(earlier);
            }

            decoded.Enqueue(full);
            Release();
            damage = source.Damage;
        });
    }

    /// <summary>Finds the frame of the passage that the first picture that came is for.</summary>
    /// <returns>False when none shows it.</returns>
    private bool Place(DecodedFrame frame, long position, ClipDecoder source)
    {
        while (position < course.FrameCount && SourceFrame(position, source) < frame.Number)
        {
            position++;
        }

        owed.Clear();
        if (position >= course.FrameCount)
        {
            return false;
        }

        var shows = SourceFrame(position, source);
        owed.Enqueue(shows);
        if (position < leapsTo && shows == frame.Number && !course.IsWorthTreating(position))
        {
            firstOf = position + 1;
            return false;
        }

        (firstOf, var isShown) = shows == frame.Number ? ((long?)null, true) : (position, false);
        if (isShown)
        {
            course.Begin(position, reasonBefore);
        }

        return isShown;
    }

    /// <summary>The last of those before the one that is wanted is kept, for frames without a picture; their time counts towards
    /// it.</summary>
    private void PassOver(DecodedFrame frame)
    {
        before?.Dispose();
        before = frame;
        passedOver = (passedOver.Read + frame.Read, passedOver.Decode + frame.Decode);
    }

    /// <summary>Waits for room.</summary>
    private bool HasRoom()
    {
        lock (gate)
        {
            while (decoded.Count >= course.DecodeAhead && !disposed)
            {
                Monitor.Wait(gate, LookAgain);
            }

            return !disposed;
        }
    }

    private void Wait()
    {
        lock (gate)
        {
            if (!disposed)
            {
                Monitor.Wait(gate, LookAgain);
            }
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
