using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Calibration;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Tests.Calibration;

/// <summary>A machine whose constants are known is measured as a real one would be, and they come out again.</summary>
public sealed class CalibrationTests
{
    private const int Cores = 4;
    private const double Speed = 1.3;

    private static readonly DateTimeOffset Now = new(2026, 11, 27, 12, 0, 0, TimeSpan.Zero);
    private static readonly Raster Small = new(1280, 720);
    private static readonly Machine Known = Samples.Machine(cores: Cores, speed: Speed);

    private static readonly Dictionary<string, Clip> Clips = new[]
    {
        Of(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd, 20, 8), Of(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd, 20, 60),
        Of(Codec.Avc, ChromaSubsampling.Quarter, 8, Small, 20, 12), Of(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Uhd, 20, 40),
        Of(Codec.Hevc, ChromaSubsampling.Half, 10, Raster.Hd, 20, 8), Of(Codec.Hevc, ChromaSubsampling.Half, 10, Raster.Hd, 20, 40),
        Of(Codec.Hevc, ChromaSubsampling.Half, 10, Small, 20, 10), Of(Codec.Rdd36, ChromaSubsampling.Half, 10, Raster.Hd, 1, 80),
        Of(Codec.Rdd36, ChromaSubsampling.Half, 10, Raster.Hd, 1, 220), Of(Codec.Rdd36, ChromaSubsampling.Half, 10, Small, 1, 90),
        Of(Codec.Rdd36, ChromaSubsampling.Half, 10, Raster.Uhd, 1, 500),
    }.Index().ToDictionary(one => $"c{one.Index}", one => new Clip($"c{one.Index}", "clip", one.Item, 40, null));

    /// <summary>Each constant lies in its 95 % interval about as often as that says, over machines that waver differently.</summary>
    [Fact]
    public void Constants_of_a_simulated_machine_lie_within_their_intervals()
    {
        var (inside, all) = (0, 0);
        for (var occasion = 1; occasion <= 25; occasion++)
        {
            foreach (var cost in Calibrated(occasion).Costs.Decoding)
            {
                var known = DecodeCost.Of(cost.Codec);
                // Which core is the reference core is only known by the codecs' median, so all share its error.
                inside += Math.Abs(cost.PerSampleByte - known.PerSampleByte) <= cost.PerSampleByteHalf + 0.01 * known.PerSampleByte ? 1 : 0;
                inside += Math.Abs(cost.PerBit - known.PerBit) <= cost.PerBitHalf + 0.01 * known.PerBit ? 1 : 0;
                all += 2;
            }
        }

        Assert.Equal(150, all);
        Assert.InRange(inside, (int)(0.9 * all), all);
    }

    [Fact]
    public void Speed_serial_part_and_effects_come_out_again()
    {
        var fit = Calibrated(1);

        Assert.InRange(fit.CoreSpeed, 0.97 * Speed, 1.03 * Speed);
        Assert.All(fit.Costs.Decoding, cost => Assert.Equal(cost.Codec != Codec.Rdd36, cost.BitsSerialPart is not null));
        SameTogether(Known, Known with { Costs = fit.Costs });
        foreach (var id in new[] { "blur", "noise-reduction", "glow", "primary-grade", "stabilise" })
        {
            var (time, known) = (fit.Costs.Treating.Single(one => one.Work == id), EffectCatalogue.Find(id)!.Cost);
            Assert.InRange(time.Nanoseconds!.Value, 0.85 * known.Nanoseconds!.Value, 1.15 * known.Nanoseconds.Value);
            Assert.InRange(time.DeepNanoseconds!.Value, 0.85 * known.DeepNanoseconds!.Value, 1.15 * known.DeepNanoseconds.Value);
        }

        var way = fit.Costs.Treating.Single(one => one.Work == TreatmentCost.ToColourAndBack);
        Assert.InRange(way.Nanoseconds!.Value, 0.8 * 8.7, 1.2 * 8.7);
        var scaling = fit.Costs.Treating.Single(one => one.Work == TreatmentCost.Scaling);
        Assert.InRange(scaling.Nanoseconds!.Value, 0.8 * 1.5, 1.2 * 1.5);
        Assert.InRange(scaling.DeepNanoseconds!.Value / EffectCost.Scaling.DeepNanoseconds!.Value, 0.8, 1.2);
    }

    /// <summary>Where the samples' work gains little from more cores and the bits' work much, footage of few bits gains less than footage
    /// of many, and the twin predicts both.</summary>
    [Fact]
    public void What_more_cores_gain_is_told_apart_for_samples_and_bits()
    {
        var costs = Clips.Values.Select(clip => clip.Format).DistinctBy(format => format.Codec).Select(format => new CodecCost(
            format.Codec, format.BitDepth > 8, DecodeCost.Of(format.Codec).PerSampleByte, DecodeCost.Of(format.Codec).PerBit, 0, 0,
            format.IsAllIntra ? 0.1 : 0.5, 1e9, 1e9) { BitsSerialPart = 0.1 });
        var uneven = Known with { Costs = new MachineCosts([.. costs], [], 0.1, Now) };
        var fit = Calibrated(1, uneven);

        Assert.Equal(0.5, fit.Costs.Of(Samples.HdAvc)!.SerialPart, 0.06);
        Assert.Equal(0.1, fit.Costs.Of(Samples.HdAvc)!.BitsSerialPart!.Value, 0.06);
        SameTogether(uneven, uneven with { Costs = fit.Costs });
        var twin = Twin.Of(uneven, fit, Cores, 3000);
        foreach (var megabits in new[] { 5.0, 55 })
        {
            var format = Of(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd, 20, megabits);
            Assert.InRange(Rate(twin, format) / Rate(uneven, format), 0.95, 1.05);
        }
    }

    /// <summary>Of footage and treatment that was not measured so.</summary>
    [Fact]
    public void The_twin_plays_as_the_machine_does()
    {
        var format = Of(Codec.Hevc, ChromaSubsampling.Half, 10, Raster.Uhd, 50, 90);
        var twin = Twin.Of(Known, Calibrated(1), Cores, 3000);
        Effect[] treated = [Effect.Of("primary-grade"), Effect.Of("glow"), Effect.Of("blur")];

        Assert.InRange(Rate(twin, format, treated) / Rate(Known, format, treated), 0.95, 1.05);
        Assert.InRange(Rate(twin, Samples.HdAvc) / Rate(Known, Samples.HdAvc), 0.95, 1.05);
    }

    /// <summary>Amdahl's and the utilisation law: one decoder takes as long as its serial part makes it, two share what both leave free,
    /// and no more than every core is busy.</summary>
    [Fact]
    public void Decoders_that_leave_cores_free_work_side_by_side()
    {
        var cost = new CodecCost(Codec.Avc, false, 2e-9, 0, 0, 0, SerialPart: 0.8, 1e9, 1e9);
        var twin = Samples.Machine(cores: 2) with { Costs = new MachineCosts([cost], [], 0.1, Now) };
        var work = 2e-9 * Samples.HdAvc.SamplesPerFrame;

        Is(work * (0.8 + 0.2 / 2), Station.DecoderCores, Demand(1));
        Is(work, Station.Processor, Demand(2));
        Is(2 * work, Station.Processor, Demand(4));

        twin = twin with { Costs = twin.Costs! with { AllBusy = 0.8 } };
        Is(work * (0.8 + 0.2 / 2), Station.DecoderCores, Demand(1));
        Is(2 * work / 0.8, Station.Processor, Demand(4));
        var alone = Samples.Plan(twin, Samples.HdAvc);
        Assert.Equal(1 / 0.9 / 0.8, CostModel.DemandOf(alone, alone.Timeline.Passages[0]).CoresDecoding, 6);

        static void Is(double seconds, Station station, (double Seconds, Station Station) demand)
        {
            Assert.Equal(station, demand.Station);
            Assert.Equal(seconds, demand.Seconds, 6);
        }

        (double Seconds, Station Station) Demand(int layers)
        {
            var plan = Samples.Plan(twin, Samples.HdAvc);
            var passage = plan.Timeline.Passages[0];
            passage = passage with { Layers = [.. Enumerable.Repeat(passage.Layers[0], layers)] };
            var demand = CostModel.DemandOf(plan, passage);
            var station = demand.Visits.First(visit => visit.Kind == VisitKind.Decode).Station;
            return (demand.DemandSeconds(station) - EffectsOn(station), station);

            double EffectsOn(Station of) => demand.Visits.Where(visit => visit.Kind == VisitKind.Effects && visit.Station == of)
                .Sum(visit => visit.MeanService.TotalSeconds);
        }
    }

    [Fact]
    public void What_lies_outside_of_what_was_measured_is_known()
    {
        var costs = Calibrated(1).Costs;

        Assert.False(costs.Extrapolates(Samples.HdAvc));
        Assert.False(costs.Extrapolates(Of(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Uhd, 50, 60)));
        Assert.True(costs.Extrapolates(Of(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Uhd, 50, 200)));
        Assert.True(costs.Extrapolates(Of(Codec.Avc, ChromaSubsampling.Half, 10, Raster.Hd, 50, 20)));
        Assert.True(costs.Extrapolates(Of(Codec.Rdd36, ChromaSubsampling.Half, 10, new Raster(7680, 4320), 1, 200)));
        Assert.True(costs.Extrapolates(Of(Codec.Av1, ChromaSubsampling.Quarter, 8, Raster.Hd, 50, 8)));
    }

    /// <summary>Amdahl's law has nothing to say where there is nothing to share out.</summary>
    [Fact]
    public void One_core_is_measured_once_and_shares_nothing()
    {
        var one = Samples.Machine(cores: 1, speed: 0.7);
        var plans = Plans().For(one, 1).ToList();
        var fit = Calibrated(1, one, 1);

        Assert.DoesNotContain(plans.SelectMany(plan => plan.Measures), measure => measure.Kind == MeasureKind.AllThreads);
        Assert.All(fit.Costs.Decoding, cost => Assert.Equal(0, cost.SerialPart));
        Assert.InRange(fit.CoreSpeed, 0.97 * 0.7, 1.03 * 0.7);
    }

    /// <summary>Counted in frames, by the costs of the reference core: enough to tell, and no more, so that a calibration stays
    /// short.</summary>
    [Fact]
    public void Every_passage_lasts_half_a_second_or_the_fewest_frames_that_tell()
    {
        foreach (var (plan, measures) in Plans().For(Known, Cores).Where(plan => plan.Measures[0].Kind == MeasureKind.OneThread))
        {
            foreach (var (passage, measure) in plan.Timeline.Passages.Zip(measures))
            {
                var frame = DecodeCost.Of(measure.Format.Codec).MeanCoreSeconds(measure.Format);
                var counting = measure.Format.IsAllIntra ? 10 : 20;
                Assert.InRange(passage.FrameCount, 11 + counting, Math.Max(11 + counting, 0.5 / frame + 11 + counting));
                Assert.Equal(11, passage.FrameCount % counting + (counting == 10 ? 10 : 0));
            }
        }
    }

    /// <summary>While a passage plays the start of the next one is decoded ahead beside it: that is no work of the passage's one
    /// thread.</summary>
    [Fact]
    public void One_thread_takes_no_more_than_all_of_the_time()
    {
        var (plan, asked) = Plans().For(Known, Cores)[0];
        var run = Play(plan);
        var beside = run with
        {
            Loads = [.. run.Loads.Select(load => load.Kind == LoadKind.OwnDecode ? load with { Value = 2.5f } : load)],
        };

        Assert.All(CalibrationPlan.Read(beside, asked), measure =>
            Assert.Equal(1 / measure.FramesPerSecond, measure.DecodeSeconds, 9));
    }

    /// <summary>Where all cores decode, each is slower on this machine: decoders side by side have that, one by itself has it in its
    /// serial part.</summary>
    [Fact]
    public void How_much_slower_cores_are_while_all_are_busy_comes_out()
    {
        // The mean of several: one calibration of few frames wavers by some hundredths, and none is taken for more than 1.
        Assert.InRange(MeanAllBusy(1), 0.93, 1);
        Assert.InRange(MeanAllBusy(0.8), 0.75, 0.83);

        static double MeanAllBusy(double speed) => Enumerable.Range(1, 8).Average(occasion => CalibrationFit.Of(
            [
                .. Measures(occasion, Known, Cores).Select(measure => measure.Kind == MeasureKind.AllThreads
                    ? measure with { DecodeSeconds = measure.DecodeSeconds / speed }
                    : measure),
            ],
            Cores,
            Now).Costs.AllBusy);
    }

    [Fact]
    public void No_twin_is_made_of_measurements_that_contradict_each_other()
    {
        var fit = Calibrated(1);

        Assert.Same(fit, fit.Checked());
        Assert.Contains(
            "contradict each other",
            Assert.Throws<CalibrationException>(() => (fit with { Costs = fit.Costs with { Band = 1.01 } }).Checked()).Message,
            StringComparison.Ordinal);
    }

    [Fact]
    public void Passages_beside_which_other_programs_were_busy_are_found()
    {
        var plan = Plans().For(Known, Cores)[0].Plan;
        var run = Play(plan);
        var shown = run.FramesOf(1).Select(frame => frame.Shown).OfType<TimeSpan>().ToList();
        run = run with { Loads = [.. run.Frames.Select(frame => frame.Shown).OfType<TimeSpan>().Order().SelectMany(at =>
            Loads(at, at >= shown[0] && at <= shown[^1]))] };

        Assert.Equal([1], CalibrationPlan.Disturbed(run));
        Assert.Empty(CalibrationPlan.Disturbed(run with { Loads = [] }));

        // Both cores are busy; half of that, and beside the other passages all of it, is the player's own.
        IEnumerable<LoadReading> Loads(TimeSpan at, bool isBesideOthers) =>
        [
            new(at, LoadKind.Core, 0, 1), new(at, LoadKind.Core, 1, 1), new(at, LoadKind.OwnProcess, 0, isBesideOthers ? 1f : 1.9f),
        ];
    }

    [Fact]
    public void A_codec_whose_every_measurement_was_disturbed_is_named()
    {
        var measures = Measures(1, Known, Cores).ToList();
        var without = measures.ConvertAll(measure =>
            measure is { Kind: MeasureKind.OneThread, Format.Codec: Codec.Rdd36 } ? measure with { FramesPerSecond = 0 } : measure);
        var most = measures.Count / 4;

        CalibrationPlan.CheckDisturbed(measures, most);
        CalibrationPlan.CheckDisturbed(without, 0);
        Assert.Contains("decoding RDD 36 is therefore not known", Refusal(without, 4), StringComparison.Ordinal);
        Assert.Contains($"during {most + 1} of {measures.Count} measurements", Refusal(measures, most + 1), StringComparison.Ordinal);

        static string Refusal(IReadOnlyList<Measure> of, int disturbed) =>
            Assert.Throws<CalibrationException>(() => CalibrationPlan.CheckDisturbed(of, disturbed)).Message;
    }

    /// <summary>Footage that a media engine takes whole leaves the processor nothing to decode.</summary>
    [Fact]
    public void A_twin_with_a_media_engine_plays_long_gop_footage_alone_and_is_advised_on()
    {
        var twin = Twin.Of(Known, Calibrated(1), Cores, 3000);
        var engine = new MediaEngine("e", 2000, [new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, new Raster(8192, 4320))]);

        foreach (var machine in new[] { twin, twin with { MediaEngines = [engine] } })
        {
            var forecaster = new Forecaster([Samples.Plan(machine, Samples.HdAvc)]);
            Assert.True(Rate(machine, Samples.HdAvc) > 0);
            Assert.True(forecaster.Weakest(machine)!.Headroom > 0);
            Assert.NotEmpty(PartChange.Of(machine, forecaster));
        }
    }

    [Fact]
    public void Nothing_that_played_long_enough_is_said()
    {
        Measure[] nothing = [new(MeasureKind.OneThread, "c0", Samples.HdAvc, null, 0, false)];
        Assert.StartsWith("No clip could be decoded", Assert.Throws<CalibrationException>(() => CalibrationFit.Of(nothing, 2, Now)).Message);
    }

    /// <summary>The conditions of Karush, Kuhn and Tucker settle that no other choice is better: no coefficient below zero, no slope at
    /// those above it, none downwards at those that are held.</summary>
    [Fact]
    public void Least_squares_without_negative_coefficients_meet_their_conditions()
    {
        var random = new Random(7);
        for (var problem = 0; problem < 300; problem++)
        {
            var rows = Enumerable.Range(0, 3 + random.Next(5))
                .Select(_ => Enumerable.Range(0, 1 + problem % 3).Select(_ => random.NextDouble()).ToArray()).ToList();
            var right = rows.Select(_ => random.NextDouble() * 2 - 0.7).ToList();
            var solved = NonNegative.Solve(rows, right);

            foreach (var (column, value) in solved.Coefficients.Index())
            {
                var slope = rows.Zip(solved.Residuals, (row, residual) => row[column] * residual).Sum();
                Assert.True(value >= 0, $"{value}");
                Assert.InRange(slope, value > 0 ? -1e-9 : double.NegativeInfinity, 1e-9);
            }
        }
    }

    private static ClipFormat Of(Codec codec, ChromaSubsampling chroma, int depth, Raster raster, int gop, double megabits) =>
        new(codec, chroma, depth, raster, Samples.Rate, gop, DataRate.FromMegabits(megabits));

    private static CalibrationPlan Plans() => new(Clips, ["c0", "c7"], ["c3", "c10"], kind => kind.TextLabel, TimeSpan.FromSeconds(0.5));

    private static Run Play(PlaybackPlan plan) =>
        new StandInPlayback(TimeProvider.System).PlayAsync(plan, new NoObserver(), CancellationToken.None).Result;

    /// <summary>Every clip takes as long on all cores by the one's costs as by the other's.</summary>
    private static void SameTogether(Machine one, Machine other) => Assert.All(
        Clips.Values, clip => Assert.InRange(Seconds(clip.Format, other) / Seconds(clip.Format, one), 0.95, 1.05));

    private static double Seconds(ClipFormat format, Machine machine) =>
        Enumerable.Range(0, format.GopLength).Average(place => DecodeCost.Of(format, machine).Seconds(format, place, Cores));

    private static double Rate(Machine machine, ClipFormat format, params Effect[] effects)
    {
        var plan = Samples.Plan(machine, format, new PlaybackSettings(Policy: PlayingPolicy.Unpaced), Raster.Uhd, effects);
        var shown = Play(plan).Frames.Select(frame => frame.Shown).OfType<TimeSpan>();
        return SustainedRate.Of([.. shown], plan.Settings);
    }

    private static CalibrationFit Calibrated(int occasion, Machine? machine = null, int cores = Cores) =>
        CalibrationFit.Of(Measures(occasion, machine ?? Known, cores), cores, Now);

    /// <summary>Each plan is an occasion of its own: what is drawn depends on it and on the place in the plan.</summary>
    private static List<Measure> Measures(int occasion, Machine machine, int cores) => [.. Plans().For(machine, cores).Index()
        .SelectMany(one => CalibrationPlan.Read(
            Play(one.Item.Plan with { Occasion = 100 * occasion + one.Index }), one.Item.Measures))];
}
