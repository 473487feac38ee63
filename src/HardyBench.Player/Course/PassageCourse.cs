using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using static HardyBench.Core.Pacing.TimeSpans;

namespace HardyBench.Player.Course;

/// <summary>Which frames of a passage are begun, one after another, for all its layers alike. One layer leads: its decoding chooses, by
/// <see cref="Aim"/>, and the others follow. Any thread may call it. Positions are frames of the passage, from 0.</summary>
/// <param name="start">Timeline frame on which the passage begins.</param>
/// <param name="keepsTime">Whether frames may be dropped at all.</param>
/// <param name="layers">Layers of the passage.</param>
/// <param name="isAhead">Whether another passage still plays: then each layer decodes its first frame and waits for the signal to go
/// on.</param>
/// <param name="decisions">Null where decisions are not logged.</param>
public sealed class PassageCourse(
    RunClock run,
    FrameRate rate,
    long start,
    int frameCount,
    bool keepsTime,
    int layers = 1,
    bool isAhead = false,
    DecisionLog? decisions = null
)
{
    /// <summary>Waiting for less than this is none.</summary>
    private static readonly TimeSpan Noticeable = TimeSpan.FromMilliseconds(1);

    private static readonly TimeSpan LookAgain = TimeSpan.FromMilliseconds(50);

    private readonly object gate = new();
    private readonly List<(long Position, TimeSpan At, DropReason Before)> begun = [];
    private Aim? aim;
    private bool isLed;
    private bool isHeld = isAhead;
    private TimeSpan heldUntil;
    private bool isTurnTaken;
    private bool isAtEnd;
    private bool isClosed;
    private TimeSpan lastDecoded;
    private TimeSpan? lastGathered;
    private TimeSpan? effectsSince;
    private long taken = -1;
    private bool leftOutBefore;

    /// <summary>Treating waits for several layers: how fast the leader is says nothing.</summary>
    private bool othersLimit = layers > 1;
    private DropReason lastReason = DropReason.PassedOver;

    public FrameRate Rate => rate;

    /// <summary>Whether no other layer follows the one that leads.</summary>
    public bool IsOfOneLayer => layers == 1;

    /// <summary>Frames of the passage.</summary>
    public int FrameCount => frameCount;

    public TimeSpan Now => run.Now;

    /// <summary>How many decoded frames of a layer may wait.</summary>
    /// <remarks>Of several layers one each until it is known how long a frame takes, and while it is behind: decoders that work ahead take
    /// the cores from effects, and what they decode grows old.</remarks>
    public int DecodeAhead => Locked(() =>
        isHeld || (layers > 1 && aim is not { IsBehind: false, Effects.Known: > 0 }) ? 1 : PlaybackSettings.DecodeAhead);

    /// <summary>Whether nothing more is begun.</summary>
    public bool IsAtEnd => Locked(() => isAtEnd);

    /// <summary>Whether frames have to be left out at present.</summary>
    public bool IsBehind => Locked(() => aim is { IsBehind: true });

    /// <summary>How long a frame takes from beginning to end at present.</summary>
    public TimeSpan Way => Locked(() => aim?.Way ?? TimeSpan.Zero);

    /// <summary>Before anything else: a layer leads, or, where every frame has to be decoded in any case, none does.</summary>
    /// <param name="footage">By timeline frame; null where no layer leads.</param>
    public void Lead(Func<long, IReferences>? footage) => Changed(() =>
    {
        isLed = footage is not null;
        aim = new Aim(rate, start, start + frameCount, footage?.Invoke(start) ?? new AnyFrame());
    });

    /// <summary>The passage is about to begin: decoding goes on from its first frame.</summary>
    public void GoOn() => Changed(() => (heldUntil, isHeld) = (isHeld ? run.Now : heldUntil, false));

    /// <summary>While another passage still plays, the layers of this one decode one after another, so that together they take no more of
    /// the machine at once than one of them would.</summary>
    /// <param name="isOver">Whether the layer is not needed any more; looked at now and then.</param>
    /// <returns>The turn, to be given back by disposing it; null where none is needed.</returns>
    public IDisposable? Turn(Func<bool> isOver)
    {
        lock (gate)
        {
            while (isHeld && isTurnTaken && !isClosed && !isOver())
            {
                Monitor.Wait(gate, LookAgain);
            }

            if (!isHeld || isTurnTaken)
            {
                return null;
            }

            isTurnTaken = true;
            return new TurnTaken(this);
        }
    }

    /// <summary>The leader: chooses the next frame.</summary>
    /// <returns>Its position; null when nothing more of the passage is to be begun.</returns>
    public Choice? Choose() => Locked(() =>
    {
        var now = run.Now;
        var clock = keepsTime ? run.Slots : null;
        var before = clock is null ? 0 : begun.Count(one => one.Position > taken && IsWorth(one.Position, now));
        var underWay = othersLimit
            ? new WorkInProgress(before, lastGathered ?? TimeSpan.Zero, before, effectsSince)
            : new WorkInProgress(0, lastDecoded, before, effectsSince);
        var choice = aim!.Next(now, clock, underWay);
        decisions?.Chosen(now, choice, aim, clock, underWay);
        lastReason = choice.Reason;
        return choice.Frame < start + frameCount ? choice with { Frame = choice.Frame - start } : (Choice?)null;
    });

    /// <summary>The leader: a frame is begun, for every layer.</summary>
    /// <param name="before">The reason given for the frames that were left out before it.</param>
    public void Begin(long position, DropReason before) => Changed(() =>
    {
        var now = run.Now;
        begun.Add((position, now, before));
        decisions?.Add(new Decision(now, DecisionAct.Begun, start + position));
        LastBegun = position;
        aim!.ContinueFrom(start + position);
    });

    /// <summary>The last frame that was begun; −1 before any.</summary>
    public long LastBegun { get; private set; } = -1;

    /// <summary>The leader: nothing more is begun.</summary>
    public void End() => Changed(() => isAtEnd = true);

    /// <summary>The leader decoded a frame.</summary>
    public void Decoded(LeadSample frame) => Locked(() =>
    {
        lastDecoded = run.Now;
        if (frame.Begun is { } several)
        {
            var took = frame.GoesOnAfter ?? frame.Each;
            aim!.LearnStarting(took, several, WasAlone(took));
            return;
        }

        if (frame.GoesOnAfter is { } after && WasAlone(after))
        {
            aim!.StartingAfresh.Add(after);
        }

        if (!frame.StandsAlone && !othersLimit)
        {
            aim!.DecodingEach.Add(frame.Each);
        }

        if (frame.Latency is { } known && !othersLimit)
        {
            aim!.Decoding.Add(known);
        }

        // Only where unreferenced frames were left out before the last one too does this time stand for going on so.
        if (frame.LeftOut && leftOutBefore && frame.Advanced > 0)
        {
            aim!.Advancing.Add(frame.Each / frame.Advanced);
        }

        leftOutBefore = frame.LeftOut;
    });

    /// <summary>A layer that follows: waits for a frame that is begun, or taken by treating, after those it knows of.</summary>
    /// <param name="after">The last frame it follows.</param>
    /// <param name="seenTaken">The last frame it knows to be taken.</param>
    /// <returns>The frame to follow, null where none was begun, and the last one taken.</returns>
    public (long? Position, long Taken) Follow(long after, long seenTaken, TimeSpan atMost)
    {
        lock (gate)
        {
            if (Find(after) is null && taken == seenTaken && !isClosed)
            {
                Monitor.Wait(gate, atMost);
            }

            return (Find(after), taken);
        }
    }

    /// <summary>Treating: waits for the frame that is treated after another.</summary>
    /// <returns>Null when there is none left in the passage, or the course was closed.</returns>
    public long? Take(long after)
    {
        lock (gate)
        {
            while (true)
            {
                if (isClosed)
                {
                    return null;
                }

                if (Find(after) is { } next)
                {
                    return next;
                }

                if (isAtEnd)
                {
                    return null;
                }

                if (aim is not null && !isLed)
                {
                    if (Choose() is { } choice)
                    {
                        Begin(choice.Frame, choice.Reason);
                        continue;
                    }

                    isAtEnd = true;
                    continue;
                }

                Monitor.Wait(gate);
            }
        }
    }

    /// <summary>The reason given for the frames that were left out before one; before the end of the passage where none is named.</summary>
    public DropReason ReasonBefore(long? position) => Locked(() =>
        begun.FindIndex(one => one.Position == position) is >= 0 and var place ? begun[place].Before : lastReason);

    /// <summary>Treating: the layers of a frame are taken now, and none of those before it will be.</summary>
    public void Taking(long position) => Changed(() =>
    {
        taken = position;
        begun.RemoveAll(one => one.Position < position);
    });

    /// <summary>Treating: whether the frame it took can still be seen by what effects take on average.</summary>
    public bool IsWorthTreating(long position) => Locked(() => IsWorth(position, run.Now));

    /// <summary>Treating: all layers of a frame are there.</summary>
    /// <param name="waited">How long it was waited for.</param>
    public void Gathered(long position, TimeSpan waited) => Locked(() =>
    {
        var now = run.Now;
        // A leader knows its own decoding; what the others take beyond that, and all of it where none leads, shows here.
        if (!isLed || layers > 1)
        {
            othersLimit = waited > Noticeable || lastGathered is null;
            if (othersLimit && lastGathered is { } before && ReasonBefore(position) != DropReason.DecodeSkipped)
            {
                // The first frame is gathered long before the second is begun.
                var each = now - Longer(before, begun.Find(one => one.Position == position).At);
                aim!.DecodingEach.Add(each);
                aim.Decoding.Add(each);
            }
        }

        lastGathered = effectsSince = now;
        decisions?.Add(new Decision(now, DecisionAct.Decoded, start + position));
    });

    /// <summary>Treating: a frame is done, or was given up.</summary>
    /// <param name="effects">How long its effects took; null when they were not begun.</param>
    public void Done(TimeSpan? effects) => Locked(() =>
    {
        effectsSince = null;
        // Beside another passage they take far longer than they will.
        if (effects is { } spent && !isHeld)
        {
            aim!.Effects.Add(spent);
            aim.EffectsBegun.Add(spent);
        }
    });

    /// <summary>From now on effects take another time.</summary>
    public void ForgetEffects() => Locked(() => aim?.ForgetEffects());

    /// <summary>The leader failed: what was begun is still taken, and then a frame that nobody begins, whose taking tells.</summary>
    public void Break() => Changed(() => isLed = false);

    /// <summary>Ends all waiting.</summary>
    public void Close() => Changed(() => isClosed = true);

    private bool IsWorth(long position, TimeSpan now) =>
        !keepsTime || run.Slots is not { } clock || Timing.IsWorthTreating(now, aim!.EffectsBegun.Mean, clock.EndOf(start + position));

    /// <summary>Whether no other passage played during a time that ends now.</summary>
    private bool WasAlone(TimeSpan took) => !isHeld && run.Now - took >= heldUntil;

    private long? Find(long after)
    {
        var place = begun.FindIndex(one => one.Position > after);
        return place < 0 ? null : begun[place].Position;
    }

    private T Locked<T>(Func<T> work)
    {
        lock (gate)
        {
            return work();
        }
    }

    private void Locked(Action work)
    {
        lock (gate)
        {
            work();
        }
    }

    private void Changed(Action change) => Locked(() =>
    {
        change();
        Monitor.PulseAll(gate);
    });

    private sealed class TurnTaken(PassageCourse course) : IDisposable
    {
        public void Dispose() => course.Changed(() => course.isTurnTaken = false);
    }

    /// <summary>Every frame can be had as it is.</summary>
    private sealed class AnyFrame : IReferences
    {
        public bool StandAlone => true;

        public long FirstFrom(long frame) => frame;
    }
}

/// <summary>How a leader came by a frame.</summary>
/// <param name="Latency">From beginning it to having it; null where frames were passed over.</param>
/// <param name="Each">Since the frame before.</param>
/// <param name="Advanced">Source frames since the frame before.</param>
public readonly record struct LeadSample(TimeSpan? Latency, TimeSpan Each, long Advanced)
{
    /// <summary>It stands alone in long-GOP footage.</summary>
    public bool StandsAlone { get; init; }

    /// <summary>Unreferenced frames were left out before it.</summary>
    public bool LeftOut { get; init; }

    /// <summary>Where decoding had just begun afresh, how many frames it had begun when it gave this one.</summary>
    public long? Begun { get; init; }

    /// <summary>Where decoding starts afresh behind what the decoder works on, how long this frame was in it.</summary>
    public TimeSpan? GoesOnAfter { get; init; }
}
