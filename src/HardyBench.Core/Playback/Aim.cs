using HardyBench.Core.Footage;
using static HardyBench.Core.Playback.TimeSpans;

namespace HardyBench.Core.Playback;

/// <summary>Keep time: which frame of a passage is begun next, so that it will be done within its slot. It holds no frames and no
/// threads: whoever drives it, a real player or the stand-in model, tells it the time, what is under way and how long work took.</summary>
/// <remarks>
/// <para>A frame that can be done in time is begun in order. Where it cannot, the next one aimed at is the first that can, by how long
/// decoding, waiting and effects took of late: the time within which nine of ten were done, and more after a miss. Aiming further ahead
/// costs no frame, since one is begun whenever one is done; it only lets finished ones wait.</para>
/// <para>In long-GOP footage decoding can only go on, or start afresh on a frame that stands alone. First unreferenced frames are left
/// out. Where that is not enough it runs up, without showing, to the first frame in time; or, where that is more than a third of the way to
/// the next frame that stands alone, it gives up what is between and uses its time to decode ahead from there, as deep as memory lets it.
/// Where no other stands alone in the passage there is nothing to give up for.</para>
/// </remarks>
/// <param name="first">The first timeline frame of the passage.</param>
/// <param name="end">The frame after its last.</param>
public sealed class Aim(FrameRate rate, long first, long end, IReferences footage)
{
    /// <summary>The share of recent pieces of work that lasted no longer than a frame is given.</summary>
    private const double Sure = 0.9;

    /// <summary>The share of recent pieces of work that were done beside little else.</summary>
    private const double Quickest = 0.25;

    /// <summary>How much further ahead a miss lets the next one aim, and how much nearer a hit, as shares of a frame's work. They balance
    /// at one miss in eleven.</summary>
    private const double Further = 0.25, Nearer = 0.025;

    /// <summary>The part of the time between two frames that they are apart while there is time in hand, which is so spent
    /// slowly.</summary>
    private const double Closer = 0.85;

    /// <summary>How much slower effects are than decoding where one decoded frame in hand is enough.</summary>
    private const double MuchSlower = 1.5;

    /// <summary>Frames after which the pace without unreferenced ones is known; until then it is taken for half.</summary>
    private const int Enough = 4;

    /// <summary>Slots that a frame would take without unreferenced ones, by that guess, above which it is plain that they are not what
    /// matters.</summary>
    private const double Hopeless = 1.5;

    /// <summary>Steps in which the nearest frame to run up to is looked for before it is reckoned.</summary>
    private const int SmallSteps = 8;

    /// <summary>The part of a GOP's rest that running up may pass over. Beyond it starting afresh shows more: running up only just arrives
    /// in time, so that the next frame that stands alone, which costs several of the others, comes late and its GOP begins with another run
    /// up.</summary>
    private const double WorthRunningUp = 0.35;

    /// <summary>Slots in hand above which unreferenced frames are decoded again, once it was late.</summary>
    private const double SlotsInHand = 1.5;

    private long last = first - 1;
    private double spread = first - 1;
    private Caution caution;
    private TimeSpan margin;
    private TimeSpan runsUpUntil;
    private bool leftOutBefore;

    private enum Caution
    {
        /// <summary>Everything was in time so far.</summary>
        None,

        /// <summary>Something could not be in time.</summary>
        WasLate,

        /// <summary>Leaving out unreferenced frames was not enough.</summary>
        GaveUp,
    }

    /// <summary>From beginning a frame's decoding to having it, where nothing else is waited for.</summary>
    public Durations Decoding { get; } = new();

    /// <summary>From starting afresh in long-GOP footage to having the first frame, where the decoder holds several.</summary>
    public Durations StartingAfresh { get; } = new();

    /// <summary>Between two decoded frames, a timeline frame, while unreferenced ones are left out.</summary>
    public Durations RunningUp { get; } = new();

    /// <summary>Between two decoded frames while decoding never waits.</summary>
    public Durations DecodingEach { get; } = new();

    /// <summary>From when a frame's effects could begin to having it.</summary>
    public Durations Effects { get; } = new();

    /// <summary>From when they did begin, which is later where they wait for a place.</summary>
    public Durations EffectsBegun { get; } = new();

    /// <summary>Between two finished frames; where work paused, how long it would have been at least.</summary>
    public Durations Finishing { get; } = new();

    /// <summary>Whether frames have to be left out at present.</summary>
    public bool IsBehind { get; private set; }

    /// <summary>How many frames may be decoded ahead of effects while it is behind: one where effects are the slower, since more would only
    /// grow old.</summary>
    public bool WantsOneAhead => IsBehind && Effects.Mean > MuchSlower * DecodingEach.Mean;

    /// <summary>How long a frame takes from beginning to end at present.</summary>
    public TimeSpan Way => Decoding.Within(Sure) + Effects.Within(Sure) + margin;

    /// <summary>Chooses, and goes on from there.</summary>
    /// <param name="clock">Null before the first frame is shown: then every frame is begun in order.</param>
    public Choice Next(TimeSpan now, SlotClock? clock, UnderWay underWay)
    {
        var choice = clock is { } known ? Choose(now, known, underWay) : new Choice(last + 1);
        last = choice.Frame;
        return choice;
    }

    /// <summary>Something came that was not asked for, as when unreferenced frames are left out: it goes on from there.</summary>
    public void GoOnFrom(long frame) => last = frame;

    /// <summary>Whether nothing of an earlier overload is left that could make it choose another frame than the next while all are in
    /// time.</summary>
    internal bool IsInTime(TimeSpan now) =>
        !IsBehind && margin == TimeSpan.Zero && spread == last && caution != Caution.GaveUp && runsUpUntil <= now;

    /// <summary>Every frame up to one was begun in order, and all were in time.</summary>
    internal void GoOnInTimeFrom(long frame) => (last, spread) = (frame, frame);

    /// <summary>Learns how long the first frame took after decoding began afresh, and each of those that were begun for it, which is all
    /// that is known of decoding at first.</summary>
    public void LearnStarting(TimeSpan took, TimeSpan each)
    {
        StartingAfresh.Add(took);
        if (Decoding.Known == 0)
        {
            Decoding.Add(each);
            DecodingEach.Add(each);
        }
    }

    /// <summary>Learns what a frame cost that was decoded.</summary>
    /// <param name="leftOut">Whether unreferenced ones before it were left out. Only where they were before the last one too does the time
    /// between the two stand for going on so.</param>
    /// <param name="advanced">Frames since the last one.</param>
    public void LearnRunningUp(bool leftOut, TimeSpan each, long advanced)
    {
        if (leftOut && leftOutBefore && advanced > 0)
        {
            RunningUp.Add(each / advanced);
        }

        leftOutBefore = leftOut;
    }

    /// <summary>From now on effects take another time, as at another scale.</summary>
    public void ForgetEffects()
    {
        Effects.Clear();
        EffectsBegun.Clear();
        Finishing.Clear();
        margin = TimeSpan.Zero;
    }

    /// <summary>Learns from a frame that was begun.</summary>
    /// <param name="inTime">Whether it was done within its slot.</param>
    public void Learn(bool inTime)
    {
        var work = Decoding.Mean + Effects.Mean;
        margin = inTime ? Longer(margin - Nearer * work, TimeSpan.Zero) : Shorter(margin + Further * work, work);
    }

    private Choice Choose(TimeSpan now, SlotClock clock, UnderWay underWay)
    {
        var arrival = new Arrival(this, now, underWay);
        var next = last + 1;
        var leavesOut = LeavesOut(arrival, clock, next);
        if (leavesOut)
        {
            next = footage.ReferencedFrom(next);
        }

        if (footage.StandAlone)
        {
            return Spread(arrival, clock, next);
        }

        var isLate = arrival.At(0) >= clock.EndOf(next);
        if (!isLate || arrival.Unqueued < clock.EndOf(next))
        {
            // Where only effects are late decoding goes on all the same: giving up what it can reach would gain them nothing.
            IsBehind = leavesOut || isLate || IsSpaced;
            next = Apart(next, leavesOut, (clock.EndOf(next) - arrival.At(0)) / rate.FrameDuration);
            caution = caution == Caution.GaveUp && next > first && footage.FirstFrom(next) == next ? Caution.WasLate : caution;
            return new Choice(next, LeavesOut: leavesOut);
        }

        IsBehind = true;
        if (caution == Caution.None)
        {
            caution = Caution.WasLate;
        }

        var afresh = footage.FirstFrom(
            FirstAfter(arrival.At(0) + Longer(TimeSpan.Zero, StartingAfresh.Mean - Expected(Decoding)), clock, next)
        );
        // Passing over costs all up to there. Where effects are the slower it is not done for the sake of being sure: what waits catches
        // up.
        var decodingLimits = Effects.Mean <= DecodingEach.Mean;
        var pace = decodingLimits ? Pace : PaceAlone;
        var reached = RunUp(
            frame => decodingLimits ? arrival.At(frame - next, pace) : arrival.OnAverage(frame - next, pace),
            clock,
            next,
            afresh,
            pace
        );
        if (reached < afresh && (!decodingLimits || afresh >= end || reached - next <= WorthRunningUp * (afresh - next)))
        {
            spread = reached;
            runsUpUntil = arrival.Decoded(reached - next, pace);
            return new Choice(Math.Min(reached, end), LeavesOut: true);
        }

        if (RunningUp.Known < Enough && Pace < Hopeless * rate.FrameDuration && footage.FirstFrom(next + 1) > next + (2 * Enough))
        {
            // Unless it is plain that leaving out unreferenced frames cannot be enough, it is tried before all are given up.
            spread = next = footage.ReferencedFrom(next);
            return new Choice(next, LeavesOut: true);
        }

        caution = afresh > next + 1 ? Caution.GaveUp : caution;
        return new Choice(Math.Min(afresh, end), GivesUp: true);
    }

    /// <summary>Where every frame stands alone: the first in time, and where frames have to be left out, no nearer to the one before than
    /// work takes, so that those in hand are not spent in a row.</summary>
    private Choice Spread(Arrival arrival, SlotClock clock, long next)
    {
        var frame = FirstAfter(arrival.At(0), clock, next);
        IsBehind = frame > next || (IsBehind && Stride > 1);
        spread = IsBehind ? Math.Max(frame, spread + Stride * Closer) : frame;
        return new Choice(Math.Min(Math.Max(frame, (long)Math.Round(spread)), end));
    }

    /// <summary>In long-GOP footage whose effects take longer than a slot: no nearer to the frame before than they take, whether there is
    /// time in hand or not.</summary>
    private long Apart(long next, bool leavesOut, double inHand)
    {
        if (!IsSpaced && (!IsBehind || Stride <= 1 || Effects.Mean <= Decoding.Mean))
        {
            spread = next;
            return next;
        }

        spread = Math.Max(next, spread + (!IsSpaced ? Stride * Closer : inHand > EffectsStride ? EffectsStride * Closer : EffectsStride));
        var frame = (long)Math.Round(spread);
        return Math.Min(end, Math.Min(leavesOut ? footage.ReferencedFrom(frame) : frame, Math.Max(next, footage.FirstFrom(next + 1))));
    }

    /// <summary>Effects alone take longer than slots do, so that even with time in hand not every frame can be shown.</summary>
    private bool IsSpaced => Effects.Known >= Enough && EffectsStride * Closer > 1 && Effects.Mean > DecodingEach.Mean;

    /// <summary>Slots that effects take. Unlike the time between two finished frames it does not grow with the frames that are passed over
    /// in between, so spacing by it does not feed on itself.</summary>
    private double EffectsStride => Effects.Mean / rate.FrameDuration;

    /// <summary>Slots that a frame takes.</summary>
    private double Stride => Finishing.Mean / rate.FrameDuration;

    /// <summary>Whether unreferenced frames are left out now.</summary>
    private bool LeavesOut(Arrival arrival, SlotClock clock, long next) => caution switch
    {
        Caution.WasLate => (clock.EndOf(next) - arrival.At(0)) / rate.FrameDuration < SlotsInHand,
        Caution.GaveUp => true,
        _ => false,
    };

    /// <summary>The first frame that decoding reaches in time when it goes on without unreferenced frames; the limit when there is none
    /// before it.</summary>
    /// <param name="doneAt">When a frame would be done.</param>
    /// <param name="pace">What a timeline frame costs that is run up to.</param>
    private long RunUp(Func<long, TimeSpan> doneAt, SlotClock clock, long next, long limit, TimeSpan pace)
    {
        if (pace >= rate.FrameDuration)
        {
            return limit;
        }

        // Where effects are what is waited for, running up costs no time at all at first: so many frames further on is the nearest it can
        // be. Where decoding is, each frame gains what a slot is longer than a frame takes.
        var frame = footage.ReferencedFrom(next);
        for (var tried = 0; frame < limit; tried++)
        {
            var late = doneAt(frame) - clock.EndOf(frame);
            if (late < TimeSpan.Zero)
            {
                return frame;
            }

            var gain = tried < SmallSteps ? rate.FrameDuration : rate.FrameDuration - pace;
            frame = footage.ReferencedFrom(frame + 1 + (long)Math.Min(late / gain, limit - frame));
        }

        return limit;
    }

    /// <summary>What a frame costs that is run up to, unreferenced ones counted in. Until it is known, a guess that could be enough is
    /// taken for no more than half a slot: one that is too slow passes over far too much before anything shows it.</summary>
    private TimeSpan Pace => RunningUp.Known >= Enough ? RunningUp.Mean
        : Decoding.Mean / 2 < rate.FrameDuration ? Shorter(Decoding.Mean / 2, rate.FrameDuration / 2)
        : Decoding.Mean / 2;

    /// <summary>The pace while no effects are worked on, which is what it comes to where effects are the slower: as the quickest quarter of
    /// late.</summary>
    private TimeSpan PaceAlone => RunningUp.Known >= Enough ? Shorter(RunningUp.Within(Quickest), Pace) : Pace;

    /// <summary>The first frame whose slot ends after a moment.</summary>
    private long FirstAfter(TimeSpan moment, SlotClock clock, long from)
    {
        if (moment < clock.EndOf(from))
        {
            return from;
        }

        var frame = Math.Max(from, rate.FrameAt(moment - clock.FirstShown - clock.Slip));
        return moment < clock.EndOf(frame) ? frame : frame + 1;
    }

    /// <summary>How long decoding is given. A frame of long-GOP footage that comes late was needed by those after it all the same, and
    /// giving up costs all of them, so there it is the mean.</summary>
    private TimeSpan Expected(Durations decoding) => footage.StandAlone ? decoding.Within(Sure) : decoding.Mean;

    /// <summary>When a frame that is begun now would be done.</summary>
    private readonly struct Arrival(Aim aim, TimeSpan now, UnderWay underWay)
    {
        public TimeSpan Decoded(long runUp, TimeSpan pace)
        {
            var each = aim.DecodingEach;
            var behindOthers = underWay.LastDecoded + underWay.Undecoded * each.Mean + aim.Expected(each);
            var behindRunUp = underWay.Undecoded > 0 ? aim.runsUpUntil + each.Mean : TimeSpan.Zero;
            return Longer(now + aim.Expected(aim.Decoding), Longer(behindOthers, behindRunUp)) + runUp * pace;
        }

        /// <summary>When it would be if nothing else were before its effects.</summary>
        public TimeSpan Unqueued => Decoded(0, default) + aim.Effects.Mean;

        /// <summary>With nine tenths and the margin of late.</summary>
        /// <param name="runUp">Timeline frames to run up before it.</param>
        public TimeSpan At(long runUp, TimeSpan pace = default) => Begun(runUp, pace) + aim.Effects.Within(Sure) + aim.margin;

        public TimeSpan OnAverage(long runUp, TimeSpan pace) => Begun(runUp, pace) + aim.Effects.Mean;

        /// <summary>When its effects would be begun.</summary>
        private TimeSpan Begun(long runUp, TimeSpan pace)
        {
            var effectsFree = underWay.EffectsSince is { } since ? Longer(now, since + aim.Effects.Mean) : now;
            return Longer(Decoded(runUp, pace), effectsFree + underWay.BeforeEffects * aim.Effects.Mean);
        }
    }
}

/// <summary>What is under way in a passage.</summary>
/// <param name="Undecoded">Frames that are being decoded or read.</param>
/// <param name="LastDecoded">When the last frame was decoded.</param>
/// <param name="BeforeEffects">Frames that were begun and whose effects were not.</param>
/// <param name="EffectsSince">When the effects that are being worked on began; null when none are.</param>
public readonly record struct UnderWay(int Undecoded, TimeSpan LastDecoded, int BeforeEffects, TimeSpan? EffectsSince);

/// <summary>What is begun next.</summary>
/// <param name="Frame">The timeline frame; the end of the passage when none of it can be in time any more.</param>
/// <param name="LeavesOut">Whether unreferenced frames are left out on the way to it.</param>
/// <param name="GivesUp">Whether those before it are given up because decoding cannot reach them, and not passed over one by one.</param>
public readonly record struct Choice(long Frame, bool LeavesOut = false, bool GivesUp = false)
{
    /// <summary>What is said of the frames before it.</summary>
    public DropReason Reason => GivesUp ? DropReason.DecodeSkipped : DropReason.PassedOver;
}

/// <summary>How the frames of a passage hang on each other.</summary>
public interface IReferences
{
    /// <summary>Whether decoding can start afresh on every frame.</summary>
    bool StandAlone { get; }

    /// <summary>The first frame at or after one on which decoding can start afresh.</summary>
    long FirstFrom(long frame);

    /// <summary>The first frame at or after one that others refer to; itself where that is not known.</summary>
    long ReferencedFrom(long frame) => frame;
}
