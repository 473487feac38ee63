using HardyBench.Core.Footage;
using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Programs;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.StandIns;

/// <summary>What an editing program does with a machine, trait by trait.</summary>
public sealed class ProgramTests
{
    private static readonly Graphics Unit = new("g", 10000, 500, 8, 12);
    private static readonly MediaEngine Engine =
        new("e", 500, [new FormatCapability(Codec.Hevc, ChromaSubsampling.Half, 10, new Raster(8192, 8192))]);

    private static readonly EditingProgram Plain = new("plain", "Plain");

    [Fact]
    public void A_program_of_defaults_is_the_own_player()
    {
        var effects = new[] { Effect.Of("noise-reduction"), Effect.Of("primary-grade") };
        var own = Demand(null, Samples.UhdHevc422, effects);
        var plain = Demand(Plain, Samples.UhdHevc422, effects);

        Assert.All(Enum.GetValues<Station>(), station => Assert.Equal(own.DemandSeconds(station), plain.DemandSeconds(station)));
        Assert.Equal((own.MemoryBytes, own.GraphicsMemoryBytes), (plain.MemoryBytes, plain.GraphicsMemoryBytes));
    }

    [Fact]
    public void What_is_not_handed_over_is_decoded_on_the_processor_and_said()
    {
        var demand = Demand(
            Plain with
            {
                OnMediaEngine = [new(Codec.Hevc, ChromaSubsampling.Quarter, 10, Raster.Uhd)],
            },
            Samples.UhdHevc422
        );

        Assert.Equal(0, demand.DemandSeconds(Station.MediaEngine));
        Assert.True(demand.DemandSeconds(Station.Processor) > 0);
        Assert.Equal(["the editing program does not send it HEVC"], demand.SilentFallbacks.Select(MachineWords.Of));
        Assert.True(Demand(Plain, Samples.UhdHevc422).DemandSeconds(Station.MediaEngine) > 0);
    }

    [Fact]
    public void Composing_on_the_processor_leaves_graphics_idle_and_brings_decoded_frames_back()
    {
        var demand = Demand(Plain with { ComposesOn = ComposingPlace.Processor }, Samples.UhdHevc422, Effect.Of("blur"));

        Assert.Equal((0, 0), (demand.DemandSeconds(Station.Graphics), demand.GraphicsMemoryBytes));
        Assert.True(demand.DemandSeconds(Station.Processor) > 0);
        Assert.Equal(Samples.UhdHevc422.BytesPerDecodedFrame / 12e9, demand.DemandSeconds(Station.Bus), 6);
    }

    /// <summary>Common practice, no source: a smaller timeline does not help where effects work on the clip's own raster.</summary>
    [Fact]
    public void Effects_at_the_clips_raster_cost_the_same_on_any_timeline()
    {
        var atClip = Plain with { EffectsAt = EffectRaster.Clip };

        Assert.Equal(Effects(atClip, Raster.Uhd), Effects(atClip, Raster.Hd), 6);
        Assert.InRange(Effects(Plain, Raster.Uhd) / Effects(Plain, Raster.Hd), 3.9, 4.1);

        static double Effects(EditingProgram program, Raster raster)
        {
            var demand = Demand(program, Samples.UhdIntermediate, raster, Effect.Of("noise-reduction"));
            return demand.DemandSeconds(Station.Graphics)
                - Demand(program, Samples.UhdIntermediate, raster).DemandSeconds(Station.Graphics);
        }
    }

    /// <summary>Once for each layer, at the processed raster, and no more for effects that work in colour.</summary>
    [Fact]
    public void A_program_that_works_in_colour_converts_every_layer_one_way()
    {
        var inColour = Plain with { InColour = true };

        Assert.Equal(
            EffectCost.ToColour.Nanoseconds!.Value, NanosecondsOf(inColour, 1) - NanosecondsOf(Plain, 1), 6);
        Assert.Equal(
            EffectCost.ToColour.Nanoseconds.Value - EffectCost.ToColourAndBack.Nanoseconds!.Value,
            NanosecondsOf(inColour, 1, Effect.Of("primary-grade")) - NanosecondsOf(Plain, 1, Effect.Of("primary-grade")), 6);
        Assert.Equal(NanosecondsOf(inColour, 1), 4 * NanosecondsOf(inColour, 2), 6);

        // Of a pixel of the timeline, on footage of the processed raster.
        static double NanosecondsOf(EditingProgram program, int divisor, params Effect[] effects) =>
            TreatmentCost
                .Of(
                    new Passage("asked", 100, [new Layer("c", effects)], []), [Samples.HdAvc with { Raster = Raster.Hd.DividedBy(divisor) }],
                    Raster.Hd.DividedBy(divisor), deep: false, inColour: program.InColour)
                .Sum(piece => piece.CoreSeconds) * 1e9 / Raster.Hd.Pixels;
    }

    [Fact]
    public void An_effect_on_one_core_keeps_one_core_busy_and_is_the_limiter()
    {
        var run = Play(
            Plain with
            {
                OnOneCore = ["noise-reduction"],
            },
            Samples.HdAvc,
            Effect.Of("noise-reduction"),
            Effect.Of("noise-reduction"),
            Effect.Of("noise-reduction"), Effect.Of("noise-reduction"), Effect.Of("noise-reduction"));

        Assert.Equal(Limiter.SingleThread, Assert.Single(RunFindings.Of(run)).Limiter!.Limiter);
    }

    /// <summary>Amdahl (1967): four cores decode so many times faster than one as his law says, and no more than four are busy.</summary>
    [Fact]
    public void A_decoder_with_few_cores_takes_as_long_as_they_need_and_loads_no_others()
    {
        var (one, all) = (
            Demand(Plain with { DecoderCores = 1 }, Samples.UhdIntermediate, cores: 8),
            Demand(Plain, Samples.UhdIntermediate, cores: 8)
        );

        var speedUp = DecodeCost.Of(Codec.Rdd36).SpeedUp(8);
        Assert.Equal(speedUp, one.DemandSeconds(Station.DecoderCores) / all.DemandSeconds(Station.Processor), 4);
        Assert.Equal((0, 1), (one.DemandSeconds(Station.Processor), one.CoresDecoding));

        var run = Play(Plain with { DecoderCores = 1 }, Samples.UhdIntermediate);
        var busy = run.Loads.Where(load => load.Kind == LoadKind.OwnDecode).Select(load => load.Value).ToList();
        Assert.InRange(busy.Max(), 0.99, 1.01);
        Assert.Equal(Limiter.SingleThread, Assert.Single(RunFindings.Of(run)).Limiter!.Limiter);
    }

    /// <summary>Whatever the format and the machine, a decoder that its program gives one core is found to be the limit where it is the
    /// slowest part by a fifth.</summary>
    [Fact]
    public void A_decoder_with_one_core_that_limits_is_named()
    {
        ClipFormat[] formats =
        [
            Samples.HdAvc, Samples.HdAvc with { GopLength = 12 }, Samples.UhdHevc422, Samples.UhdHevc422 with { GopLength = 25 },
            Samples.UhdIntermediate,
        ];
        var judged = 0;
        for (var seed = 0; seed < 200; seed++)
        {
            var random = new Random(seed);
            var machine = Samples.Machine(cores: 4 + random.Next(13), speed: 0.2 + random.NextDouble());
            var settings = new PlaybackSettings { Program = Plain with { DecoderCores = 1 } };
            Effect[] effects = random.Next(2) == 0 ? [] : [Effect.Of("blur")];
            var plan = Samples.Plan(machine, formats[random.Next(formats.Length)], settings, null, effects);
            var demand = CostModel.DemandOf(plan, plan.Timeline.Passages[0]);
            var decoder = demand.DemandSeconds(Station.DecoderCores);
            if (demand.SecondsByStation().Max() > 1.0001 * decoder || 1.2 * demand.SecondsByStation().Order().ElementAt(^2) > decoder)
            {
                continue;
            }

            var finding = RunFindings.Of(Played(plan)).Single();
            if (finding.Verdict is Verdict.Breaks)
            {
                judged++;
                Assert.True(
                    finding.Limiter!.Limiter == Limiter.SingleThread,
                    $"{finding.Limiter.Limiter}, seed {seed}, {finding.Counts.ShownRate:0.0} shown, {1 / decoder:0.0} decoded");
            }
        }

        Assert.True(judged > 80, $"{judged} passages say too little");
    }

    /// <summary>Utilisation law: busy cores add up to the work done, whichever way it is spread.</summary>
    [Fact]
    public void Cores_are_as_busy_as_decoding_and_effects_keep_them()
    {
        var run = Play(Plain with { DecoderCores = 2, ComposesOn = ComposingPlace.Processor }, Samples.UhdIntermediate, Effect.Of("blur"));
        var cores = run.Header.Machine.Processor.Cores;

        foreach (var at in run.Loads.Where(load => load.Kind != LoadKind.WastedWork).GroupBy(load => load.At))
        {
            var all = at.Where(load => load.Kind == LoadKind.Core).Sum(load => load.Value);
            var own = at.Single(load => load.Kind == LoadKind.OwnProcess).Value;
            Assert.InRange(own, all - 0.3, all + 0.3);
            Assert.InRange(all, 0, cores + 0.001);
        }
    }

    [Fact]
    public void Two_layers_on_one_core_each_take_no_longer_than_one()
    {
        var program = Plain with { DecoderCores = 1 };
        var plan = Samples.Plan(Samples.Machine(cores: 8), Samples.UhdIntermediate, new PlaybackSettings { Program = program });
        var twice = plan.Timeline.Passages[0] with { Layers = [plan.Timeline.Passages[0].Layers[0], plan.Timeline.Passages[0].Layers[0]] };

        var (one, two) = (CostModel.DemandOf(plan, plan.Timeline.Passages[0]), CostModel.DemandOf(plan, twice));
        Assert.Equal(one.DemandSeconds(Station.DecoderCores), two.DemandSeconds(Station.DecoderCores), 6);
        Assert.Equal(2, two.CoresDecoding, 6);
    }

    [Fact]
    public void Reserved_memory_is_what_makes_a_small_machine_swap()
    {
        var machine = Samples.Machine(memory: new Memory(8, 2, 2, 3200));
        Assert.Equal(0, Demand(Plain, Samples.UhdIntermediate, machine).SwapBytesPerFrame);
        Assert.True(Demand(Plain with { ReservesGigabytes = 7 }, Samples.UhdIntermediate, machine).SwapBytesPerFrame > 0);
    }

    [Fact]
    public void A_smaller_preview_saves_decoding_only_where_the_program_makes_use_of_it()
    {
        var wavelet = Samples.UhdIntermediate with { Codec = Codec.Jpeg2000 };
        var (plain, smaller) = (Quarter(Plain, wavelet), Quarter(Plain with { DecodesSmaller = true }, wavelet));
        Assert.Equal(Demand(Plain, wavelet).DemandSeconds(Station.Processor), plain, 6);
        Assert.True(smaller < plain);
        Assert.Equal(Quarter(Plain, Samples.UhdIntermediate), Quarter(Plain with { DecodesSmaller = true }, Samples.UhdIntermediate), 6);

        static double Quarter(EditingProgram program, ClipFormat format)
        {
            var settings = new PlaybackSettings(PreviewScale.Quarter) { Program = program };
            var plan = Samples.Plan(Samples.Machine(graphics: Unit), format, settings);
            return CostModel.DemandOf(plan, plan.Timeline.Passages[0]).DemandSeconds(Station.Processor);
        }
    }

    [Fact]
    public void It_drops_or_falls_behind_as_the_program_does()
    {
        var overload = Enumerable.Repeat(Effect.Of("noise-reduction"), 6).ToArray();
        var (keeps, falls) = (
            Play(Plain with { ComposesOn = ComposingPlace.Processor }, Samples.UhdIntermediate, overload),
            Play(
                Plain with
                {
                    ComposesOn = ComposingPlace.Processor,
                    WhenLate = PlayingPolicy.KeepFrames,
                },
                Samples.UhdIntermediate,
                overload
            )
        );

        Assert.Contains(keeps.Frames, frame => frame.Status == FrameStatus.Dropped);
        Assert.DoesNotContain(falls.Frames, frame => frame.Status == FrameStatus.Dropped);

        // What a run is judged by is what was played, not what was asked.
        Assert.Equal(PlayingPolicy.KeepFrames, falls.Header.Settings.Policy);
        Assert.True(RunFindings.Of(falls)[0].Counts.Slip > TimeSpan.FromSeconds(1));
        Assert.NotEqual(Verdict.Holds, RunFindings.Of(falls)[0].Verdict);
    }

    [Fact]
    public void The_program_is_a_condition_of_a_run()
    {
        var (own, plain) = (Play(null, Samples.HdAvc).Header, Play(Plain with { LookAhead = 20 }, Samples.HdAvc).Header);

        Assert.Equal(
            [(Condition.Program, "Hardy Bench player", "Plain")],
            LikeForLike.Differences(own, "digest", plain, "digest").Select(one => (one.What, one.Base, one.Other)));
        Assert.False(plain.Settings.IsBare);
        Assert.Equal(["as Plain would play"], plain.Settings.Differences());
    }

    [Fact]
    public void What_is_changed_besides_the_program_is_said_and_what_it_decides_is_not()
    {
        var settings = new PlaybackSettings(Cache: FileCache.Cold)
        {
            Program = Plain with { LookAhead = 20, WhenLate = PlayingPolicy.KeepFrames },
        };

        Assert.Equal(["as Plain would play", "footage cold"], settings.Differences());
        Assert.Equal(["as Plain would play", "footage cold"], settings.Effective().Differences());
        Assert.Equal(PlayingPolicy.Unpaced, (settings with { Policy = PlayingPolicy.Unpaced }).Effective().Policy);
    }

    [Fact]
    public void A_real_machine_plays_with_the_own_player_only()
    {
        var plan = Samples.Plan(
            Samples.Machine() with { Kind = MachineKind.Real }, Samples.HdAvc, new PlaybackSettings { Program = Plain });

        var refused = Assert.Throws<PlanRefusedException>(() => plan.Checked());
        Assert.Equal(
            "This machine plays with the Hardy Bench player only. Choose a stand-in to simulate Plain.", refused.Message);
    }

    private static readonly EditingProgram[] Impossible =
    [
        Plain with { Name = "" }, Plain with { Name = new string('n', 81) }, Plain with { Name = "two\nlines" }, Plain with { Id = "../x" },
        Plain with { Summary = new string('s', 201) }, Plain with { DecoderCores = 0 }, Plain with { DecoderCores = 65 },
        Plain with { GraphicsUnits = 0 }, Plain with { LookAhead = 0 }, Plain with { LookAhead = 121 },
        Plain with { ReservesGigabytes = -1 }, Plain with { ReservesGigabytes = double.NaN }, Plain with { ReservesGigabytes = 1e9 },
        Plain with { WhenLate = PlayingPolicy.Unpaced }, Plain with { WhenLate = (PlayingPolicy)9 }, Plain with { OnOneCore = ["sparkle"] },
        Plain with { OnOneCore = [null!] }, Plain with { OnMediaEngine = [null!] }, Plain with { RendersAt = (PreviewScale)3 },
        Plain with { OnMediaEngine = [new(Codec.Avc, ChromaSubsampling.Quarter, 99, Raster.Uhd)] },
    ];

    public static TheoryData<int> Wrong => new(Enumerable.Range(0, Impossible.Length));

    [Theory]
    [MemberData(nameof(Wrong))]
    public void A_program_that_cannot_be_is_refused_with_one_reason(int place)
    {
        Assert.Single(ProgramLimits.Problems(Impossible[place]));
        Assert.Throws<ProgramRefusedException>(() => ProgramLimits.Checked(Impossible[place]));
        Assert.Empty(ProgramLimits.Problems(Plain));
    }

    private static PassageDemand Demand(EditingProgram? program, ClipFormat format, params Effect[] effects) =>
        Demand(program, format, Raster.Hd, effects);

    private static PassageDemand Demand(EditingProgram? program, ClipFormat format, Raster raster, params Effect[] effects)
    {
        var machine = Samples.Machine(engine: Engine, graphics: Unit);
        var plan = Samples.Plan(machine, format, new PlaybackSettings { Program = program }, raster, effects);
        return CostModel.DemandOf(plan, plan.Timeline.Passages[0]);
    }

    private static PassageDemand Demand(EditingProgram program, ClipFormat format, int cores) =>
        Demand(program, format, Samples.Machine(cores: cores, graphics: Unit));

    private static PassageDemand Demand(EditingProgram program, ClipFormat format, Machine machine)
    {
        var plan = Samples.Plan(machine, format, new PlaybackSettings { Program = program });
        return CostModel.DemandOf(plan, plan.Timeline.Passages[0]);
    }

    private static Run Play(EditingProgram? program, ClipFormat format, params Effect[] effects)
    {
        var plan = Samples.Plan(
            Samples.Machine(cores: 8, graphics: Unit), format, new PlaybackSettings { Program = program }, Raster.Uhd, effects);
        return Played(plan);
    }

    private static Run Played(PlaybackPlan plan) =>
        new StandInPlayback(TimeProvider.System).PlayAsync(plan, new NoObserver(), CancellationToken.None).Result;
}
