using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;

namespace HardyBench.Core.StandIns;

/// <summary>Plays passages on stations by discrete events. Frames queue first come, first served; a bounded number is
/// under way at once; the presenter and the drop decisions are the very ones that a real run uses.</summary>
public sealed partial class Simulation
{
    private const long Never = long.MaxValue;

    /// <summary>What is left for shared work where more cores are asked for than there are: they take turns.</summary>
    private const double MinCores = 0.5;

    /// <summary>A decoder has the data of so many frames beyond the one it returns: what is skipped among them was decoded before it could
    /// be left out. Measured of a frame-threaded AVC decoder.</summary>
    private const int FramesHeld = 4;

    private static readonly int StationCount = Enum.GetValues<Station>().Length;

    private readonly IReadOnlyList<PassageDemand> passages;
    private readonly Dictionary<PreviewScale, Visit[][]> visits;
    private readonly ScaleStepper? stepper;
    private readonly int[] passageStarts;
    private readonly FrameRate rate;
    private readonly PlaybackSettings settings;
    private readonly ServiceSpread spread;
    private readonly Heat? heat;
    private readonly int cores;
    private readonly double othersShare;
    private readonly Presenter presenter;
    private readonly DecisionLog? decisions;
    private readonly SimulatedFrames known;
    private readonly FrameState[] frames;
    private readonly FrameRecord[] records;
    private readonly Queue<int>[] queues;
    private readonly Station[] servers;
    private readonly int[] firstServers;
    private readonly int[] serving;
    private readonly long[] finishes;
    private readonly Aim[] aims;
    private readonly int[] lastBegun;
    private readonly List<int> beforeEffects = [];
    private readonly List<(double Celsius, double ClockShare, double Watts)> heatByInterval = [];
    private long now;
    private int nextFrame;
    private int underWay;
    private int undecoded;
    private int inEffects;
    private long lastDecoded;
    private long lastFinished;
    private long effectsSince;
    private int readyWaiting;
    private long startLag = Never;

    /// <param name="passages">What each passage asks.</param>
    /// <param name="cores">Cores of the processor. While one works alone the others go on with what is shared out.</param>
    /// <param name="graphics">Graphics units that share frames out among them.</param>
    /// <param name="smaller">With the automatic scale: the same at each smaller scale; null without.</param>
    /// <param name="othersShare">The part of the processor that other programs take while nothing is played, 0 to 1: it heats, too.</param>
    /// <param name="decisions">Takes every decision, which is known only where it is played event by event; null for none.</param>
    /// <param name="everyEvent">Whether stretches without a question are played event by event too; what comes out is the same.</param>
    public Simulation(
        IReadOnlyList<PassageDemand> passages, FrameRate rate, PlaybackSettings settings, ServiceSpread spread, Heat? heat, int cores = 1,
        int graphics = 1, IReadOnlyDictionary<PreviewScale, IReadOnlyList<PassageDemand>>? smaller = null,
        double othersShare = 0, bool everyEvent = false, DecisionLog? decisions = null)
    {
        this.decisions = decisions;
        (this.passages, this.rate, this.settings, this.spread, this.heat, this.cores) = (passages, rate, settings, spread, heat, cores);
        this.othersShare = othersShare;
        visits = new Dictionary<PreviewScale, Visit[][]> { [settings.Scale] = [.. passages.Select(passage => passage.Visits.ToArray())] };
        foreach (var (scale, demands) in smaller ?? new Dictionary<PreviewScale, IReadOnlyList<PassageDemand>>())
        {
            visits[scale] = [.. demands.Select(demand => demand.Visits.ToArray())];
        }

        stepper = smaller is null ? null : new ScaleStepper(settings.Scale, rate);
        passageStarts = new int[passages.Count + 1];
        for (var i = 0; i < passages.Count; i++)
        {
            passageStarts[i + 1] = passageStarts[i] + passages[i].FrameCount;
        }

        presenter = new Presenter(rate, settings.Policy, [.. passageStarts.Skip(1).Select(start => (long)start)]);
        known = new SimulatedFrames(this);
        frames = new FrameState[passageStarts[^1]];
        records = new FrameRecord[frames.Length];
        queues = [.. Enumerable.Range(0, StationCount).Select(_ => new Queue<int>())];
        servers = [.. Enum.GetValues<Station>().SelectMany(station => Enumerable.Repeat(station, ServersOf(station, graphics)))];
        firstServers = [.. Enumerable.Range(0, StationCount + 1).Select(station => servers.Count(server => (int)server < station))];
        serving = [.. Enumerable.Repeat(-1, servers.Length)];
        finishes = [.. Enumerable.Repeat(Never, servers.Length)];
        aims = new Aim[passages.Count];
        var ahead = rate.StartOf(settings.LookAhead);
        ways = [.. passages.Select((passage, index) => new Way(passage, visits[settings.Scale][index], graphics, spread, ahead))];
        tryFrom = everyEvent || decisions is not null ? int.MaxValue : 0;
        lastBegun = [.. passageStarts.Select(start => start - 1)];
        for (var i = 0; i < passages.Count; i++)
        {
            aims[i] = new Aim(
                rate, passageStarts[i], passageStarts[i + 1], new Gops(passageStarts[i], passageStarts[i + 1], passages[i].KeyInterval));
            frames
                .AsSpan(passageStarts[i], passages[i].FrameCount)
                .Fill(
                    new FrameState
                    {
                        Passage = i,
                        Ready = Never,
                        EffectsBegan = Never,
                        Way = visits[settings.Scale][i],
                        Scale = settings.Scale,
                    }
                );
        }
    }

    /// <summary>One a slot; filled by <see cref="Play"/>.</summary>
    public IReadOnlyList<FrameRecord> Records => records;

    /// <summary>How long every station worked, by interval; filled by <see cref="Play"/>.</summary>
    public BusyLedger Busy { get; } = new();

    /// <summary>Temperature and clock at the end of each interval, and the power drawn in it; empty without heat.</summary>
    public IReadOnlyList<(double Celsius, double ClockShare, double Watts)> HeatByInterval => heatByInterval;

    /// <summary>From the key to the first frame shown, or null when none was.</summary>
    public TimeSpan? StartLag => startLag == Never ? null : new TimeSpan(startLag);

    /// <summary>When the last slot was settled.</summary>
    public TimeSpan End => new(now);

    /// <summary>Plays everything and returns one record a slot.</summary>
    /// <param name="longest">The most time that it may take by its own clock; null for any.</param>
    /// <exception cref="PlanRefusedException">It takes longer.</exception>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    public IReadOnlyList<FrameRecord> Play(TimeSpan? longest = null, CancellationToken stop = default)
    {
        while (presenter.Frame < frames.Length)
        {
            stop.ThrowIfCancellationRequested();
            if (now > longest?.Ticks)
            {
                throw new PlanRefusedException(
                    $"After {longest.Value.TotalHours:0.0} hours this machine would be at frame {presenter.Frame} of "
                        + $"{frames.Length}. Choose keep time, or describe a faster machine."
                );
            }

            Admit();
            ref var state = ref frames[presenter.Frame];
            var decision = presenter.Decide(new TimeSpan(now), known);
            if (presenter.Clock is null && state.Ready != Never && !PreRoll.IsDone(
                readyWaiting, settings.LookAhead, frames.Length, new TimeSpan(now - state.Ready)))
            {
                Advance(Math.Min(state.Ready + PreRoll.Longest.Ticks, NextFinish()));
            }
            else if (decision.Act == PresenterAct.Wait)
            {
                Advance(Math.Min(decision.Until.Ticks, NextFinish()));
            }
            else
            {
                Settle(decision);
                if (MayStretch)
                {
                    Stretch(longest?.Ticks ?? Never);
                }
            }
        }

        return records;
    }

    private void Settle(PresenterDecision decision)
    {
        var passage = frames[presenter.Frame].Passage;
        foreach (var slot in presenter.Settle(decision, new TimeSpan(now), known))
        {
            Record(slot);
        }

        if (IsOver(passage))
        {
            Abandon(passage);
            stepper?.Reset();
        }
    }

    private void Record(SettledSlot slot)
    {
        ref var state = ref frames[slot.Frame];
        var wasReady = state.Ready != Never;
        decisions?.Settled(new TimeSpan(now), slot);
        startLag = slot.Shown is null ? startLag : Math.Min(startLag, now);
        records[slot.Frame] = new FrameRecord(
            (int)slot.Frame,
            slot.SlotStart,
            wasReady ? new TimeSpan(state.Ready) : null,
            slot.Shown,
            slot.Status,
            slot.Reason,
            new TimeSpan(state.Read),
            new TimeSpan(state.Decode),
            new TimeSpan(state.Effects),
            wasReady ? new TimeSpan(now - state.Ready) : TimeSpan.Zero,
            readyWaiting,
            state.Scale);
        // What was begun at another scale says nothing of this one.
        if (stepper is not null
            && state.Scale == stepper.Scale
            && stepper.Observe(slot.Status.IsMissed()))
        {
            aims[state.Passage].ForgetEffects();
        }

        state.Settled = true;
        readyWaiting -= wasReady ? 1 : 0;
        underWay -= wasReady ? 1 : 0;
    }

    /// <summary>Whether every slot of a passage is settled: nothing of it can be seen any more.</summary>
    private bool IsOver(int passage) => presenter.Frame >= passageStarts[passage + 1];

    /// <summary>The decoders of a passage that is over are closed: they finish the frame that they work on, and none that they were to run
    /// up through.</summary>
    private void Abandon(int passage)
    {
        for (var server = 0; server < servers.Length; server++)
        {
            if (serving[server] is >= 0 and var frame && frames[frame].Passage == passage)
            {
                ref var state = ref frames[frame];
                var visit = state.Way[state.NextVisit];
                var until = now + ((state.Read + state.Decode) / (state.DecodedBefore + 1));
                if (!visit.Kind.IsTreatment && until < finishes[server])
                {
                    Busy.AddTicks(
                        visit.Station, visit.Kind, until, finishes[server], sign: -1,
                        visit.Station == Station.DecoderCores ? passages[passage].CoresDecoding : 0);
                    finishes[server] = until;
                }
            }
        }
    }

    /// <summary>Lets frames in while there is room, past those that could not be seen in time.</summary>
    private void Admit()
    {
        while (nextFrame < frames.Length
            && underWay < settings.LookAhead + PlaybackSettings.DecodeAhead
            && undecoded < PlaybackSettings.DecodeAhead)
        {
            var passage = frames[nextFrame].Passage;
            var (aim, clock) = (aims[passage], settings.Policy == PlayingPolicy.KeepTime ? presenter.Clock : null);
            if (clock is { } known && IsNextDue(aim, known, passage + 1))
            {
                frames[passageStarts[passage + 1]].IsOutOfTurn = true;
                Begin(passageStarts[passage + 1], leavesOut: false);
                continue;
            }

            var before = BeforeEffects(aim, clock);
            var underWayNow = new WorkInProgress(
                undecoded, new TimeSpan(lastDecoded), before, inEffects > 0 ? new TimeSpan(effectsSince) : null);
            var choice = aim.Next(new TimeSpan(now), clock, underWayNow);
            decisions?.Chosen(new TimeSpan(now), choice, aim, clock, underWayNow);
            DropUntil((int)Math.Min(choice.Frame, frames.Length), choice.Reason);
            if (choice.Frame < passageStarts[passage + 1])
            {
                Begin(nextFrame++, choice.LeavesOut);
            }

            if (nextFrame < frames.Length && frames[nextFrame].Begun)
            {
                aims[frames[nextFrame].Passage].ContinueFrom(nextFrame++);
            }
        }
    }

    /// <summary>Frames before effects that are still worth any.</summary>
    private int BeforeEffects(Aim aim, SlotClock? clock)
    {
        if (clock is not { } known)
        {
            return beforeEffects.Count;
        }

        var (worth, effects) = (0, aim.Effects.Mean);
        foreach (var frame in beforeEffects)
        {
            worth += Timing.IsWorthTreating(new TimeSpan(now), effects, known.EndOf(frame)) ? 1 : 0;
        }

        return worth;
    }

    /// <summary>Whether the first frame of the next passage has to be begun before the last ones of this.</summary>
    private bool IsNextDue(Aim aim, SlotClock clock, int next) =>
        next < passages.Count
        && !frames[passageStarts[next]].Begun
        && (aim.IsBehind || ways[next].IsSlowToStart)
        && Timing.IsNextDue(new TimeSpan(now), aim.IsBehind ? aim.Way : TimeSpan.Zero, clock.StartOf(passageStarts[next]));

    private void Begin(int frame, bool leavesOut)
    {
        ref var state = ref frames[frame];
        state.Begun = true;
        state.Position = (frame - passageStarts[state.Passage]) % passages[state.Passage].KeyInterval;
        state.RunUp = RunUpTo(frame, state.Position);
        state.LeavesOut = leavesOut;
        state.Admitted = now;
        lastBegun[state.Passage] = frame;
        if (stepper is not null && state.Passage == frames[Math.Max(0, presenter.Frame - 1)].Passage)
        {
            (state.Scale, state.Way) = (stepper.Scale, visits[stepper.Scale][state.Passage]);
        }

        decisions?.Add(new Decision(new TimeSpan(now), DecisionAct.Begun, frame));
        underWay++;
        undecoded++;
        beforeEffects.Add(frame);
        Arrive(frame);
    }

    /// <summary>How many frames before one have to be decoded for it and were not: those of its GOP since the last one that was
    /// begun.</summary>
    private int RunUpTo(int frame, int position)
    {
        var passage = frames[frame].Passage;
        return Math.Min(position, frame - 1 - lastBegun[passage]);
    }

    private void DropUntil(int from, DropReason reason)
    {
        for (; nextFrame < from; nextFrame++)
        {
            frames[nextFrame].Lost = reason;
            frames[nextFrame].Scale = stepper?.Scale ?? settings.Scale;
        }
    }

    /// <summary>When the next service ends.</summary>
    private long NextFinish()
    {
        var next = Never;
        foreach (var finish in finishes)
        {
            next = Math.Min(next, finish);
        }

        return next;
    }

    /// <summary>Moves time on and finishes every service that ends by then.</summary>
    private void Advance(long until)
    {
        if (until == Never)
        {
            throw new InvalidOperationException($"The simulation is stuck at frame {presenter.Frame}.");
        }

        PassHeat(until);
        now = Math.Max(now, until);
        for (var server = 0; server < servers.Length; server++)
        {
            if (finishes[server] <= now)
            {
                Finish(server);
            }
        }
    }

    private int ServersOf(Station station, int graphics) => station switch
    {
        Station.MediaEngine => passages.Max(passage => passage.Engines),
        Station.Graphics => graphics,
        Station.Heat or Station.Power => 0,
        _ => 1,
    };

    private void Finish(int server)
    {
        var frame = serving[server];
        serving[server] = -1;
        finishes[server] = Never;
        if (frames[frame].Left > 0)
        {
            SkipUpTo(queues[(int)servers[server]], frame);
        }
        else
        {
            frames[frame].NextVisit++;
            Arrive(frame);
        }

        ServeNext((int)servers[server]);
    }

    /// <summary>Puts a frame behind those of the passage before it, and before those of its own.</summary>
    private static void SkipUpTo(Queue<int> queue, int frame)
    {
        var waiting = queue.Append(frame).OrderBy(other => other > frame ? 2 : other == frame ? 1 : 0).ToList();
        queue.Clear();
        waiting.ForEach(queue.Enqueue);
    }

    /// <summary>A server of a station that has nothing to do, and that the next frame of its queue may go to; −1 without one.</summary>
    private int FreeServer(int station)
    {
        var (first, end) = (firstServers[station], firstServers[station + 1]);
        if ((Station)station == Station.MediaEngine && end - first > 1 && queues[station].TryPeek(out var next))
        {
            end = Math.Min(end, first + passages[frames[next].Passage].Engines);
        }

        for (var server = first; server < end; server++)
        {
            if (serving[server] < 0)
            {
                return server;
            }
        }

        return -1;
    }

    /// <summary>A frame comes to its next station, or is ready when there is none left.</summary>
    private void Arrive(int frame)
    {
        ref var state = ref frames[frame];
        var way = state.Way;
        if (!state.Decoded && (state.NextVisit == way.Length || way[state.NextVisit].Kind.IsTreatment))
        {
            (state.Decoded, state.DecodedAt) = (true, now);
            undecoded--;
            LearnDecoding(ref state);
            decisions?.Add(new Decision(new TimeSpan(now), DecisionAct.Decoded, frame));
        }

        if (state.NextVisit < way.Length)
        {
            var station = (int)way[state.NextVisit].Station;
            queues[station].Enqueue(frame);
            ServeNext(station);
            return;
        }

        var hasEffects = way.Length > 0 && way[^1].Kind.IsTreatment;
        if (hasEffects)
        {
            inEffects--;
            effectsSince = now;
        }
        else
        {
            beforeEffects.Remove(frame);
        }

        LearnEffects(ref state, hasEffects);
        decisions?.Add(new Decision(new TimeSpan(now), DecisionAct.Finished, frame));
        if (state.Settled)
        {
            underWay--;
            return;
        }

        state.Ready = now;
        readyWaiting++;
    }

    private void LearnEffects(ref FrameState state, bool hasEffects)
    {
        var (aim, freeSince) = (aims[state.Passage], lastFinished);
        lastFinished = now;

        // Those that set out at another scale say nothing of this one.
        if (stepper is null || state.Scale == stepper.Scale)
        {
            aim.Effects.Add(hasEffects ? new TimeSpan(now - Math.Max(state.DecodedAt, freeSince)) : TimeSpan.Zero);
            aim.EffectsBegun.Add(hasEffects ? new TimeSpan(now - state.EffectsBegan) : TimeSpan.Zero);
        }
    }

    private void LearnDecoding(ref FrameState state)
    {
        var aim = aims[state.Passage];
        if (passages[state.Passage].KeyInterval > 1 && state.Position == 0)
        {
            // A frame that stands alone costs far more than those after it, which are what decoding goes on with.
            aim.StartingAfresh.Add(new TimeSpan(state.Read + state.Decode));
        }
        else
        {
            if (state.DecodedBefore == 0)
            {
                aim.Decoding.Add(new TimeSpan(state.Read + state.Decode));
            }

            aim.DecodingEach.Add(new TimeSpan(now - Math.Max(state.Admitted, lastDecoded)) / (state.DecodedBefore + 1));
        }

        if (state.LeavesOut && state.Position > 0)
        {
            aim.Advancing.Add(new TimeSpan(Math.Max(state.Read, state.Decode)) / (state.RunUp + 1));
        }

        lastDecoded = now;
    }

    private void ServeNext(int station)
    {
        while (FreeServer(station) is >= 0 and var server && queues[station].TryDequeue(out var frame))
        {
            ref var state = ref frames[frame];
            var visit = state.Way[state.NextVisit];
            if (!IsWorthGoingOn(frame, visit, ref state))
            {
                GiveUp(frame, visit, ref state);
                continue;
            }

            if (visit.Kind.IsTreatment && state.EffectsBegan == Never)
            {
                (state.EffectsBegan, effectsSince) = (now, now);
                beforeEffects.Remove(frame);
                inEffects++;
            }

            var service = Turn(ref state, state.Left > 0 ? state.Left : ServiceOf(visit, frame, ref state));
            serving[server] = frame;
            finishes[server] = now + service;
            state.Spend(visit.Kind, service);
            Busy.Add(
                visit.Station, visit.Kind, new TimeSpan(now), new TimeSpan(now + service),
                visit.Station == Station.DecoderCores ? passages[state.Passage].CoresDecoding : 0);
        }
    }

    /// <summary>A frame of the next passage that is begun out of its turn shares a station with those of this one: it works for a quarter
    /// of a slot at a time.</summary>
    private long Turn(ref FrameState state, long service)
    {
        var shares = state.IsOutOfTurn && presenter.Frame < passageStarts[state.Passage];
        var turn = shares ? Math.Min(service, rate.FrameDuration.Ticks / 4) : service;
        state.Left = service - turn;
        return turn;
    }

    private long ServiceOf(Visit visit, int frame, ref FrameState state)
    {
        var service = Draw(visit, frame, 0, ref state);
        if (visit.Kind is VisitKind.Read or VisitKind.Decode)
        {
            var first = state.Position - state.RunUp;
            for (var position = first; position < state.Position; position++)
            {
                var isHeld = !state.LeavesOut && position < first + FramesHeld;
                if (isHeld || DecodeCost.IsReferenced(position, passages[state.Passage].KeyInterval))
                {
                    service += Draw(visit, frame, state.Position - position, ref state);
                    state.DecodedBefore += visit.Kind == VisitKind.Decode ? 1 : 0;
                }
            }
        }

        if (visit.Station == Station.Processor && CoresTaken() is > 0 and var taken)
        {
            service = (long)(service * cores / Math.Max(MinCores, cores - taken));
        }

        return visit.Station is Station.Processor or Station.OneCore or Station.DecoderCores && heat is not null
            ? (long)(service / heat.ClockShare)
            : service;
    }

    /// <summary>Cores of the processor that work by themselves on what is not shared out.</summary>
    private double CoresTaken()
    {
        var decoding = serving[firstServers[(int)Station.DecoderCores]];
        return (cores > 1 && serving[firstServers[(int)Station.OneCore]] >= 0 ? 1 : 0)
            + (decoding >= 0 ? passages[frames[decoding].Passage].CoresDecoding : 0);
    }

    /// <param name="before">How many frames before this one is meant.</param>
    private long Draw(Visit visit, int frame, int before, ref FrameState state)
    {
        var mean = visit.Service[visit.Service.Count == 1 ? 0 : (state.Position - before) % visit.Service.Count];
        return spread.DrawTicks(
            mean.Ticks, state.Passage, frame - before - passageStarts[state.Passage], visit.Station, visit.Kind);
    }

    /// <summary>Whether a frame can still be seen, by the mean times of its work. What others depend on is decoded in any case.</summary>
    private bool IsWorthGoingOn(int frame, Visit visit, ref FrameState state)
    {
        if (IsOver(state.Passage))
        {
            return false;
        }

        if (settings.Policy != PlayingPolicy.KeepTime || presenter.Clock is not { } clock
            || (!visit.Kind.IsTreatment && passages[state.Passage].KeyInterval > 1))
        {
            return true;
        }

        var aim = aims[state.Passage];
        var left = Left(aim.Decoding, state.Read + state.Decode) + Left(aim.EffectsBegun, state.Effects);
        return !state.Settled && Timing.IsWorthTreating(new TimeSpan(now), left, clock.EndOf(frame));
    }

    private static TimeSpan Left(Durations work, long spent) => new(Math.Max(0, work.Mean.Ticks - spent));

    private void GiveUp(int frame, Visit visit, ref FrameState state)
    {
        underWay--;
        beforeEffects.Remove(frame);
        if (visit.Kind == VisitKind.Copy || (visit.Kind == VisitKind.Decode && aims[state.Passage].Decoding.Known == 0))
        {
            // It was decoded anyway, or read at least. Where every frame so far came too late, nothing else would tell how far ahead
            // to aim.
            LearnDecoding(ref state);
        }

        if (!visit.Kind.IsTreatment)
        {
            undecoded--;
            state.Lost = DropReason.PassedOver;
        }
        else
        {
            inEffects -= state.EffectsBegan == Never ? 0 : 1;
            state.Lost = DropReason.EffectsSkipped;
        }

        decisions?.Add(new Decision(new TimeSpan(now), DecisionAct.GivenUp, frame) { Reason = state.Lost });
    }

    private void PassHeat(long until)
    {
        if (heat is null)
        {
            return;
        }

        for (var next = heatByInterval.Count; (next + 1L) * BusyLedger.Interval.Ticks <= until; next++)
        {
            heat.Pass(BusyLedger.Interval, Math.Min(1, BusyLedger.WithOthers(Busy.ProcessorShare(next, cores), othersShare)));
            heatByInterval.Add((heat.Celsius, heat.ClockShare, heat.Watts));
        }
    }

    private struct FrameState
    {
        public int Passage;
        public Visit[] Way;
        public PreviewScale Scale;
        public int Position;
        public int NextVisit;
        public long Admitted;
        public long Ready;
        public long Read;
        public long Decode;
        public long Effects;

        /// <summary>Of the visit under way, what is left after this turn.</summary>
        public long Left;
        public int RunUp;
        public int DecodedBefore;
        public bool LeavesOut;
        public bool Begun;
        public bool IsOutOfTurn;
        public long EffectsBegan;
        public bool Decoded;
        public long DecodedAt;
        public bool Settled;
        public DropReason Lost;

        public void Spend(VisitKind kind, long service)
        {
            switch (kind)
            {
                case VisitKind.Read:
                    Read += service;
                    break;
                case VisitKind.Decode or VisitKind.Copy:
                    Decode += service;
                    break;
                default:
                    Effects += service;
                    break;
            }
        }
    }

    private sealed class SimulatedFrames(Simulation play) : ITreatedFrames
    {
        public TimeSpan? ReadyAt(long frame) => play.frames[frame].Ready is var ready && ready != Never ? new TimeSpan(ready) : null;

        public DropReason LostOf(long frame) => play.frames[frame].Lost;
    }

    /// <summary>A passage always begins on a frame that stands alone.</summary>
    private sealed class Gops(int start, int end, int interval) : IReferences
    {
        public bool StandAlone => interval == 1;

        public long FirstFrom(long frame) =>
            frame >= end ? end : Math.Min(end, start + (frame - start + interval - 1) / interval * interval);

        public long ReferencedFrom(long frame) =>
            frame < end && !DecodeCost.IsReferenced((int)((frame - start) % interval), interval) ? frame + 1 : frame;
    }
}
