using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.StandIns;
using MathNet.Numerics.Distributions;

namespace HardyBench.Core.Advice.Answers;

/// <summary>What a machine can do of a passage by the bottleneck law.</summary>
/// <param name="Timeline">Its place in the brief, from 0.</param>
/// <param name="Passage">From 0.</param>
/// <param name="Tightest">The station with the highest demand compared with what it can do.</param>
/// <param name="Headroom">Capacity ÷ demand at the timeline's rate; below 1 it cannot.</param>
/// <param name="Band">Within which the headroom is known, in 95 of 100 cases: as measured on the machine, else that of the model.</param>
public sealed record Forecast(int Timeline, int Passage, Station Tightest, double Headroom, double Band = Forecast.ModelBand)
{
    /// <summary>Costs are within a quarter (95 of 100 cases) where no machine was measured for them.</summary>
    public const double ModelBand = 0.25;

    /// <summary>Headroom that rises by less than this share is no gain. Common practice, no source.</summary>
    private const double Gain = 1.05;

    private static readonly double TwoSided = Normal.InvCDF(0, 1, 0.975);

    /// <summary>The chance that it holds, 0 to 1, by how far the headroom lies from 1 beside the band, which is taken for
    /// log-normal.</summary>
    public double Chance => ChanceOf(Headroom, Band);

    /// <inheritdoc cref="Chance"/>
    internal static double ChanceOf(double headroom, double band) => Normal.CDF(0, Math.Log(1 + band) / TwoSided, Math.Log(headroom));

    /// <summary>Whether another machine, of which this is predicted, is no better than one of which that was.</summary>
    public bool GainsNothingOver(Forecast before) => Headroom < Gain * before.Headroom;
}

/// <summary>Predicts how machines play the work of a brief: a bound in closed form first, the simulation where that leaves it
/// open.</summary>
/// <remarks>Everything is for the end of a working session: the machine is as warm as the work has made it by then, and draws no more
/// than it may for long.</remarks>
/// <param name="plans">One a timeline of the brief, for any machine.</param>
/// <param name="day">How long and on what power somebody works; null for the usual.</param>
public sealed class Forecaster(IReadOnlyList<PlaybackPlan> plans, WorkingDay? day = null)
{
    /// <summary>Beyond chance: service times vary, and a passage may drop a few frames and still hold.</summary>
    private const double Surely = 0.95;

    private static readonly StandInPlayback Player = new(TimeProvider.System);

    private readonly ConcurrentDictionary<(Alike Parts, bool MeansOnly), IReadOnlyList<Outlook>> beside = new(), ofDrives = new();
    private readonly ConcurrentDictionary<Alike, bool> held = new();
    private readonly ConcurrentDictionary<Upgrade, Forecast?> upgraded = new();

    public IReadOnlyList<PlaybackPlan> Plans { get; } = plans;

    public WorkingDay Day { get; } = day ?? WorkingDay.Usual;

    /// <summary>Every passage that is long enough for a verdict. The bottleneck law (Denning and Buzen 1978): X = 1 / max D.</summary>
    public IReadOnlyList<Forecast> Of(Machine machine) => [.. Of(machine, null, meansOnly: true).Select(outlook => outlook.Forecast)];

    /// <summary>The passage with the least headroom; null where none is long enough for a verdict.</summary>
    public Forecast? Weakest(Machine machine) => Of(machine).MinBy(forecast => forecast.Headroom);

    /// <summary>The same of a machine with parts put in.</summary>
    /// <remarks>The drives' stations depend on drive and memory only, all others on all but drive and power supply, so that what pairs
    /// have in common is found once.</remarks>
    public Forecast? Weakest(Machine machine, IReadOnlyList<Part> put)
    {
        var others = With([.. put.Where(part => part is not (DrivePart or SupplyPart))], false);
        var drives = With([.. put.Where(part => part is DrivePart or MemoryPart)], true);
        return Lower(others, drives);

        Forecast? With(IReadOnlyList<Part> parts, bool ofDrives) => upgraded.GetOrAdd(
            new Upgrade(machine, Alike.Of(parts), ofDrives),
            _ => Least(Of(Upgrades.With(machine, parts), ofDrives, meansOnly: true)));
    }

    private static Forecast? Lower(Forecast? others, Forecast? drives) =>
        others is null || drives?.Headroom < others.Headroom ? drives : others;

    private static Forecast? Least(IReadOnlyList<Outlook> all) => all.MinBy(outlook => outlook.Forecast.Headroom)?.Forecast;

    /// <inheritdoc cref="Weakest(Machine)"/>
    /// <remarks>For builds it is put together from what their parts take: the drives' stations depend on drive and memory only, all others
    /// on anything but the drive, and none on board, case, cooler and power supply.</remarks>
    public Forecast? Weakest(Offer offer)
    {
        if (offer.Build is not { } build)
        {
            return Weakest(offer.Machine);
        }

        var (others, drives) = (Least(Beside(offer, build, meansOnly: true)), Least(OfDrives(offer, build, meansOnly: true)));
        return Lower(others, drives);
    }

    /// <summary>The longest wait for a picture in a passage that is long enough for a verdict: from the frame that stands alone up to the
    /// one before the next, read and decoded one after the other without spread (<see cref="GestureModel"/>).</summary>
    public GestureWait Wait(Machine machine) =>
        GestureModel.WaitOf(Of(machine, null).Select(outlook => outlook.Reach).DefaultIfEmpty().Max());

    /// <inheritdoc cref="Wait(Machine)"/>
    /// <remarks>Of builds the drives' part and that of all other stations add up, passage by passage.</remarks>
    public GestureWait Wait(Offer offer) => offer.Build is { } build
        ? GestureModel.WaitOf(
            Beside(offer, build, meansOnly: false)
                .Zip(OfDrives(offer, build, meansOnly: false), (other, drive) => other.Reach + drive.Reach).DefaultIfEmpty().Max())
        : Wait(offer.Machine);

    /// <summary>The chance that all of the work holds, 0 to 1: what a station is asked errs by one factor for all passages, and those of
    /// two stations err apart. So it is the product, over stations, of the chance in the passage that asks most of the station; decoders
    /// with cores of their own, heat and power are no stations apart from the processor.</summary>
    public double Chance(Machine machine)
    {
        var least = new Dictionary<Station, double>();
        foreach (var outlook in Of(machine, null, meansOnly: true))
        {
            foreach (var (station, seconds) in outlook.SecondsByStation.Index().Where(one => one.Item > 0))
            {
                var of = (Station)station is Station.DecoderCores or Station.Heat or Station.Power ? Station.Processor : (Station)station;
                var headroom = outlook.HeadroomAt(seconds);
                least[of] = Math.Min(headroom, least.GetValueOrDefault(of, headroom));
            }
        }

        return least.Values.Aggregate(1.0, (all, headroom) => all * Forecast.ChanceOf(headroom, BandOf(machine)));
    }

    private static double BandOf(Machine machine) => machine.Costs?.Band ?? Forecast.ModelBand;

    private IReadOnlyList<Outlook> Beside(Offer offer, Build build, bool meansOnly) => beside.GetOrAdd(
        (new Alike(build.Processor, build.Graphics, build.Units, build.Memory), meansOnly),
        _ => Of(offer.Machine, ofDrives: false, meansOnly));

    private IReadOnlyList<Outlook> OfDrives(Offer offer, Build build, bool meansOnly) => ofDrives.GetOrAdd(
        (new Alike(build.Memory, build.Drive), meansOnly), _ => Of(offer.Machine, ofDrives: true, meansOnly));

    /// <param name="ofDrives">Whether the drives' stations only count, or only the others; null for all.</param>
    /// <param name="meansOnly">Whether the wait for a picture is not needed, which requires each frame of a GOP.</param>
    private List<Outlook> Of(Machine machine, bool? ofDrives, bool meansOnly = false)
    {
        var all = new List<Outlook>();
        foreach (var (place, of) in Plans.Index())
        {
            var plan = PlanOn(machine, of);
            var (units, rate) = (CostModel.UnitsSharing(plan), plan.Timeline.Rate.FramesPerSecond);
            var demands = CostModel.DemandsOf(plan, meansOnly);
            // Drives draw next to nothing, and of builds it is nothing: their coolers carry away what their processors draw (BuildRules).
            var sustained = ofDrives != true ? Sustained.Of(plan.Machine, Day.Session, plan.ShareOfOthers) : null;
            foreach (var (index, passage) in plan.Timeline.Passages.Index())
            {
                if (VerdictLimits.Default.Judges(passage.FrameCount, plan.Timeline.Rate))
                {
                    var seconds = demands[index].SecondsByStation(units, Counts);
                    AddPower(seconds, sustained, plan, demands, index);
                    all.Add(Outlook.Of((place, index), seconds, GestureModel.LongestReach(demands[index], Counts), rate, BandOf(machine)));
                }
            }
        }

        return all;

        static void AddPower(
            double[] seconds, Sustained? sustained, PlaybackPlan plan, IReadOnlyList<PassageDemand> demands, int index)
        {
            if (sustained?.HeatWatts is { } heat)
            {
                seconds[(int)Station.Heat] = sustained.Seconds(MeanProcessorSeconds(plan, demands), heat);
            }

            if (sustained?.PowerWatts is { } power)
            {
                seconds[(int)Station.Power] = sustained.Seconds(demands[index].ProcessorSeconds(plan.Machine.Processor.Cores), power);
            }
        }

        bool Counts(Station station) => ofDrives is null || ofDrives == station is Station.Drive or Station.SwapDrive;
    }

    private PlaybackPlan PlanOn(Machine machine, PlaybackPlan of) =>
        of with { Machine = Day.Used(machine), Settings = of.Settings.Effective() };

    /// <summary>Of a frame, on average over the timeline: heat is slow, and goes by all of the work, not by one passage.</summary>
    private static double MeanProcessorSeconds(PlaybackPlan plan, IReadOnlyList<PassageDemand> demands) =>
        demands.Sum(demand => demand.ProcessorSeconds(plan.Machine.Processor.Cores) * demand.FrameCount)
            / demands.Sum(demand => demand.FrameCount);

    /// <summary>The plan on a machine at the end of a working session on that timeline.</summary>
    private PlaybackPlan WarmOn(Machine machine, PlaybackPlan of)
    {
        var plan = PlanOn(machine, of);
        if (plan.Machine.Cooling is not { } cooling)
        {
            return plan;
        }

        var busy = Math.Min(1, MeanProcessorSeconds(plan, CostModel.DemandsOf(plan)) * plan.Timeline.Rate.FramesPerSecond);
        return plan with { StartCelsius = Sustained.CelsiusAfter(cooling, Day.Session, BusyLedger.WithOthers(busy, plan.ShareOfOthers)) };
    }

    /// <summary>Whether a passage cannot hold whatever chance does: even with as many frames ready as may wait when it begins, more are
    /// missing than may be dropped.</summary>
    public bool CannotHold(Forecast forecast)
    {
        var plan = Plans[forecast.Timeline];
        double frames = plan.Timeline.Passages[forecast.Passage].FrameCount;
        // What is dropped in the first second of all is start-up, and speaks against no machine.
        var free = forecast.Passage == 0 ? plan.Timeline.Rate.FramesPerSecond : 0;
        var ahead = plan.Settings.Effective().LookAhead + PlaybackSettings.DecodeAhead + free;
        return forecast.Headroom * (frames + ahead) / frames < Surely;
    }

    /// <summary>Whether the simulation holds every passage that is long enough for a verdict; of builds alike in what plays once.</summary>
    public bool Holds(Offer offer) => offer.Build is { } build
        ? held.GetOrAdd(
            new Alike(build.Processor, build.Graphics, build.Units, build.Memory, build.Drive, build.Cooler), _ => Holds(offer.Machine))
        : Holds(offer.Machine);

    /// <inheritdoc cref="Holds(Offer)"/>
    public bool Holds(Machine machine) => Plans.SelectMany(plan => VerdictsOf(Player.PlayedOnly(WarmOn(machine, plan))))
        .All(verdict => verdict is null or Verdict.Holds);

    private static IEnumerable<Verdict?> VerdictsOf(Run run) => run.Header.Timeline.Passages.Select((_, index) => VerdictLimits.Default.Of(
        DropAccounting.Count(run.FramesOf(index), run.Header.Timeline.Rate, run.Header.Settings.Policy, run.StartLag)));

    /// <summary>The simulated runs of a machine at the end of a working session, whole.</summary>
    public IReadOnlyList<Run> Played(Machine machine) =>
        [.. Plans.Select(plan => Player.Played(WarmOn(machine, plan)))];

    /// <summary>What a machine can do of a passage, as far as certain stations go.</summary>
    /// <param name="Reach">The longest wait for them.</param>
    private sealed record Outlook(Forecast Forecast, double[] SecondsByStation, TimeSpan Reach, double Rate)
    {
        private const double MaxHeadroom = 1000;

        public static Outlook Of((int Timeline, int Passage) place, double[] seconds, TimeSpan reach, double rate, double band)
        {
            var most = Array.IndexOf(seconds, seconds.Max());
            return new Outlook(
                new Forecast(place.Timeline, place.Passage, (Station)most, Headroom(seconds[most], rate), band), seconds, reach, rate);
        }

        public double HeadroomAt(double seconds) => Headroom(seconds, Rate);

        private static double Headroom(double seconds, double rate) => Math.Min(MaxHeadroom, 1 / (seconds * rate));
    }

    /// <summary>A machine and what is put into it, as far as certain stations go.</summary>
    private readonly record struct Upgrade(Machine Machine, Alike Put, bool OfDrives)
    {
        public bool Equals(Upgrade other) => ReferenceEquals(Machine, other.Machine) && Put == other.Put && OfDrives == other.OfDrives;

        public override int GetHashCode() => HashCode.Combine(Put, OfDrives);
    }

    /// <summary>Parts that are the very same ones.</summary>
    private readonly record struct Alike(Part? One, Part? Two, int Units = 0, Part? Three = null, Part? Four = null, Part? Five = null)
    {
        /// <param name="parts">Five at most.</param>
        public static Alike Of(IReadOnlyList<Part> parts) => new(At(parts, 0), At(parts, 1), 0, At(parts, 2), At(parts, 3), At(parts, 4));

        public bool Equals(Alike other) => Units == other.Units && ReferenceEquals(One, other.One) && ReferenceEquals(Two, other.Two)
            && ReferenceEquals(Three, other.Three) && ReferenceEquals(Four, other.Four) && ReferenceEquals(Five, other.Five);

        public override int GetHashCode() => HashCode.Combine(Of(One), Of(Two), Units, Of(Three), Of(Four), Of(Five));

        private static Part? At(IReadOnlyList<Part> parts, int place) => parts.ElementAtOrDefault(place);

        private static int Of(Part? part) => RuntimeHelpers.GetHashCode(part);
    }
}
