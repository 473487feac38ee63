using HardyBench.Core.Footage;
using static HardyBench.Core.Pacing.TimeSpans;

namespace HardyBench.Core.Pacing;

/// <summary>Keep time: which frame of a passage is begun next. It holds no frames and no threads: whoever drives it, a real player or the
/// stand-in model, tells it the time, what is under way and how long work took.</summary>
/// <remarks>
/// <para>A frame that is expected to be ready in its slot is begun in order. Else the next one begun is the first whose slot begins when it
/// is expected to be ready, by what decoding and effects took on average recently. Where that is wrong the frame waits for its slot, or is
/// shown after it; work is lost in neither case.</para>
/// <para>In long-GOP footage decoding can only go on, or start afresh on a frame that stands alone. While it is late, frames that no other
/// refers to are left out, unless it cannot keep up even so and would show more in full. Where effects are what it waits for, it passes
/// over as many frames as it can decode meanwhile. It goes on with late frames until the next frame that stands alone has to be begun to
/// be in time, or until frames would be shown too late; then it starts afresh there.</para>
/// </remarks>
/// <param name="first">The first timeline frame of the passage.</param>
/// <param name="end">The frame after its last.</param>
public sealed class Aim(FrameRate rate, long first, long end, IReferences footage)
{
    /// <summary>Slots in hand from which unreferenced frames are decoded again, once it was late.</summary>
    private const double SlotsInHand = 1.5;

    /// <summary>Share of how late a frame may be by which a frame on which decoding starts afresh may be late: those after it come later
    /// still.</summary>
    private const double AfreshLate = 0.25;

    /// <summary>Frames that have to follow one on which decoding starts afresh late, for that to be worth it.</summary>
    private const int MinAfterLate = 2;

    private long last = first - 1;
    private long framesToStart = 1;
    private TimeSpan passesOverUntil;
    private bool catchesUp;

    /// <summary>From beginning a frame's decoding to having it, where nothing else is waited for.</summary>
    public Durations Decoding { get; } = new();

    /// <summary>From starting afresh in long-GOP footage to having the first frame, where the decoder holds several.</summary>
    public Durations StartingAfresh { get; } = new();

    /// <summary>Between two decoded frames, a timeline frame, while unreferenced ones are left out.</summary>
    public Durations Advancing { get; } = new();

    /// <summary>Between two decoded frames while decoding never waits; frames that stand alone in long-GOP footage are not counted, which
    /// take several times as long.</summary>
    public Durations DecodingEach { get; } = new();

    /// <summary>From when a frame's effects could begin to having it.</summary>
    public Durations Effects { get; } = new();

    /// <summary>From when they did begin, which is later where they wait for a place.</summary>
    public Durations EffectsBegun { get; } = new();

    /// <summary>Whether frames have to be left out at present.</summary>
    public bool IsBehind { get; private set; }

    /// <summary>How long the last frame that was chosen is expected to take from beginning to end, with what it waits for.</summary>
    public TimeSpan Way { get; private set; }

    /// <summary>Chooses, and goes on from there.</summary>
    /// <param name="clock">Null before the first frame is shown: then every frame is begun in order.</param>
    public Choice Next(TimeSpan now, SlotClock? clock, WorkInProgress underWay)
    {
        var expected = new Expected(this, now, underWay);
        Way = expected.Ready(0) - now;
        var choice = clock is not { } known ? new Choice(last + 1)
            : footage.StandAlone ? new Choice(Anywhere(expected, known))
            : InOrder(expected, known);
        last = choice.Frame;
        return choice;
    }

    /// <summary>Something came that was not asked for, as when unreferenced frames are left out: it goes on from there.</summary>
    public void ContinueFrom(long frame) => last = frame;

    /// <summary>Whether nothing of an earlier overload is left that could make it choose another frame than the next while all are in
    /// time.</summary>
    internal bool IsInTime(TimeSpan now) => !IsBehind && passesOverUntil <= now;

    /// <summary>Learns how long the first frame took after decoding began afresh, and each of those that were begun for it, which is all
    /// that is known of decoding at first.</summary>
    /// <param name="several">How many frames were begun for it, with it.</param>
    /// <param name="isAlone">Whether no other passage played meanwhile: beside one decoding takes far longer than it will.</param>
    public void LearnStarting(TimeSpan took, long several, bool isAlone)
    {
        framesToStart = Math.Max(1, several);
        var each = took / framesToStart;
        if (isAlone)
        {
            StartingAfresh.Add(took);
        }

        if (Decoding.Known > 0)
        {
            return;
        }

        Decoding.Add(each);
        if (isAlone)
        {
            DecodingEach.Add(each);
        }
    }

    /// <summary>From now on effects take another time, as at another scale.</summary>
    public void ForgetEffects()
    {
        Effects.Clear();
        EffectsBegun.Clear();
    }

    /// <summary>Where every frame stands alone.</summary>
    private long Anywhere(Expected expected, SlotClock clock)
    {
        var (next, ready) = (last + 1, expected.Ready(0));
        IsBehind = ready >= clock.EndOf(next);
        return IsBehind ? SlotFrom(ready, clock, next) : next;
    }

    private Choice InOrder(Expected expected, SlotClock clock)
    {
        var next = last + 1;
        var inHand = (clock.EndOf(next) - expected.ReadyOfDecoding) / rate.FrameDuration;
        catchesUp = inHand < 0 || (catchesUp && inHand < SlotsInHand);
        var leavesOut = catchesUp && !IsBestInFull(expected, clock, next);
        next = leavesOut ? footage.ReferencedFrom(next) : next;
        var isLate = expected.Ready(0) >= clock.EndOf(next);
        IsBehind = isLate || catchesUp;
        if (!isLate || next >= end)
        {
            return new Choice(Math.Min(next, end), LeavesOut: leavesOut);
        }

        var frame = Math.Min(SlotFrom(expected.Ready(0), clock, next), next + expected.DecodedWhileItWaits);
        var late = expected.Ready(frame - next) - clock.EndOf(frame);
        var afresh = footage.FirstFrom(SlotFrom(expected.ReadyAfresh - AfreshLate * TooLate, clock, next + 1));
        afresh = late > TooLate ? SoonerThan(afresh, expected, clock, next) : afresh;
        if (afresh < end && frame < afresh && (late > TooLate || expected.ReadyAfresh >= clock.StartOf(afresh)))
        {
            return new Choice(afresh, GivesUp: true);
        }

        if (late > TooLate)
        {
            // No other frame stands alone in this passage: it catches up by showing nothing for a while.
            var gain = rate.FrameDuration - Pace;
            frame = gain > TimeSpan.Zero ? frame + (long)Math.Min((late - TooLate) / gain + 1, end - frame) : end;
        }

        frame = leavesOut && frame > next && frame < end ? footage.ReferencedFrom(frame) : frame;
        if (frame >= end || expected.Ready(frame - next) >= clock.StartOf(end))
        {
            return new Choice(end, LeavesOut: leavesOut);
        }

        passesOverUntil = expected.Decoded(frame - next);
        return new Choice(frame, LeavesOut: leavesOut);
    }

    /// <summary>Where nothing more can be shown until a frame on which decoding starts afresh in time: an earlier one that is late, if some
    /// of the frames after it can be shown before decoding has to start afresh again.</summary>
    private long SoonerThan(long afresh, Expected expected, SlotClock clock, long next)
    {
        var sooner = footage.FirstFrom(SlotFrom(expected.ReadyAfresh - TooLate, clock, next + 1));
        if (sooner >= Math.Min(afresh, end))
        {
            return afresh;
        }

        var each = DecodingEach.Mean;
        var fallsBack = Longer(each - rate.FrameDuration, TimeSpan.FromTicks(1));
        var untilTooLate = (TooLate - (expected.ReadyAfresh - clock.EndOf(sooner))) / fallsBack;
        var left = afresh < end ? clock.StartOf(afresh) - Starting : clock.StartOf(end);
        return Math.Min(untilTooLate, (left - expected.ReadyAfresh) / each) >= MinAfterLate ? sooner : afresh;
    }

    /// <summary>Whether no frames should be left out: referenced ones alone are too much, and until decoding has to start afresh all frames
    /// could be shown that can be decoded, which are no more than half. Leaving some out would only show fewer.</summary>
    private bool IsBestInFull(Expected expected, SlotClock clock, long next)
    {
        if (Advancing.Known == 0 || Advancing.Mean <= rate.FrameDuration)
        {
            return false;
        }

        var restart = Math.Min(footage.FirstFrom(next + 1), end);
        var left = clock.StartOf(restart) - (restart < end ? expected.ReadyAfresh : expected.Ready(0));
        var decoded = Math.Max(0, left / DecodingEach.Mean);
        return decoded <= (restart - next) / 2.0 && expected.Ready(0) + left - clock.EndOf(next + (long)decoded) <= TooLate;
    }

    /// <summary>How late a frame may be in long-GOP footage: it can still be shown.</summary>
    private TimeSpan TooLate => Timing.MaxOverdue - rate.FrameDuration;

    /// <summary>From starting afresh to having the first frame; until that is known, as long as the frames take that are begun for
    /// it.</summary>
    private TimeSpan Starting => StartingAfresh.Known > 0 ? StartingAfresh.Mean : framesToStart * DecodingEach.Mean;

    /// <summary>What a timeline frame costs to decode that is passed over, unreferenced ones counted in.</summary>
    private TimeSpan Pace => Advancing.Known > 0 ? Advancing.Mean : DecodingEach.Mean;

    /// <summary>The first frame whose slot begins when something is ready; the last of the passage where that is within its slot, and the
    /// end where it is later.</summary>
    private long SlotFrom(TimeSpan ready, SlotClock clock, long from)
    {
        if (ready >= clock.StartOf(end))
        {
            return end;
        }

        var frame = Math.Max(from, rate.FrameAt(ready - clock.FirstShown - clock.Slip));
        return Math.Max(from, Math.Min(end - 1, ready > clock.StartOf(frame) ? frame + 1 : frame));
    }

    /// <summary>When a frame that is begun now is expected to be done, on average.</summary>
    private readonly struct Expected
    {
        private readonly Aim aim;
        private readonly TimeSpan decoded;
        private readonly TimeSpan effectsFree;

        public Expected(Aim aim, TimeSpan now, WorkInProgress underWay)
        {
            this.aim = aim;
            var each = aim.DecodingEach.Mean;
            var behindOthers = underWay.LastDecoded + (underWay.Undecoded + 1) * each;
            var behindPassedOver = underWay.Undecoded > 0 ? aim.passesOverUntil + each : TimeSpan.Zero;
            decoded = Longer(now + aim.Decoding.Mean, Longer(behindOthers, behindPassedOver));
            // Several at once take less than one by one, and one that waits for a place holds nothing up.
            var effects = Shorter(aim.Effects.Mean, aim.EffectsBegun.Mean);
            var free = underWay.EffectsSince is { } since ? Longer(now, since + effects) : now;
            effectsFree = free + underWay.BeforeEffects * effects;
        }

        /// <summary>Frames that decoding can pass over without loss, because effects keep the next one waiting so long.</summary>
        public long DecodedWhileItWaits =>
            effectsFree > decoded && aim.Pace > TimeSpan.Zero ? (long)((effectsFree - decoded) / aim.Pace) : 0;

        /// <summary>The next frame, if it did not have to wait for the effects of others.</summary>
        public TimeSpan ReadyOfDecoding => decoded + aim.Effects.Mean;

        /// <summary>The next frame on which decoding can start afresh, if one more frame is decoded first and no other effects are waited
        /// for.</summary>
        public TimeSpan ReadyAfresh => decoded + aim.Starting + aim.Effects.Mean;

        /// <param name="passedOver">Timeline frames to pass over before it.</param>
        public TimeSpan Decoded(long passedOver) => decoded + passedOver * aim.Pace;

        public TimeSpan Ready(long passedOver) => Longer(Decoded(passedOver), effectsFree) + aim.Effects.Mean;
    }
}

/// <summary>What is under way in a passage.</summary>
/// <param name="Undecoded">Frames that are being decoded or read.</param>
/// <param name="LastDecoded">When the last frame was decoded.</param>
/// <param name="BeforeEffects">Frames that were begun and whose effects were not.</param>
/// <param name="EffectsSince">When the effects that are being worked on began; null when none are.</param>
public readonly record struct WorkInProgress(int Undecoded, TimeSpan LastDecoded, int BeforeEffects, TimeSpan? EffectsSince);

/// <summary>What is begun next.</summary>
/// <param name="Frame">The timeline frame; the end of the passage when none of it can be in time any more.</param>
/// <param name="LeavesOut">Whether unreferenced frames are left out on the way to it.</param>
/// <param name="GivesUp">Whether those before it are given up because decoding cannot reach them, and not passed over one by one.</param>
public readonly record struct Choice(long Frame, bool LeavesOut = false, bool GivesUp = false)
{
    /// <summary>The reason given for the frames before it.</summary>
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
