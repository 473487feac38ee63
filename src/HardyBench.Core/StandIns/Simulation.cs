using HardyBench.Core.Footage;
using HardyBench.Core.Playback;

namespace HardyBench.Core.StandIns;

/// <summary>Plays passages on stations by discrete events. Frames queue first come, first served; a bounded number is
/// under way at once; the presenter and the drop decisions are the very ones that a real run uses.</summary>
public sealed class Simulation : IKeyFrames
{
    private const long Never = long.MaxValue;
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
    private readonly Presenter presenter;
    private readonly FrameState[] frames;
    private readonly FrameRecord[] records;
    private readonly Queue<int>[] queues;
    private readonly int[] serving;
    private readonly long[] finishes;
    private readonly DurationEstimate[] expectedDecoding;
    private readonly DurationEstimate[] expectedEffects;
    private readonly List<(double Celsius, double ClockShare)> heatByInterval = [];
    private Behind behind;
    private long now;
    private int nextFrame;
    private int underWay;
    private int undecoded;
    private int readyWaiting;
    private long startLag = Never;

    /// <param name="passages">What each passage asks.</param>
    /// <param name="cores">Cores of the processor. While one works alone the others go on with what is shared out.</param>
    /// <param name="smaller">With the automatic scale: the same at each smaller scale; null without.</param>
    public Simulation(
        IReadOnlyList<PassageDemand> passages, FrameRate rate, PlaybackSettings settings, ServiceSpread spread, Heat? heat, int cores = 1,
        IReadOnlyDictionary<PreviewScale, IReadOnlyList<PassageDemand>>? smaller = null)
    {
        (this.passages, this.rate, this.settings, this.spread, this.heat, this.cores) = (passages, rate, settings, spread, heat, cores);
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

        presenter = new Presenter(rate, settings.Policy);
        frames = new FrameState[passageStarts[^1]];
        records = new FrameRecord[frames.Length];
        queues = [.. Enumerable.Range(0, StationCount).Select(_ => new Queue<int>())];
        serving = [.. Enumerable.Repeat(-1, StationCount)];
        finishes = [.. Enumerable.Repeat(Never, StationCount)];
        expectedDecoding = new DurationEstimate[passages.Count];
        expectedEffects = new DurationEstimate[passages.Count];
        for (var i = 0; i < passages.Count; i++)
        {
            frames.AsSpan(passageStarts[i], passages[i].FrameCount).Fill(new FrameState { Passage = i, Ready = Never, Way = visits[settings.Scale][i], Scale = settings.Scale });
        }
    }

    /// <summary>How long every station worked, by interval; filled by <see cref="Play"/>.</summary>
    public BusyLedger Busy { get; } = new();

    /// <summary>Temperature and clock at the end of each interval; empty without heat.</summary>
    public IReadOnlyList<(double Celsius, double ClockShare)> HeatByInterval => heatByInterval;

    /// <summary>From the key to the first frame shown, or null when none was.</summary>
    public TimeSpan? StartLag => startLag == Never ? null : new TimeSpan(startLag);

    /// <summary>When the last slot was settled.</summary>
    public TimeSpan End => new(now);

    /// <summary>Plays everything and returns one record a slot.</summary>
    public IReadOnlyList<FrameRecord> Play()
    {
        while (presenter.Frame < frames.Length)
        {
            Admit();
            ref var state = ref frames[presenter.Frame];
            var decision = presenter.Decide(
                new TimeSpan(now), state.Ready == Never ? null : new TimeSpan(state.Ready), state.Lost);
            if (presenter.Clock is null && state.Ready != Never && !PreRoll.IsDone(
                readyWaiting, settings.LookAhead, frames.Length, new TimeSpan(now - state.Ready)))
            {
                Advance(Math.Min(state.Ready + PreRoll.Longest.Ticks, finishes.Min()));
            }
            else if (decision.Act == PresenterAct.Wait)
            {
                Advance(Math.Min(decision.Until.Ticks, finishes.Min()));
            }
            else
            {
                Settle(decision, ref state);
            }
        }

        return records;
    }

    private void Settle(PresenterDecision decision, ref FrameState state)
    {
        var frame = (int)presenter.Frame;
        var shown = decision.Act == PresenterAct.Show;
        var slotStart = presenter.Settle(decision, new TimeSpan(now));
        var wasReady = state.Ready != Never;
        startLag = shown ? Math.Min(startLag, now) : startLag;
        records[frame] = new FrameRecord(
            frame,
            slotStart,
            wasReady ? new TimeSpan(state.Ready) : null,
            shown ? new TimeSpan(now) : null,
            decision.Status,
            decision.Reason,
            new TimeSpan(state.Read),
            new TimeSpan(state.Decode),
            new TimeSpan(state.Effects),
            wasReady ? new TimeSpan(now - state.Ready) : TimeSpan.Zero,
            readyWaiting,
            state.Scale);
        stepper?.Observe(decision.Status == FrameStatus.Dropped);
        if (stepper is not null && frame + 1 < frames.Length && frames[frame + 1].Passage != state.Passage)
        {
            stepper.Reset();
        }

        state.Settled = true;
        readyWaiting -= wasReady ? 1 : 0;
        underWay -= wasReady ? 1 : 0;
    }

    /// <summary>Lets frames in while there is room, leaping over those that could not be seen in time.</summary>
    private void Admit()
    {
        while (nextFrame < frames.Length
            && underWay < settings.LookAhead + PlaybackSettings.DecodeAhead
            && undecoded < PlaybackSettings.DecodeAhead)
        {
            var catchUp = CatchUp();
            LoseUntil((int)Math.Min(catchUp.From, frames.Length));
            if (nextFrame == frames.Length)
            {
                return;
            }

            var frame = nextFrame++;
            ref var state = ref frames[frame];
            var keyInterval = passages[state.Passage].KeyInterval;
            var position = (frame - passageStarts[state.Passage]) % keyInterval;
            if (catchUp.SkipUnreferenced && !DecodeCost.IsReferenced(position, keyInterval))
            {
                state.Lost = DropReason.DecodeSkipped;
                continue;
            }

            state.Position = position;
            state.Admitted = now;
            if (stepper is not null && state.Passage == frames[Math.Max(0, presenter.Frame - 1)].Passage)
            {
                (state.Scale, state.Way) = (stepper.Scale, visits[stepper.Scale][state.Passage]);
            }

            underWay++;
            undecoded++;
            Arrive(frame);
        }
    }

    private CatchUp CatchUp()
    {
        if (settings.Policy != PlayingPolicy.KeepTime || presenter.Clock is not { } clock)
        {
            return new CatchUp(nextFrame, SkipUnreferenced: false);
        }

        var target = FirstInTime(clock);
        var catchUp = Pacing.CatchUpFor(nextFrame, target, behind.Observe(target > nextFrame, new TimeSpan(now)), this);
        if (catchUp.From > nextFrame)
        {
            behind.Reset();
        }

        return catchUp;
    }

    private void LoseUntil(int from)
    {
        for (; nextFrame < from; nextFrame++)
        {
            frames[nextFrame].Lost = DropReason.DecodeSkipped;
        }
    }

    /// <summary>The first frame that would be ready before its slot ends, if it set out now.</summary>
    private long FirstInTime(SlotClock clock)
    {
        var passage = frames[nextFrame].Passage;
        var way = expectedDecoding[passage].Expected + expectedEffects[passage].Expected;
        var arrival = new TimeSpan(now) + way - clock.FirstShown;
        return Math.Max(nextFrame, rate.FrameAt(arrival));
    }

    /// <summary>A passage always begins on a frame that stands alone.</summary>
    long IKeyFrames.LastUpTo(long frame)
    {
        var within = (int)Math.Min(frame, frames.Length - 1);
        var passage = frames[within].Passage;
        var interval = passages[passage].KeyInterval;
        return passageStarts[passage] + (within - passageStarts[passage]) / interval * interval;
    }

    /// <inheritdoc />
    long IKeyFrames.FirstFrom(long frame)
    {
        if (frame >= frames.Length)
        {
            return frames.Length;
        }

        var passage = frames[(int)frame].Passage;
        var interval = passages[passage].KeyInterval;
        var key = passageStarts[passage] + (frame - passageStarts[passage] + interval - 1) / interval * interval;
        return Math.Min(key, passageStarts[passage + 1]);
    }

    /// <summary>Moves time on and finishes every service that ends by then.</summary>
    private void Advance(long until)
    {
        if (until == Never)
        {
            throw new InvalidOperationException($"The simulation stands still at frame {presenter.Frame}.");
        }

        PassHeat(until);
        now = Math.Max(now, until);
        for (var station = 0; station < StationCount; station++)
        {
            if (finishes[station] <= now)
            {
                Finish(station);
            }
        }
    }

    private void Finish(int station)
    {
        var frame = serving[station];
        serving[station] = -1;
        finishes[station] = Never;
        frames[frame].NextVisit++;
        Arrive(frame);
        ServeNext(station);
    }

    /// <summary>A frame comes to its next station, or is ready when there is none left.</summary>
    private void Arrive(int frame)
    {
        ref var state = ref frames[frame];
        var way = state.Way;
        if (!state.Decoded && (state.NextVisit == way.Length || way[state.NextVisit].Kind == VisitKind.Effects))
        {
            state.Decoded = true;
            undecoded--;
            expectedDecoding[state.Passage].Observe(new TimeSpan(now - state.Admitted));
            if (presenter.Clock is { } clock && new TimeSpan(now) + expectedEffects[state.Passage].Expected < clock.EndOf(frame))
            {
                behind.Reset();
            }
        }

        if (state.NextVisit < way.Length)
        {
            var station = (int)way[state.NextVisit].Station;
            queues[station].Enqueue(frame);
            ServeNext(station);
            return;
        }

        if (state.Settled)
        {
            underWay--;
            return;
        }

        state.Ready = now;
        readyWaiting++;
    }

    private void ServeNext(int station)
    {
        while (serving[station] < 0 && queues[station].TryDequeue(out var frame))
        {
            ref var state = ref frames[frame];
            var visit = state.Way[state.NextVisit];
            if (visit.Kind == VisitKind.Effects && !IsWorthTreating(frame, ref state))
            {
                underWay--;
                continue;
            }

            var mean = visit.Service[visit.Service.Count == 1 ? 0 : state.Position % visit.Service.Count];
            var service = spread.Draw(mean).Ticks;
            if (visit.Station == Station.Processor && cores > 1 && serving[(int)Station.OneCore] >= 0)
            {
                service = service * cores / (cores - 1);
            }

            if (visit.Station is Station.Processor or Station.OneCore && heat is not null)
            {
                service = (long)(service / heat.ClockShare);
            }

            serving[station] = frame;
            finishes[station] = now + service;
            state.Spend(visit.Kind, service);
            Busy.Add(visit.Station, visit.Kind, new TimeSpan(now), new TimeSpan(now + service));
            if (visit.Kind == VisitKind.Effects && state.NextVisit == state.Way.Length - 1)
            {
                expectedEffects[state.Passage].Observe(new TimeSpan(state.Effects));
            }
        }
    }

    private bool IsWorthTreating(int frame, ref FrameState state)
    {
        if (settings.Policy == PlayingPolicy.KeepFrames || presenter.Clock is not { } clock)
        {
            return true;
        }

        var expected = TimeSpan.FromTicks(Math.Max(0, expectedEffects[state.Passage].Expected.Ticks - state.Effects));
        if (!state.Settled && Pacing.IsWorthTreating(new TimeSpan(now), expected, clock.EndOf(frame)))
        {
            return true;
        }

        expectedEffects[state.Passage].Doubt();
        state.Lost = DropReason.EffectsSkipped;
        return false;
    }

    private void PassHeat(long until)
    {
        if (heat is null)
        {
            return;
        }

        for (var next = heatByInterval.Count; (next + 1L) * BusyLedger.Interval.Ticks <= until; next++)
        {
            heat.Pass(BusyLedger.Interval, Math.Min(1, Busy.ProcessorShare(next, cores)));
            heatByInterval.Add((heat.Celsius, heat.ClockShare));
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
        public bool Decoded;
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
}
