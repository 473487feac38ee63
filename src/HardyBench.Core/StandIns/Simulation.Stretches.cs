using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Core.StandIns;

/// <summary>The shortcut over stretches in which every frame is ready before its slot. There nothing has to be decided: a frame is let in
/// each time that one is shown, and passes its stations one after the other as they come free. So a frame is calculated through all of them
/// at once instead of by events, from the same draws, and what comes out is the same to the tick. It goes on only as long
/// as it is certain that every question of the pacing would be answered "in time", by bounds that are never too small; else the events take
/// over where it stopped.</summary>
public sealed partial class Simulation
{
    /// <summary>Frames of a stretch below which it is not worth its trouble.</summary>
    private const int ShortestStretch = 8;

    /// <summary>Slots after which a stretch is tried again where the last try came to nothing; doubled each time.</summary>
    private const int FirstPause = 4, LongestPause = 128;

    private readonly Way[] ways;
    private int tryFrom;
    private int pause = FirstPause;

    /// <summary>Frames that were calculated without events.</summary>
    public int FramesInStretches { get; private set; }

    /// <summary>Whether it is worth asking if a stretch begins: the frame that was shown last was in time, and those let in are as many as
    /// there may be.</summary>
    private bool MayStretch => presenter.Frame >= tryFrom
        && underWay == Room - 1
        && presenter.Clock is not null
        && presenter.FirstOpen == presenter.Frame
        && nextFrame - presenter.Frame == underWay;

    /// <summary>Frames that may be under way at once.</summary>
    private int Room => settings.LookAhead + PlaybackSettings.DecodeAhead;

    /// <summary>Plays as much of the passage as runs by without a question, from just after a frame was shown to just after another was.
    /// </summary>
    /// <param name="longest">No further than this, in ticks.</param>
    private void Stretch(long longest)
    {
        var passage = frames[(int)presenter.Frame].Passage;
        var end = passageStarts[passage + 1];
        if (end - nextFrame < ShortestStretch || !CanStretch(passage))
        {
            (tryFrom, pause) = ((int)presenter.Frame + pause, Math.Min(LongestPause, 2 * pause));
            return;
        }

        var stretch = new Course(this, passage);
        var played = stretch.Run(end, Math.Min(longest, Math.Min(CoolUntil(), NextDue(passage))));
        if (played >= ShortestStretch)
        {
            pause = FirstPause;
            return;
        }

        (tryFrom, pause) = ((int)presenter.Frame + pause, Math.Min(LongestPause, 2 * pause));
    }

    private bool CanStretch(int passage)
    {
        var aim = aims[passage];
        if (!ways[passage].IsSimple
            || stepper is not null
            || heat is { ClockShare: < 1 }
            || settings.Policy == PlayingPolicy.Unpaced
            || (settings.Policy == PlayingPolicy.KeepTime && (!aim.IsInTime(new TimeSpan(now)) || aim.Effects.Known == 0)))
        {
            return false;
        }

        for (var frame = (int)presenter.Frame; frame < nextFrame; frame++)
        {
            ref var state = ref frames[frame];
            if (state is not { Begun: true, Settled: false, Lost: DropReason.None, LeavesOut: false, RunUp: 0, Left: 0 }
                || state.Passage != passage)
            {
                return false;
            }
        }

        return lastBegun[passage] == nextFrame - 1;
    }

    /// <summary>Until when the clock is certain to stay as it is rated.</summary>
    private long CoolUntil() => heat is null ? Never
        : heat.StaysCoolFor() is { } time ? (long)heatByInterval.Count * BusyLedger.Interval.Ticks + time.Ticks
        : Never;

    /// <summary>Until when the first frame of the next passage is certain not to be begun out of its turn.</summary>
    private long NextDue(int passage) =>
        settings.Policy == PlayingPolicy.KeepTime && passage + 1 < passages.Count && ways[passage + 1].IsSlowToStart
            ? (presenter.Clock!.Value.StartOf(passageStarts[passage + 1]) - Timing.OpenAhead).Ticks - 1
            : Never;

    /// <summary>A passage's visits as numbers.</summary>
    private sealed class Way
    {
        /// <param name="ahead">How long before its slot a frame is begun in its turn.</param>
        public Way(PassageDemand passage, Visit[] visits, int graphics, ServiceSpread spread, TimeSpan ahead)
        {
            Visits = visits;
            Services = [.. visits.Select(visit => visit.Service.Select(service => service.Ticks).ToArray())];
            Stations = [.. visits.Select(visit => (int)visit.Station)];
            FirstEffects = Array.FindIndex(visits, visit => visit.Kind.IsTreatment);
            FirstEffects = FirstEffects < 0 ? visits.Length : FirstEffects;
            var longest = Services.Select(services => spread.Longest(services.Max())).ToList();
            IsSlowToStart = visits.Sum(visit => visit.Service[0].Ticks) > ahead.Ticks;
            LongestDecoding = longest.Take(FirstEffects).Sum();
            LongestEffects = longest.Skip(FirstEffects).Sum();
            // Where a station is gone to twice, or has two servers, frames may pass one another; and the cores that one kind of work takes
            // are missing to the other.
            IsSimple = visits.Length > 0
                && FirstEffects > 0
                && Stations.Distinct().Count() == visits.Length
                && visits.Skip(FirstEffects).All(visit => visit.Kind.IsTreatment)
                && visits.All(visit => visit.Station != Station.DecoderCores
                    && (visit.Station != Station.MediaEngine || passage.Engines == 1)
                    && (visit.Station != Station.Graphics || graphics == 1))
                && !(Stations.Contains((int)Station.Processor) && Stations.Contains((int)Station.OneCore))
                && Services.All(services => services.Min() > 0);
        }

        public bool IsSimple { get; }

        /// <summary>Whether the first frame of the passage takes longer than it has if it is begun in its turn.</summary>
        public bool IsSlowToStart { get; }

        public Visit[] Visits { get; }

        public long[][] Services { get; }

        public int[] Stations { get; }

        /// <summary>The first visit that is for effects; the number of visits when there is none.</summary>
        public int FirstEffects { get; }

        public long LongestDecoding { get; }

        public long LongestEffects { get; }
    }

    /// <summary>One stretch. The visits of the frames that are under way lie in a ring; what is known of each frame, where the events keep
    /// it too.</summary>
    private sealed class Course
    {
        private const long NotHere = long.MinValue;

        private readonly Simulation play;
        private readonly PassageDemand passage;
        private readonly Way way;
        private readonly Aim aim;
        private readonly SlotClock clock;
        private readonly bool keepsTime;
        private readonly int visits;
        private readonly int inRing;
        private readonly int first;
        private readonly int passageStart;
        private readonly long slot;
        private readonly long[] slotEnds;
        private readonly long[] free;
        private readonly long[] starts;
        private readonly long[] ends;
        private readonly int firstUndecoded;
        private readonly int firstUnready;
        private readonly Recent decoding;
        private readonly Recent each;
        private readonly Recent effects;
        private readonly long worthWithin;
        private long now;
        private int next;

        public Course(Simulation play, int index)
        {
            (this.play, passage, way, aim) = (play, play.passages[index], play.ways[index], play.aims[index]);
            (clock, slot) = (play.presenter.Clock!.Value, play.rate.FrameDuration.Ticks);
            keepsTime = play.settings.Policy == PlayingPolicy.KeepTime;
            visits = way.Visits.Length;
            var places = (int)System.Numerics.BitOperations.RoundUpToPowerOf2((uint)play.Room);
            (inRing, slotEnds) = (places - 1, new long[places]);
            (free, starts, ends) = (new long[visits], new long[places * visits], new long[places * visits]);
            (now, next, first, passageStart) = (play.now, play.nextFrame, (int)play.presenter.Frame, play.passageStarts[index]);
            (decoding, each, effects) = (
                new Recent(play.Room, aim.Decoding.Within(1)), new Recent(play.Room, aim.DecodingEach.Within(1)),
                new Recent(play.Room, aim.Effects.Within(1)));
            // From the end of the frame before a frame takes no longer than its own services, since by then every station is free.
            worthWithin = Math.Max(way.LongestDecoding, aim.Decoding.Within(1).Ticks)
                + Math.Max(2 * way.LongestEffects, aim.EffectsBegun.Within(1).Ticks);
            firstUndecoded = FirstOnWay((in FrameState state) => !state.Decoded);
            firstUnready = FirstOnWay((in FrameState state) => state.Ready == Never);
        }

        private delegate bool Asked(in FrameState state);

        /// <param name="end">The frame after the passage's last.</param>
        /// <param name="until">No slot that begins later.</param>
        /// <returns>Frames that were shown.</returns>
        public int Run(int end, long until)
        {
            var (begun, ready) = (first, first);
            if (TakeOver())
            {
                while (next < end)
                {
                    var shown = (int)play.presenter.Frame;
                    var start = slotEnds[(shown - 1) & inRing];
                    while (begun < next && HasBegun(begun))
                    {
                        begun++;
                    }

                    var slotEnd = clock.EndOf(next).Ticks;
                    if (start > until || play.frames[shown].Ready > start
                        || !LetsIn(next - begun, slotEnd) || !Complete(next, now, slotEnd))
                    {
                        break;
                    }

                    next++;
                    now = start;
                    while (ready < next && play.frames[ready].Ready <= now)
                    {
                        ready++;
                    }

                    Show(shown, ready - shown);
                }
            }

            GiveBack();
            return (int)play.presenter.Frame - first;
        }

        private bool HasBegun(int frame) =>
            (way.FirstEffects < visits ? play.frames[frame].EffectsBegan : play.frames[frame].Ready) <= now;

        /// <summary>Frames that are under way already go on from where they are.</summary>
        private bool TakeOver()
        {
            slotEnds[(first - 1) & inRing] = clock.StartOf(first).Ticks;
            for (var visit = 0; visit < visits; visit++)
            {
                var server = play.firstServers[way.Stations[visit]];
                free[visit] = play.serving[server] >= 0 ? play.finishes[server] : now;
            }

            var worth = true;
            for (var frame = first; frame < next; frame++)
            {
                ref var state = ref play.frames[frame];
                var (ring, visit, arrival) = ((frame & inRing) * visits, state.NextVisit, now);
                slotEnds[frame & inRing] = clock.EndOf(frame).Ticks;
                starts.AsSpan(ring, visit).Fill(NotHere);
                ends.AsSpan(ring, visit).Fill(NotHere);
                if (visit < visits && play.serving[play.firstServers[way.Stations[visit]]] == frame)
                {
                    (starts[ring + visit], ends[ring + visit]) = (NotHere, free[visit]);
                    arrival = free[visit++];
                }

                worth &= Pass(frame, ref state, visit, arrival);
            }

            return worth;
        }

        /// <summary>Whether the pacing would let the next frame in, in its turn: never without need, and never falsely.</summary>
        /// <param name="before">Frames whose effects have not begun.</param>
        /// <param name="slotEnd">Of the next frame.</param>
        private bool LetsIn(int before, long slotEnd)
        {
            if (play.frames[next - PlaybackSettings.DecodeAhead].DecodedAt > now)
            {
                return false;
            }

            if (!keepsTime)
            {
                return true;
            }

            var done = now + decoding.Longest + (PlaybackSettings.DecodeAhead + 1) * each.Longest + (before + 2) * effects.Longest
                + (passage.KeyInterval > 1 ? 2 * slot : 0);
            return effects.Longest <= slot && done < slotEnd;
        }

        private bool Complete(int frame, long arrival, long slotEnd)
        {
            slotEnds[frame & inRing] = slotEnd;
            ref var state = ref play.frames[frame];
            state.Begun = true;
            state.Admitted = arrival;
            state.Position = (frame - passageStart) % passage.KeyInterval;
            if (Pass(frame, ref state, 0, arrival))
            {
                return true;
            }

            Withdraw(frame, ref state, NotHere);
            state.Begun = false;
            (state.Admitted, state.Position) = (0, 0);
            return false;
        }

        /// <summary>Takes a frame through the stations that it has not been to.</summary>
        /// <returns>Whether the pacing is certain to find every bit of its work worth doing.</returns>
        private bool Pass(int frame, ref FrameState state, int from, long arrival)
        {
            var (ring, slotEnd, worth) = ((frame & inRing) * visits, slotEnds[frame & inRing], true);
            for (var visit = from; visit < visits; visit++)
            {
                var services = way.Services[visit];
                var mean = services.Length == 1 ? services[0] : services[state.Position % services.Length];
                var start = Math.Max(arrival, free[visit]);
                var service = play.spread.DrawTicks(
                    mean, state.Passage, frame - passageStart, way.Visits[visit].Station, way.Visits[visit].Kind);
                worth &= !keepsTime || (visit < way.FirstEffects && passage.KeyInterval > 1) || start + worthWithin < slotEnd;
                (starts[ring + visit], arrival) = (start, start + service);
                free[visit] = ends[ring + visit] = arrival;
                state.Spend(way.Visits[visit].Kind, service);
                play.Busy.AddTicks(way.Visits[visit].Station, way.Visits[visit].Kind, start, arrival);
            }

            if (!state.Decoded)
            {
                state.DecodedAt = ends[ring + way.FirstEffects - 1];
                decoding.Add(passage.KeyInterval > 1 && state.Position == 0 ? 0 : state.Read + state.Decode);
                each.Add(state.DecodedAt - Math.Max(state.Admitted, frame == firstUndecoded ? play.lastDecoded
                    : play.frames[frame - 1].DecodedAt));
            }

            if (state.EffectsBegan == Never && way.FirstEffects < visits)
            {
                state.EffectsBegan = starts[ring + way.FirstEffects];
            }

            if (state.Ready == Never)
            {
                state.Ready = ends[ring + visits - 1];
                effects.Add(EffectsOf(frame, ref state));
            }

            return worth;
        }

        private long EffectsOf(int frame, ref FrameState state) => way.FirstEffects == visits ? 0
            : state.Ready - Math.Max(state.DecodedAt, ReadyBefore(frame));

        private long ReadyBefore(int frame) => frame == firstUnready ? play.lastFinished : play.frames[frame - 1].Ready;

        private void Show(int frame, int waiting)
        {
            ref var state = ref play.frames[frame];
            var slot = play.presenter.Settle(PresenterDecision.Show(frame, FrameStatus.OnTime), new TimeSpan(now), play.known)[0];
            play.records[frame] = new FrameRecord(
                frame, slot.SlotStart, new TimeSpan(state.Ready), slot.Shown, slot.Status, slot.Reason, new TimeSpan(state.Read),
                new TimeSpan(state.Decode), new TimeSpan(state.Effects), new TimeSpan(now - state.Ready), waiting, state.Scale);
            state.Settled = state.Decoded = true;
            state.NextVisit = visits;
            play.FramesInStretches++;
        }

        /// <summary>Leaves everything as the events would have it at this moment.</summary>
        private void GiveBack()
        {
            foreach (var station in way.Stations)
            {
                var server = play.firstServers[station];
                (play.serving[server], play.finishes[server]) = (-1, Never);
                play.queues[station].Clear();
            }

            play.beforeEffects.Clear();
            (play.undecoded, play.inEffects, play.readyWaiting) = (0, 0, 0);
            for (var frame = (int)play.presenter.Frame; frame < next; frame++)
            {
                ref var state = ref play.frames[frame];
                Withdraw(frame, ref state, now);
                Stand(frame, ref state);
            }

            play.now = now;
            (play.nextFrame, play.underWay) = (next, next - (int)play.presenter.Frame);
            play.lastBegun[play.frames[next - 1].Passage] = next - 1;
            aim.ContinueFrom(next - 1);
            Learn();
            play.PassHeat(now);
        }

        /// <summary>Takes back the visits that had not begun by a moment.</summary>
        private void Withdraw(int frame, ref FrameState state, long by)
        {
            var ring = (frame & inRing) * visits;
            for (var visit = visits - 1; visit >= 0 && starts[ring + visit] > by; visit--)
            {
                var (station, kind) = (way.Visits[visit].Station, way.Visits[visit].Kind);
                var (start, end) = (starts[ring + visit], ends[ring + visit]);
                state.Spend(kind, start - end);
                play.Busy.AddTicks(station, kind, start, end, -1);
            }

            state.EffectsBegan = state.EffectsBegan > by ? Never : state.EffectsBegan;
            state.Ready = state.Ready > by ? Never : state.Ready;
            state.Decoded = state.DecodedAt > 0 && state.DecodedAt <= by;
            state.DecodedAt = state.Decoded ? state.DecodedAt : 0;
        }

        /// <summary>Puts a frame where it is at this moment.</summary>
        private void Stand(int frame, ref FrameState state)
        {
            var (ring, visit) = ((frame & inRing) * visits, 0);
            while (visit < visits && ends[ring + visit] <= now)
            {
                visit++;
            }

            state.NextVisit = visit;
            play.undecoded += state.Decoded ? 0 : 1;
            if (visit == visits)
            {
                play.readyWaiting++;
                return;
            }

            if (state.EffectsBegan == Never)
            {
                play.beforeEffects.Add(frame);
            }
            else
            {
                play.inEffects++;
            }

            if (starts[ring + visit] <= now)
            {
                var server = play.firstServers[way.Stations[visit]];
                (play.serving[server], play.finishes[server]) = (frame, ends[ring + visit]);
            }
            else
            {
                play.queues[way.Stations[visit]].Enqueue(frame);
            }
        }

        /// <summary>Tells the aim how long things took, as far back as it remembers.</summary>
        private void Learn()
        {
            const int Back = 2 * Durations.Remembered;
            var (undecoded, unready) = (next - play.undecoded, (int)play.presenter.Frame + play.readyWaiting);
            for (var frame = Math.Max(firstUndecoded, undecoded - Back); frame < undecoded; frame++)
            {
                ref var state = ref play.frames[frame];
                if (passage.KeyInterval == 1 || state.Position > 0)
                {
                    var before = frame == firstUndecoded ? play.lastDecoded : play.frames[frame - 1].DecodedAt;
                    aim.Decoding.Add(DecodingOf(frame, ref state));
                    aim.DecodingEach.Add(new TimeSpan(state.DecodedAt - Math.Max(state.Admitted, before)));
                }
            }

            LearnStarting(undecoded);
            for (var frame = Math.Max(firstUnready, unready - Back); frame < unready; frame++)
            {
                ref var state = ref play.frames[frame];
                aim.Effects.Add(new TimeSpan(EffectsOf(frame, ref state)));
                aim.EffectsBegun.Add(way.FirstEffects == visits ? TimeSpan.Zero : new TimeSpan(state.Ready - state.EffectsBegan));
            }

            if (undecoded > firstUndecoded)
            {
                play.lastDecoded = play.frames[undecoded - 1].DecodedAt;
            }

            if (unready > firstUnready)
            {
                play.lastFinished = play.frames[unready - 1].Ready;
            }

            NoteEffects(unready);
        }

        private void LearnStarting(int undecoded)
        {
            if (passage.KeyInterval == 1)
            {
                return;
            }

            var back = Math.Max(firstUndecoded, undecoded - (Durations.Remembered + 1) * passage.KeyInterval) - passageStart;
            var frame = (back + passage.KeyInterval - 1) / passage.KeyInterval * passage.KeyInterval + passageStart;
            for (; frame < undecoded; frame += passage.KeyInterval)
            {
                aim.StartingAfresh.Add(DecodingOf(frame, ref play.frames[frame]));
            }
        }

        /// <summary>Reading and decoding alone: what a frame spends on effects is kept apart.</summary>
        private static TimeSpan DecodingOf(int frame, ref FrameState state) => new(state.Read + state.Decode);

        /// <summary>When effects last began or ended.</summary>
        private void NoteEffects(int unready)
        {
            if (way.FirstEffects == visits)
            {
                return;
            }

            if (unready > firstUnready)
            {
                play.effectsSince = Math.Max(play.effectsSince, play.frames[unready - 1].Ready);
            }

            for (var frame = unready - 1; frame < next; frame++)
            {
                var began = frame < first ? Never : play.frames[frame].EffectsBegan;
                play.effectsSince = began == Never ? play.effectsSince : Math.Max(play.effectsSince, began);
            }
        }

        private int FirstOnWay(Asked asked)
        {
            var frame = first;
            while (frame < next && !asked(in play.frames[frame]))
            {
                frame++;
            }

            return frame;
        }
    }

    /// <summary>The longest of the last durations: of so many at least as the aim remembers of frames that are under way or were.</summary>
    private sealed class Recent(int room, TimeSpan before)
    {
        private readonly int block = Math.Max(64, room + Durations.Remembered);
        private long earlier = before.Ticks;
        private long current;
        private int count;

        public long Longest => Math.Max(earlier, current);

        public void Add(long ticks)
        {
            current = Math.Max(current, ticks);
            if (++count == block)
            {
                (earlier, current, count) = (current, 0, 0);
            }
        }
    }
}
