using CsCheck;
using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Advice;

/// <summary>The ladder is what trying every part, every pair and every part with a larger supply and cooler comes to.</summary>
public sealed class LadderTests
{
    private static readonly Brief Plain = new("b", "B", ["t"]);

    /// <summary>Graphics of little strength and few gigabytes, so that all kinds of parts can be what is wanting.</summary>
    private static readonly Machine Old = Samples.Machine(
        cores: 6, speed: 1.2, graphics: new Graphics("old", 500, 40, 2, 8), memory: new Memory(4, 2.5, 1, 2400),
        drive: new Drive(Drive.AllRoles, "mechanical", 150, 140, 10)) with { Form = MachineForm.Tower };

    /// <summary>Nothing but its processor is wanting.</summary>
    private static readonly Machine SlowProcessor = Samples.Machine(
        cores: 2, graphics: new Graphics("strong", 20_000, 700, 16, 16), memory: new Memory(64, 4, 2, 5600)) with
    {
        Form = MachineForm.Tower,
    };

    [Fact]
    public void A_ladder_is_what_brute_force_over_every_part_and_pair_comes_to()
    {
        var (rungs, paths, pairs, refused, roomy, triples) = (0, 0, 0, 0, 0, 0);
        Gen.Select(ShortlistTests.AnyCatalogue(), Gen.Int[0, 100_000], Gen.Double[1, 1.5], Gen.Double[0.05, 2]).Sample((
            parts, work, growth, start) =>
        {
            var old = Stated(work);
            var plans = ShortlistTests.Work(work, Plain);
            var ladder = Ladder.For(old, new Asked(growth, start), parts, new Forecaster(plans));
            var all = Tried(old, parts, plans);
            var before = Least(plans, old);

            var kept = all
                .Where(one => one.Headroom >= 1.05 * before)
                .Where(one => !all.Exists(other =>
                    (other.Price < one.Price && other.Headroom >= one.Headroom)
                    || (other.Price == one.Price && other.Headroom > one.Headroom)))
                .Select(one => (one.Price, one.Headroom)).Distinct()
                .OrderByDescending(one => (one.Headroom - before) / (double)one.Price);
            Assert.Equal(kept, ladder.Rungs.Select(rung => (rung.Price, rung.After.Headroom)));

            var path = all.Where(one => !one.IsUnsure && one.Headroom >= growth
                && GestureWaitTests.OfEveryFrame(plans, one.Machine).TotalSeconds <= start
                    && ShortlistTests.Holds(plans, one.Machine))
                .Select(one => (decimal?)one.Price).Min();
            Assert.Equal(path, ladder.Path?.Price);
            Interlocked.Add(ref rungs, ladder.Rungs.Count);
            Interlocked.Add(ref pairs, ladder.Rungs.Count(rung => rung.Parts.Count == 2));
            Interlocked.Add(ref triples, ladder.Rungs.Count(rung => rung.Parts.Count == 3));
            Interlocked.Add(ref refused, ladder.Refused.Count);
            Interlocked.Add(ref roomy, ladder.Rungs.Count(rung => rung.Parts.Any(part => part is SupplyPart or CoolerPart)));
            Interlocked.Add(ref paths, path is null ? 0 : 1);
        }, iter: 400);

        Assert.True(rungs > 50 && paths > 20 && pairs > 5 && refused > 20 && roomy > 3 && triples > 3,
            $"{rungs} rungs, {pairs} of them pairs, {triples} of three, {roomy} with room made, {refused} refused, {paths} paths say too little");
    }

    /// <summary>More memory for less money is of no use where the machine does not take so much: what is put together with graphics is the
    /// memory that goes in.</summary>
    [Fact]
    public void Memory_that_does_not_go_in_replaces_none_that_does()
    {
        var old = Old with
        {
            Memory = new Memory(3, 2.8, 1, 2400), Places = new Places(MostGigabytes: 24, GraphicsWatts: 100, SupplyWatts: 2000),
        };
        Part[] parts =
        [
            new MemoryPart("large", "M", 190, "DDR5", 2, 16, 5600), new MemoryPart("small", "M", 238, "DDR5", 2, 4, 5600),
            new GraphicsPart("g", "G", 815, new Graphics("g", 20_000, 600, 8, 16), 80, 170),
        ];
        var plan = Samples.Plan(old, Samples.UhdIntermediate, raster: Raster.Uhd, effects: Effect.Of("noise-reduction"));

        var ladder = Ladder.For(old, Asked.Nothing, parts, new Forecaster([plan]));

        Assert.Contains(ladder.Rungs, rung => rung.Parts.Select(part => part.Id).Order().SequenceEqual(["g", "small"]));
    }

    [Fact]
    public void A_ladder_that_nobody_waits_for_any_more_ends()
    {
        var plans = ShortlistTests.Work(1, Plain);

        Assert.Throws<OperationCanceledException>(() =>
            Ladder.For(Old, Asked.Nothing, Demo(), new Forecaster(plans), new CancellationToken(canceled: true)));
    }

    /// <summary>What is put together of two parts needs only those that none replaces. Work is counted here; how long it takes is measured
    /// (<c>make bench WHAT=answer</c>).</summary>
    [Fact]
    public void Of_a_long_price_list_few_parts_are_put_together_in_pairs()
    {
        var random = new Random(1);
        Part[] parts =
        [
            .. Enumerable.Range(0, 500).Select(n => new DrivePart(
                $"d{n}", "D", 50 + random.Next(500), DriveInterface.Nvme, "NVMe", 500 + random.Next(6000), 500, 0.1)),
            .. Enumerable.Range(0, 500).Select(n => new MemoryPart($"m{n}", "M", 30 + random.Next(900), "DDR5", 2, 4 << random.Next(5), 5600)),
        ];

        var best = Dominance.Best(parts);

        Assert.InRange(best.Count, 2, 60);
        Assert.All(parts, part => Assert.Contains(best, other => ReferenceEquals(other, part) || Dominance.Replaces(other, part)));
    }

    /// <summary>A laptop is closed to graphics, a slate to everything; nothing weaker than what is there is offered.</summary>
    [Fact]
    public void What_a_machines_form_is_closed_to_is_not_offered()
    {
        var parts = Demo();

        Assert.Equal(["d", "g", "m"], Fitting(Old));
        Assert.Equal(["d", "m"], Fitting(Old with { Form = MachineForm.Laptop }));
        Assert.Empty(Fitting(Old with { Form = MachineForm.Slate }));
        Assert.Equal(["d", "g"], Fitting(Old with { Memory = Old.Memory with { Gigabytes = 64 } }));
        Assert.Equal(["d", "g", "m"], Fitting(Old with { Form = null }));
        Assert.Equal(["d", "g", "m", "p"], Fitting(Old with { Places = new Places("A") }));

        IEnumerable<string> Fitting(Machine machine) => parts.Where(part => Upgrades.IsBetter(machine, part)).Select(part => part.Id);
    }

    /// <summary>An engine that can only be part of the card that is replaced goes with it.</summary>
    [Fact]
    public void A_replaced_cards_media_engine_goes_with_it()
    {
        var (engine, card) = (new MediaEngine("E", 1000, []), new GraphicsPart("g", "G", 400, new Graphics("g", 8000, 300, 8, 16), 150, 200));
        var (onBus, builtIn) = (new Graphics("old", 500, 40, 2, 8), new Graphics("own", 300, 40, 2, null));

        Assert.Empty(With(onBus));
        Assert.Equal([engine], With(onBus, builtIn));
        Assert.Equal([engine], With());

        IReadOnlyList<MediaEngine> With(params Graphics[] units) =>
            Upgrades.With(Old with { Graphics = units, MediaEngines = [engine] }, [card]).MediaEngines;
    }

    /// <summary>Common practice, no source: where decoding on the processor limits, neither graphics nor a faster drive changes anything,
    /// and it is said.</summary>
    [Fact]
    public void Where_decoding_limits_graphics_and_drives_gain_nothing_and_why_is_said()
    {
        var plan = Samples.Plan(Old, Samples.UhdHevc422);
        var slow = Old with { Memory = new Memory(64, 4, 2, 3200), Processor = Old.Processor with { RelativeCoreSpeed = 0.5 } };
        var ladder = Ladder.For(slow, Asked.Nothing, Demo(), new Forecaster([plan]));

        Assert.Empty(ladder.Rungs);
        Assert.Equal(["d", "g"], ladder.Useless.Select(rung => rung.Parts[0].Id).Order());
        Assert.All(ladder.Useless, rung => Assert.StartsWith("gains nothing: ", AnswerWords.Gain(rung), StringComparison.Ordinal));
        Assert.Null(ladder.Path);
    }

    private static Part[] Demo() =>
    [
        new DrivePart("d", "D", 100, DriveInterface.Nvme, "NVMe", 3000, 2500, 0.1),
        new GraphicsPart("g", "G", 400, new Graphics("g", 8000, 300, 8, 16), 150, 200),
        new MemoryPart("m", "M", 90, "DDR5", 2, 16, 5600),
        new SupplyPart("s", "S", 80, 500),
        new ProcessorPart("p", "P", 300, "A", new Processor("P", 16, 32, 2, 4), 100),
    ];

    /// <summary>Of some machines nothing is stated, of others this or that; of most either the cooler or the supply is too small for a
    /// stronger processor, and a larger one makes room.</summary>
    private static Machine Stated(int seed)
    {
        var random = new Random(seed);
        T? Perhaps<T>(T value) where T : struct => random.Next(12) == 0 ? null : value;
        var (cooler, supply) = random.Next(6) switch
        {
            0 => (60.0, 900.0), 1 or 2 => (60.0, 600.0), 3 => (60.0, 190.0), _ => (300.0, 190.0),
        };
        var old = random.Next(3) == 0 ? Old : SlowProcessor;
        return random.Next(6) == 0 ? old : old with
        {
            Places = new Places(
                random.Next(6) == 0 ? null : "A", cooler, "DDR5", Perhaps(2), Perhaps(24.0), Perhaps(random.Next(2)),
                Perhaps(random.Next(2)), Perhaps(200.0), supply, Perhaps(80.0)),
        };
    }

    private static List<(decimal Price, double Headroom, Machine Machine, bool IsUnsure)> Tried(
        Machine old, IReadOnlyList<Part> parts, List<PlaybackPlan> plans)
    {
        var all = new List<(decimal Price, double Headroom, Machine Machine, bool IsUnsure)>();
        foreach (var one in parts.Where(part => Upgrades.IsBetter(old, part)))
        {
            Add(one);
            foreach (var other in parts.Where(part => part.GetType() != one.GetType()))
            {
                if (Upgrades.IsBetter(old, other) || Upgrades.MakesRoom(old, other))
                {
                    Add(one, other);
                }
            }

            foreach (var (supply, cooler) in RoomIn(SupplyParts).SelectMany(_ => RoomIn(CoolerParts), (supply, cooler) => (supply, cooler)))
            {
                Add(one, supply, cooler);
            }
        }

        return all;

        IEnumerable<Part> RoomIn(Func<Part, bool> kind) => parts.Where(part => kind(part) && Upgrades.MakesRoom(old, part));

        void Add(params Part[] put)
        {
            if (Upgrades.Problems(old, put).Count == 0)
            {
                var machine = Upgrades.With(old, put);
                all.Add((put.Sum(part => part.Price), Least(plans, machine), machine, Upgrades.IsUnsure(old, put)));
            }
        }
    }

    private static bool SupplyParts(Part part) => part is SupplyPart;

    private static bool CoolerParts(Part part) => part is CoolerPart;

    private static double Least(List<PlaybackPlan> plans, Machine machine) =>
        new Forecaster(plans).Of(machine).Min(forecast => forecast.Headroom);
}
