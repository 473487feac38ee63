using HardyBench.Core.Pacing;
using HardyBench.Core.Timelines;
using HardyBench.Player.Course;

namespace HardyBench.Player.Decoding;

/// <summary>What the thread that decodes a layer does next: which frame it has the decoder go to, what of all that comes out is handed on,
/// and what the passage learns of it. Used on that thread only.</summary>
/// <param name="sourceFrame">The source frame due in a frame of the passage.</param>
internal sealed class LayerSteps(
    PassageCourse course, ClipSource clip, DecodingPart part, Func<long, ClipDecoder, long> sourceFrame, FrameHandOver handOver)
    : IDisposable
{
    /// <summary>How often what can change without a signal is looked at.</summary>
    public static readonly TimeSpan LookAgain = TimeSpan.FromMilliseconds(20);

    /// <summary>A frame's data may go to the decoder so many frames before it in the order of showing.</summary>
    private const int Reordering = 16;

    /// <summary>Footage may lack so many pictures in a row without one that is shown being left out.</summary>
    private const int LongestGap = 8;

    /// <summary>Source frames that were begun and have not come out of the decoder yet.</summary>
    private readonly Queue<long> owed = new();

    private DecodedFrame? before;
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

    /// <summary>The source frame to begin at again, where a decoder was lost.</summary>
    public long Resume => owed.TryPeek(out var next) ? next : newest + 1;

    /// <summary>Goes to where a frame can be decoded from.</summary>
    /// <param name="from">A source frame; 0 for the layer's first.</param>
    public void Begin(long from, ClipDecoder source)
    {
        from = Math.Max(from, sourceFrame(0, source));
        if (from > 0)
        {
            source.SeekTo(source.Keys.LastUpTo(from));
        }

        newest = Math.Max(newest, from - 1);
        output = from - 1;
        afreshFrom = source.NextToSend;
    }

    /// <summary>Has what is owed come out of the decoder.</summary>
    public void Start(ClipDecoder source) => Deliver(source);

    /// <summary>Takes up the next frame and has it decoded; waits a little where there is none.</summary>
    public void Next(ClipDecoder source)
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

    public void Dispose() => before?.Dispose();

    /// <summary>Has frames come out of the decoder until it owes no more than so many.</summary>
    /// <param name="stillOwed">A decoder that works on several frames at once gives the first when it has the data of them all. Where they
    /// stand alone these are frames that were chosen, and not those that happen to follow.</param>
    private void Deliver(ClipDecoder source, int stillOwed = 0)
    {
        using var turn = owed.Count > stillOwed ? course.Turn(() => handOver.HasEnded) : null;
        while (owed.Count > stillOwed && !handOver.HasEnded)
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
        using var turn = course.Turn(() => handOver.HasEnded);
        owed.Clear();
        while (!handOver.HasEnded && source.NextHeld() is { } frame)
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
            owed.Enqueue(sourceFrame(leapsTo, source));
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

            handOver.Wait(LookAgain);
            return false;
        }

        var wanted = sourceFrame(choice.Frame, source);
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
            var wanted = sourceFrame(next, source);
            Go(wanted, source, LeftOutBefore(wanted));
            followed = next;
            return true;
        }

        if (taken >= 0 && owed.TryPeek(out var first) && sourceFrame(taken, source) >= first)
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
        Go(Math.Max(newest + 1, handOver.Asked), source);
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
        handOver.Give(earlier, full, source.Damage);
    }

    /// <summary>Finds the frame of the passage that the first picture that came is for.</summary>
    /// <returns>False when none shows it.</returns>
    private bool Place(DecodedFrame frame, long position, ClipDecoder source)
    {
        while (position < course.FrameCount && sourceFrame(position, source) < frame.Number)
        {
            position++;
        }

        owed.Clear();
        if (position >= course.FrameCount)
        {
            return false;
        }

        var shows = sourceFrame(position, source);
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
}
