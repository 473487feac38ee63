using CsCheck;
using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Programs;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Tests.Advice;

/// <summary>The shortlist is what simulating everything comes to, and never worse for more money or less work.</summary>
public sealed class ShortlistTests
{
    private static readonly ClipFormat[] Formats = [Samples.HdAvc, Samples.UhdHevc422, Samples.UhdIntermediate];

    private static readonly string[] Effects = ["primary-grade", "noise-reduction", "blur"];

    private static readonly Gen<Brief> AnyBrief = Gen.Select(
        Gen.Double[1, 1.6], Gen.Int[0, 3], Gen.Int[24, 44], Gen.Int[300, 2400], Gen.Double[0.05, 1.5],
        (growth, form, decibels, budget, start) => new Brief("b", "B", ["t"])
        {
            Growth = growth > 1.3 ? 1 : growth,
            Forms = form switch { 0 => [MachineForm.Tower], 1 => [MachineForm.Tower, MachineForm.SmallDesktop], _ => null },
            MostDecibels = decibels < 30 ? null : decibels,
            Budget = budget < 700 ? null : budget,
            MostStartSeconds = start > 0.9 ? null : start,
        });

    /// <summary>The same, by looking at everything.</summary>
    [Fact]
    public void A_shortlist_is_what_brute_force_over_every_build_comes_to()
    {
        var (answered, kinds) = (0, new HashSet<int>());
        Gen.Select(AnyCatalogue(), AnyBrief, Gen.Int[0, 100_000]).Sample((parts, brief, work) =>
        {
            var plans = Work(work, brief);
            var quick = Shortlist.For(brief, [.. new Catalogue(parts).Builds().Select(Offer.Of)], new Forecaster(plans))
                .Within(brief.Budget);
            var brute = Brute(brief, parts, plans);

            Assert.Equal(
                brute.Select(one => (one.Price, one.Headroom)),
                quick.Steps.Select(step => (step.Offer.Price, step.Weakest.Headroom)));
            Interlocked.Add(ref answered, quick.Steps.Count);
            lock (kinds)
            {
                kinds.Add(quick.Steps.Count);
            }
        }, iter: 500);

        Assert.True(answered > 60 && kinds.Count > 2, $"{answered} steps of {kinds.Count} kinds say too little");
    }

    [Fact]
    public void A_larger_budget_never_leaves_less_and_never_makes_the_cheapest_dearer() =>
        Gen.Select(AnyCatalogue(), AnyBrief, Gen.Int[0, 100_000]).Sample((parts, brief, work) =>
        {
            var all = Shortlist.For(brief, [.. new Catalogue(parts).Builds().Select(Offer.Of)], new Forecaster(Work(work, brief)));
            var (small, large) = (all.Within(900), all.Within(1800));

            Assert.True(small.Steps.Count <= large.Steps.Count);
            Assert.Equal(small.Steps, large.Steps.Take(small.Steps.Count));
            Assert.True(small.Steps.Count == 0 || small.Steps[^1].Weakest.Headroom <= large.Steps[^1].Weakest.Headroom);
        }, iter: 40);

    [Fact]
    public void What_is_recommended_has_a_fifth_in_reserve_or_the_most_that_the_budget_buys()
    {
        var (withMargin, without) = (0, 0);
        Gen.Select(AnyCatalogue(), AnyBrief, Gen.Int[0, 100_000]).Sample((parts, brief, work) =>
        {
            var all = Shortlist.For(brief, [.. new Catalogue(parts).Builds().Select(Offer.Of)], new Forecaster(Work(work, brief)));
            var affordable = all.Steps.Where(step => !(step.Offer.Price > brief.Budget)).ToList();
            var recommended = all.Recommended(brief.Budget);

            Assert.Equal(affordable.Count == 0, recommended is null);
            Assert.DoesNotContain(affordable, step =>
                step.Offer.Price < recommended!.Offer.Price && step.Weakest.Headroom >= Shortlist.Margin);
            Assert.True(recommended is null || recommended.Weakest.Headroom >= Shortlist.Margin || recommended == affordable[^1]);
            Interlocked.Increment(ref recommended?.Weakest.Headroom >= Shortlist.Margin ? ref withMargin : ref without);
        }, iter: 200);

        Assert.True(withMargin > 5 && without > 5, $"{withMargin} and {without} say too little");
    }

    [Fact]
    public void Lighter_work_never_needs_a_dearer_machine() =>
        Gen.Select(AnyCatalogue(), Gen.Int[0, 100_000]).Sample((parts, work) =>
        {
            var brief = new Brief("b", "B", ["t"]);
            var offers = new Catalogue(parts).Builds().Select(Offer.Of).ToList();
            var whole = Work(work, brief);
            var light = whole
                .Select(plan => plan with { Timeline = plan.Timeline with { Passages = [plan.Timeline.Passages[0]] } }).ToList();
            var (heavy, easy) = (
                Shortlist.For(brief, offers, new Forecaster(whole)), Shortlist.For(brief, offers, new Forecaster(light)));

            Assert.True(heavy.Steps.Count == 0 || easy.Steps[0].Offer.Price <= heavy.Steps[0].Offer.Price);
        }, iter: 40);

    /// <summary>Bottleneck law: a part that is better in everything asks no station for more.</summary>
    [Fact]
    public void A_strictly_better_part_never_predicts_less() =>
        Gen.Select(AnyCatalogue(), Gen.Int[0, 100_000], Gen.Int[0, 3]).Sample((parts, work, what) =>
        {
            var forecaster = new Forecaster(Work(work, new Brief("b", "B", ["t"])));
            foreach (var build in new Catalogue(parts).Builds().Take(5))
            {
                var better = what switch
                {
                    0 => build with { Drive = build.Drive with { ReadMegabytesPerSecond = 2 * build.Drive.ReadMegabytesPerSecond } },
                    1 => build with { Memory = build.Memory with { GigabytesEach = 2 * build.Memory.GigabytesEach } },
                    2 => build with
                    {
                        Processor = build.Processor with
                        {
                            Processor = build.Processor.Processor with { RelativeCoreSpeed = 1.3 * build.Processor.Processor.FastSpeed },
                        },
                    },
                    _ => build with
                    {
                        Graphics = build.Graphics is { } unit
                            ? unit with
                            {
                                Unit = unit.Unit with
                                {
                                    PeakGigaflops = 2 * unit.Unit.PeakGigaflops,
                                    BandwidthGigabytesPerSecond = 2 * unit.Unit.BandwidthGigabytesPerSecond,
                                },
                            }
                            : null,
                    },
                };
                Assert.All(
                    forecaster.Of(build.ToMachine()).Zip(forecaster.Of(better.ToMachine())),
                    pair => Assert.True(pair.Second.Headroom >= pair.First.Headroom * (1 - 1e-6), $"{pair}"));
                Assert.True(forecaster.Chance(better.ToMachine()) >= forecaster.Chance(build.ToMachine()) - 1e-6);
                Assert.True(forecaster.Wait(better.ToMachine()).Scrub <= forecaster.Wait(build.ToMachine()).Scrub);
            }
        }, iter: 60);

    /// <summary>What the closed form rules out, the simulation does not hold: else the shortlist would leave out machines that
    /// do.</summary>
    [Fact]
    public void What_cannot_hold_by_the_bottleneck_law_does_not_hold_in_the_simulation()
    {
        var ruledOut = 0;
        Gen.Select(AnyCatalogue(), Gen.Int[0, 100_000]).Sample((parts, work) =>
        {
            var forecaster = new Forecaster(Work(work, new Brief("b", "B", ["t"])));
            foreach (var build in new Catalogue(parts).Builds().Take(6))
            {
                if (forecaster.Of(build.ToMachine()).Any(forecaster.CannotHold))
                {
                    Interlocked.Increment(ref ruledOut);
                    Assert.False(
                        forecaster.Holds(build.ToMachine()),
                        $"{build.ToMachine().Name}: {string.Join(", ", forecaster.Of(build.ToMachine()))}");
                }
            }
        }, iter: 150);
        Assert.True(ruledOut > 100);
    }

    /// <summary>The median of what is predicted at a headroom of 1 is an even chance, at a quarter more 97.5 of 100: the band as it is
    /// stated.</summary>
    [Fact]
    public void The_chance_of_holding_follows_from_headroom_and_band()
    {
        Assert.Equal(0.5, new Forecast(0, 0, Station.Processor, 1).Chance, 9);
        Assert.Equal(0.975, new Forecast(0, 0, Station.Processor, 1 + Forecast.ModelBand).Chance, 9);
        Assert.Equal(0.025, new Forecast(0, 0, Station.Processor, 1 / (1 + Forecast.ModelBand)).Chance, 9);
    }

    /// <summary>Drawn ten thousand times, a factor a station, log-normal by the band: so often every passage holds.</summary>
    [Fact]
    public void The_chance_of_all_passages_is_how_often_they_all_hold_when_stations_err_apart()
    {
        const int Draws = 10_000;
        var (some, random) = (0, new Random(7));
        var sigma = Math.Log(1 + Forecast.ModelBand) / 1.959964;
        for (var seed = 0; seed < 400; seed++)
        {
            var plan = Work(seed, new Brief("b", "B", ["t"]))[0];
            var machine = Samples.Machine(
                cores: 4 + random.Next(20), speed: 0.7 + random.NextDouble(), graphics: new Graphics("g", 300 + random.Next(900), 40, 8, 6));
            plan = plan with { Machine = machine, Settings = plan.Settings.Effective() };
            var asked = plan.Timeline.Passages.Index()
                .Where(one => VerdictLimits.Default.Judges(one.Item.FrameCount, plan.Timeline.Rate))
                .Select(one => CostModel.DemandOf(plan, plan.Played(one.Index)).SecondsByStation()).ToList();
            var chance = new Forecaster([plan]).Chance(machine);
            if (chance is not (> 0.05 and < 0.95) && seed % 20 > 0)
            {
                continue;
            }

            some += chance is > 0.05 and < 0.95 ? 1 : 0;
            var holding = Enumerable.Range(0, Draws).Count(_ =>
            {
                var factors = Enum.GetValues<Station>().Select(_ => Math.Exp(sigma * Normal(random))).ToList();
                return asked.TrueForAll(seconds => seconds.Index().All(one => one.Item * factors[one.Index] * 25 <= 1));
            });
            Assert.Equal(chance, (double)holding / Draws, 4 * Math.Sqrt(0.25 / Draws));
            Assert.True(chance <= new Forecaster([plan]).Weakest(machine)!.Chance + 1e-9);
        }

        Assert.True(some > 20, $"{some} chances that are neither certain nor nothing say too little");

        static double Normal(Random random) =>
            Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
    }

    private static List<(decimal Price, double Headroom)> Brute(Brief brief, IReadOnlyList<Part> parts, List<PlaybackPlan> plans)
    {
        var (steps, forecaster) = (new List<(decimal Price, double Headroom)>(), new Forecaster(plans));
        var all = new Catalogue(parts).Everything().Where(build => BuildRules.Problems(build).Count == 0)
            .Where(build => brief.Forms is null || brief.Forms.Contains(build.Case.Form))
            .Where(build => brief.MostDecibels is null || build.Cooler.Decibels <= brief.MostDecibels)
            .Where(build => brief.Budget is null || build.Price <= brief.Budget)
            .OrderBy(build => build.Price).ThenByDescending(build => forecaster.Of(build.ToMachine()).Min(one => one.Headroom));
        var known = new Dictionary<string, (double Headroom, bool Holds, TimeSpan Start)>();
        foreach (var build in all)
        {
            var machine = build.ToMachine();
            var alike = $"{machine.Processor} {machine.Memory} {build.Graphics?.Id} {build.Units} {build.Drive.Id} {machine.Cooling}";
            if (!known.TryGetValue(alike, out var found))
            {
                known[alike] = found = (forecaster.Of(machine).Min(one => one.Headroom), Holds(plans, machine),
                    GestureWaitTests.OfEveryFrame(plans, machine));
            }

            if (found.Holds && found.Headroom >= brief.Growth && !(found.Start.TotalSeconds > brief.MostStartSeconds)
                && (steps.Count == 0 || found.Headroom >= Shortlist.WorthMore * steps[^1].Headroom
                    || (found.Headroom >= Shortlist.Margin && steps[^1].Headroom < Shortlist.Margin)))
            {
                steps.Add((build.Price, found.Headroom));
            }
        }

        return steps;
    }

    /// <summary>By whole runs and their findings.</summary>
    internal static bool Holds(List<PlaybackPlan> plans, Machine machine) =>
        plans.SelectMany(plan => RunFindings.Of(new StandInPlayback(TimeProvider.System)
                .PlayAsync(plan with { Machine = machine }, new NoObserver(), CancellationToken.None).Result))
            .All(finding => finding.Verdict is null or Verdict.Holds);

    internal static List<PlaybackPlan> Work(int seed, Brief brief)
    {
        var random = new Random(seed);
        var clips = Formats.Index()
            .ToDictionary(format => $"c{format.Index}", format => new Clip($"c{format.Index}", "clip", format.Item, 100, null));
        var passages = Enumerable.Range(0, 1 + random.Next(2)).Select(_ => new Passage(
            "asked", 50 + random.Next(40),
            [
                .. Enumerable.Range(0, 1 + random.Next(2)).Select(_ => new Layer(
                    $"c{random.Next(Formats.Length)}",
                    [.. Enumerable.Range(0, random.Next(3)).Select(_ => Effect.Of(Effects[random.Next(Effects.Length)]))])),
            ], [])).ToList();
        var timeline = new Timeline("t", "T", Raster.Uhd, Samples.Rate, passages);
        var program = random.Next(2) == 0 ? null : Programs[random.Next(Programs.Length)];
        return [new PlaybackPlan(timeline, clips, Samples.Machine(), brief.SettingsIn(program))];
    }

    private static readonly EditingProgram[] Programs =
    [
        new("p", "P", ComposesOn: ComposingPlace.Processor, InColour: true),
        new("p", "P", OnMediaEngine: [], EffectsAt: EffectRaster.Clip, WhenLate: PlayingPolicy.KeepFrames),
        new("p", "P", OnOneCore: ["noise-reduction"], DecoderCores: 3, LookAhead: 2, ReservesGigabytes: 3),
    ];

    /// <summary>Two or three parts of each kind, some of which do not go together.</summary>
    internal static Gen<IReadOnlyList<Part>> AnyCatalogue() => Gen.Int[0, 1_000_000].Select(IReadOnlyList<Part> (seed) =>
    {
        var random = new Random(seed);
        double Of(params double[] values) => values[random.Next(values.Length)];
        decimal Price(int least, int most) => random.Next(least, most);
        string Socket() => random.Next(6) == 0 ? "B" : "A";
        Graphics Unit(double flops) => new("g", flops, flops / 30, 8, 15.75);
        MediaEngine? Engine() => random.Next(2) == 0 ? null : new MediaEngine("e", Of(300, 900, 2000),
            [new FormatCapability(Codec.Hevc, ChromaSubsampling.Half, 10, new Raster(8192, 4320)),
             new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, new Raster(8192, 4320))]);
        return
        [
            .. Enumerable.Range(0, 3).Select(n => new ProcessorPart(
                $"p{n}", $"P{n}", Price(90, 900), Socket(), new Processor($"P{n}", (int)Of(2, 4, 8, 16), 16, Of(0.6, 1, 1.5), 4),
                Of(55, 95, 170), random.Next(2) == 0 ? new Graphics("own", 900, 60, 4, null) : null, Engine())),
            .. Enumerable.Range(0, 2).Select(n => new BoardPart(
                $"b{n}", $"B{n}", Price(80, 300), Socket(), "DDR5", (int)Of(2, 4), Of(32, 64), (int)Of(1, 2), 1, (int)Of(0, 2, 2),
                (BoardSize)random.Next(2))),
            .. Enumerable.Range(0, 2).Select(n => new MemoryPart(
                $"m{n}", $"M{n}", Price(20, 300), "DDR5", (int)Of(1, 2, 4), Of(4, 8, 16), 5600)),
            .. Enumerable.Range(0, 2).Select(n => new GraphicsPart(
                $"g{n}", $"G{n}", Price(100, 900), Unit(Of(1500, 6000, 20000)), Of(80, 200), Of(170, 280), Engine())),
            .. Enumerable.Range(0, 2).Select(n => new DrivePart(
                $"d{n}", $"D{n}", Price(40, 300), (DriveInterface)random.Next(2), "drive", Of(180, 500, 3500), 400, Of(0.1, 10))),
            .. Enumerable.Range(0, 2).Select(n => new SupplyPart($"s{n}", $"S{n}", Price(40, 200), Of(300, 450, 900))),
            .. Enumerable.Range(0, 2).Select(n => new CoolerPart(
                $"k{n}", $"K{n}", Price(20, 150), Of(95, 150, 250), Of(60, 150), Of(26, 34, 41))),
            .. Enumerable.Range(0, 2).Select(n => new CasePart(
                $"c{n}", $"C{n}", Price(50, 200), random.Next(2) == 0 ? MachineForm.Tower : MachineForm.SmallDesktop, (BoardSize)(1 + random.Next(2)),
                Of(200, 320), Of(140, 170))),
        ];
    });
}
