using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Advice;

/// <summary>What is best done about a brief.</summary>
public sealed class AnswerTests
{
    private static readonly Brief Wanted = new("b", "B", ["t"]) { Budget = 1500 };

    private static readonly MediaEngine Rich =
        new("e", 3000, [new FormatCapability(Codec.Hevc, ChromaSubsampling.Half, 10, new Raster(8192, 4320))]);

    /// <summary>Common practice, no source: footage that decoding limits is mended by proxies and pre-renders, and not by a preview
    /// scale.</summary>
    [Fact]
    public void Decode_bound_work_is_mended_by_proxies_and_not_by_a_preview_scale()
    {
        var remedies = Remedies.For([Plan(Samples.Machine(cores: 4, speed: 0.8))]);

        Assert.Equal(
            [
                RemedyKind.Intermediates, RemedyKind.PreRenders, RemedyKind.HalfProxies, RemedyKind.QuarterProxies, RemedyKind.HalfScale,
                RemedyKind.QuarterScale,
            ],
            remedies.Select(remedy => Assert.Single(remedy.Kinds)));
        Assert.All(remedies.Take(4), remedy => Assert.True(remedy.Suffices && remedy.Bytes > 0));
        Assert.All(remedies.Skip(4), remedy => Assert.True(remedy.IsUseless));
        Assert.Contains("decodes too slowly", AnswerWords.Gain(remedies[^1]), StringComparison.Ordinal);
    }

    /// <summary>Footage that is all-intra already is not copied, and takes no more disk.</summary>
    [Fact]
    public void Intermediates_take_disk_for_what_is_copied_and_for_nothing_else()
    {
        var longGop = Plan(Samples.Machine());
        var intra = Samples.Plan(Samples.Machine(), Samples.UhdIntermediate);
        var both = intra with
        {
            Clips = intra.Clips.Append(KeyValuePair.Create("l", longGop.Clips["c"] with { Id = "l" })).ToDictionary(),
            Timeline = intra.Timeline with
            {
                Passages = [intra.Timeline.Passages[0] with { Layers = [new Layer("c", []), new Layer("l", [])] }],
            },
        };

        var copied = Bytes(longGop) * both.Timeline.Passages[0].FrameCount / longGop.Timeline.Passages[0].FrameCount;
        Assert.Equal(0, Bytes(intra));
        Assert.True(copied > 0);
        Assert.Equal(copied, Bytes(both), 3);

        static double Bytes(PlaybackPlan plan) => StandInAids.Bytes(plan, StandInAids.AsIntermediates(plan));
    }

    /// <summary>A clip that two passages use is copied once, and whole.</summary>
    [Fact]
    public void A_clip_that_is_used_twice_is_copied_once()
    {
        var once = Plan(Samples.Machine());
        var passage = once.Timeline.Passages[0];
        var half = passage with { FrameCount = passage.FrameCount / 2 };
        var twice = once with { Timeline = once.Timeline with { Passages = [passage, half] } };

        Assert.Equal(
            StandInAids.Bytes(once, StandInAids.AsIntermediates(once)), StandInAids.Bytes(twice, StandInAids.AsIntermediates(twice)), 6);
        Assert.Equal(
            StandInAids.Preparation(once, StandInAids.AsIntermediates(once)),
            StandInAids.Preparation(twice, StandInAids.AsIntermediates(twice)));
    }

    /// <summary>What it takes to make copies and pre-renders, by the law, is how long the simulation takes to export them.</summary>
    [Theory]
    [InlineData(RemedyKind.Intermediates)]
    [InlineData(RemedyKind.QuarterProxies)]
    [InlineData(RemedyKind.PreRenders)]
    public async Task The_time_to_make_files_is_that_of_exporting_them(RemedyKind kind)
    {
        var plan = Plan(Samples.Machine(cores: 4, speed: 0.8));
        // The passage plays its clip whole.
        plan = plan with
        {
            Clips = plan.Clips.ToDictionary(
                clip => clip.Key, clip => clip.Value with { FrameCount = (int)plan.Timeline.FrameCount }),
        };
        var aided = StandInAids.Apply(Remedies.With(plan, kind));
        var written = kind == RemedyKind.PreRenders ? plan.Timeline.Raster : aided.ClipsOf(aided.Played(0))[0].Format.Raster;
        var export = plan with
        {
            Timeline = plan.Timeline with { Raster = written },
            Settings = new PlaybackSettings(Policy: PlayingPolicy.Unpaced),
            Subject = new Export(ExportFormat.Rdd36),
        };

        var took = (await new StandInPlayback(TimeProvider.System).PlayAsync(export, new NoObserver(), CancellationToken.None))
            .Frames[^1].Shown!.Value;

        var reckoned = StandInAids.Preparation(plan, aided);
        Assert.InRange(reckoned / took, 0.9, 1.05);
        var remedy = Remedies.For([plan]).Single(remedy => remedy.Kinds[0] == kind);
        Assert.Equal([(reckoned, TimeSpan.FromSeconds(4))], remedy.Made);
        var brief = new Brief("b", "B", ["t"]);
        Assert.Null(remedy.HoursAWeek(brief));
        Assert.Equal(
            10 * reckoned.TotalSeconds / 4, remedy.HoursAWeek(brief with { HoursAWeek = new Dictionary<string, double> { ["t"] = 10 } })!.Value, 9);
        Assert.Equal(TimeSpan.Zero, StandInAids.Preparation(plan, plan));
    }

    /// <summary>Common practice, no source: outside a media engine half the rate halves the load and plays; 25 frames are not
    /// halved.</summary>
    [Fact]
    public void Half_the_rate_is_a_way_only_where_the_rate_is_high()
    {
        var plan = Plan(Samples.Machine(cores: 4, speed: 0.8));
        var high = Samples.HdAvc with { Rate = new FrameRate(50), DataRate = DataRate.FromMegabits(160) };
        var fast = plan with
        {
            Machine = Samples.Machine(cores: 1, speed: 1.1),
            Timeline = plan.Timeline with { Rate = new FrameRate(50) },
            Clips = plan.Clips.ToDictionary(clip => clip.Key, clip => clip.Value with { Format = high }),
        };

        Assert.DoesNotContain(Remedies.For([plan]), remedy => remedy.Kinds.Contains(RemedyKind.HalfRate));
        Assert.Same(plan, Remedies.With(plan, RemedyKind.HalfRate));
        Assert.Equal(25, Remedies.With(fast, RemedyKind.HalfRate).Timeline.Rate.FramesPerSecond);
        Assert.Contains(Remedies.For([fast]), remedy => remedy.Kinds.Contains(RemedyKind.HalfRate));
    }

    /// <summary>Common practice, no source: work that effects limit is mended by a preview scale.</summary>
    [Fact]
    public void Effect_bound_work_is_mended_by_a_preview_scale()
    {
        var calm = Enumerable.Repeat(Effect.Of("noise-reduction"), 3).ToArray();
        var plan = Samples.Plan(
            Samples.Machine(cores: 16, graphics: new Graphics("g", 2000, 60, 8, 15.75)), Samples.UhdIntermediate, null, Raster.Uhd, calm);
        var remedies = Remedies.For([plan]);

        Assert.Contains(remedies, remedy => remedy is { Suffices: true, Kinds: [RemedyKind.QuarterScale] });
        Assert.Contains(remedies, remedy => remedy is { IsUseless: true, Kinds: [RemedyKind.HalfProxies] });
    }

    /// <summary>Every figure of a remedy is what playing with those settings comes to.</summary>
    [Fact]
    public async Task A_remedy_says_what_playing_with_its_settings_comes_to()
    {
        var settings = new PlaybackSettings { Others = new OtherPrograms(2, 0) };
        var plan = Plan(Samples.Machine(cores: 4, speed: 0.8)) with { Settings = settings };
        foreach (var remedy in Remedies.For([plan]))
        {
            var with = StandInAids.Apply(remedy.Kinds.Aggregate(plan, Remedies.With));
            var run = await new StandInPlayback(TimeProvider.System).PlayAsync(with, new NoObserver(), CancellationToken.None);
            Assert.Equal(remedy.Holding, RunFindings.Of(run).Count(finding => finding.Verdict == Verdict.Holds));
        }
    }

    /// <summary>What a way of working takes stands in the headline: for an hour of footage, or a week where the hours are stated.</summary>
    [Fact]
    public void The_headline_says_what_proxies_take()
    {
        var (brief, plan) = (Wanted with { MayUse = [RemedyKind.HalfProxies] }, Plan(Samples.Machine("weak", cores: 4, speed: 0.8)));
        var remedy = Remedies.For([plan]).Single(one => one.Kinds is [RemedyKind.HalfProxies]);
        var made = remedy with { Made = [(TimeSpan.FromHours(3), TimeSpan.FromHours(2))] };
        var forecaster = new Forecaster([plan]);
        var answer = new Answer(
            brief, AnswerKind.ChangeMethod, Check(plan.Machine), [made], [], Ladder.None, Shortlist.For(brief, [], forecaster), null);

        Assert.EndsWith(", which takes 1.5 h for each hour of footage", AnswerWords.Headline(answer), StringComparison.Ordinal);
        Assert.EndsWith(", which takes 21:00 h a week", AnswerWords.Headline(answer with
        {
            Brief = brief with { HoursAWeek = new Dictionary<string, double> { ["t"] = 14 } },
        }), StringComparison.Ordinal);
    }

    [Fact]
    public void Where_everything_holds_there_is_nothing_to_mend() =>
        Assert.Empty(Remedies.For([Plan(Samples.Machine(cores: 32, speed: 2))]));

    [Fact]
    public void First_nothing_then_another_way_then_the_cheapest_then_more_money()
    {
        var shelf = new[]
        {
            Samples.Machine("weak", cores: 4, speed: 0.8, price: 400),
            Samples.Machine("fit", cores: 8, engine: Rich, price: 1200),
        };
        var shortlist = Shortlist.For(Wanted, [.. shelf.Select(Offer.Of).OfType<Offer>()], new Forecaster([Plan(shelf[0])]));
        var remedies = Remedies.For([Plan(shelf[0])]);
        var (weak, fit) = (Check(shelf[0]), Check(shelf[1]));

        Assert.Equal("fit", Assert.Single(shortlist.Steps).Offer.Machine.Id);
        Assert.Equal(AnswerKind.KeepIt, Answer.KindOf(Wanted, fit, [], null, shortlist));
        Assert.Equal(AnswerKind.Buy, Answer.KindOf(Wanted, weak, remedies, null, shortlist));
        Assert.Equal(
            AnswerKind.ChangeMethod,
            Answer.KindOf(Wanted with { MayUse = [RemedyKind.HalfProxies] }, weak, remedies, null, shortlist));
        Assert.Equal(AnswerKind.OverBudget, Answer.KindOf(Wanted with { Budget = 1199 }, weak, remedies, null, shortlist));
        Assert.Equal(
            AnswerKind.Nothing, Answer.KindOf(Wanted, null, [], null, Shortlist.For(Wanted, [], new Forecaster([Plan(shelf[0])]))));

        // Parts for what is there go before a machine that costs more, and after one that costs less.
        var parts = Part(1100);
        Assert.Equal(AnswerKind.Upgrade, Answer.KindOf(Wanted, weak, remedies, parts, shortlist));
        Assert.Equal(AnswerKind.Buy, Answer.KindOf(Wanted, weak, remedies, Part(1201), shortlist));
        Assert.Equal(AnswerKind.OverBudget, Answer.KindOf(Wanted with { Budget = 1099 }, weak, remedies, parts, shortlist));
        Assert.Equal(AnswerKind.Buy, Answer.KindOf(Wanted with { Forms = [MachineForm.Tower] }, weak with
        {
            Machine = weak.Machine with { Form = MachineForm.Laptop },
        }, remedies, parts, shortlist));
        var upgraded = new Answer(
            Wanted, AnswerKind.Upgrade, weak, remedies, [], Ladder.None with { Path = parts }, shortlist, null);
        Assert.Equal("Put S into weak", AnswerWords.Headline(upgraded));
        Assert.Equal(
            "With that, 1,100 EUR, it plays every passage. The cheapest machine that does is fit, 1,200 EUR.", AnswerWords.Reason(upgraded));
        Assert.Equal(
            "The cheapest that plays every passage is S in weak, 1,100 EUR: 100 EUR more.",
            AnswerWords.Reason(upgraded with { Kind = AnswerKind.OverBudget, Brief = Wanted with { Budget = 1000 } }));

        Rung Part(decimal price) => new(
            [new SupplyPart("s", "S", price, 400)], shelf[0], new Forecast(0, 0, Station.Processor, 0.8),
            new Forecast(0, 0, Station.Processor, 1.2), IsUnsure: false);

        var bought = new Answer(Wanted with { Budget = 1000 }, AnswerKind.OverBudget, null, [], [], Ladder.None, shortlist, null);
        Assert.Equal("The cheapest that plays every passage is fit, 1,200 EUR: 200 EUR more.", AnswerWords.Reason(bought));
    }

    /// <summary>Common practice, no source: where the processor decodes too slowly, memory, drives and graphics gain nothing; a faster
    /// processor does, and a media engine that takes the format more.</summary>
    [Fact]
    public void What_gains_nothing_is_said_with_the_reason()
    {
        var machine = Samples.Machine(cores: 4, speed: 0.8, graphics: new Graphics("g", 9000, 300, 8, 15.75));
        var changes = PartChange.Of(machine, new Forecaster([Plan(machine)]));

        Assert.Equal([ChangedPart.MediaEngine, ChangedPart.Processor], changes.Take(2).Select(change => change.Part));
        Assert.All(changes.Take(2), change => Assert.False(change.GainsNothing));
        Assert.Equal(1.5, changes[1].After.Headroom / changes[1].Before.Headroom, 3);
        Assert.All(changes.Skip(2), change => Assert.Equal(
            "gains nothing: the processor limits first, in passage 1", AnswerWords.Gain(change)));
    }

    /// <summary>Common practice, no source: 8 GB swap where other programs stay open, and more memory is what is recommended; from 64 GB on
    /// more gains nothing, and why is said.</summary>
    [Fact]
    public void Where_memory_is_too_small_memory_is_recommended_and_beyond_that_it_gains_nothing()
    {
        var others = new PlaybackSettings { Others = new OtherPrograms(0, 6) };
        var (small, large) = (With(8), With(64));
        var parts = new Part[] { new MemoryPart("m", "M", 90, "DDR5", 2, 16, 5600), new DrivePart("d", "D", 100, DriveInterface.Sata, "SATA", 600, 500, 0.1) };

        var forecaster = new Forecaster([Plan(small) with { Settings = others }]);
        Assert.Equal(ChangedPart.Memory, PartChange.Of(small, forecaster)[0].Part);
        var ladder = Ladder.For(small, Asked.Nothing, parts, forecaster);
        Assert.Equal(["m"], ladder.Path!.Parts.Select(part => part.Id));
        var more = PartChange.Of(large, forecaster).Single(change => change.Part == ChangedPart.Memory);
        Assert.True(more.GainsNothing);
        Assert.StartsWith("gains nothing: ", AnswerWords.Gain(more), StringComparison.Ordinal);

        Machine With(double gigabytes) => Samples.Machine(
            cores: 8, engine: Rich, memory: new Memory(gigabytes, 3, 2, 3200), drive: new Drive(Drive.AllRoles, "SATA", 500, 450, 0.15)) with
        {
            Form = MachineForm.Tower, Places = new Places(MemoryKind: "DDR5", MemorySlots: 4, MostGigabytes: 128),
        };
    }

    /// <summary>Common practice, no source: where graphics compute limits, graphics twice as fast help, and a processor does not.</summary>
    [Fact]
    public void Where_effects_limit_graphics_help()
    {
        var machine = Samples.Machine(cores: 16, graphics: new Graphics("g", 2000, 60, 8, 15.75));
        var calm = Enumerable.Repeat(Effect.Of("noise-reduction"), 3).ToArray();
        var changes = PartChange.Of(
            machine, new Forecaster([Samples.Plan(machine, Samples.UhdIntermediate, null, Raster.Uhd, calm)]));

        Assert.Equal(ChangedPart.Graphics, changes[0].Part);
        Assert.InRange(changes[0].After.Headroom / changes[0].Before.Headroom, 1.5, 2.01);
        Assert.All(changes.Skip(1), change => Assert.True(change.GainsNothing));
    }

    /// <summary>A machine that plays everything does not answer a brief that asks for more than that.</summary>
    [Fact]
    public void What_is_there_is_not_kept_where_it_lacks_room_or_lies_outside_the_limits()
    {
        var machine = Samples.Machine("fit", cores: 8, engine: Rich) with { Form = MachineForm.Tower, NoiseDecibels = 40 };
        var check = Check(machine);
        var least = check.Judged.Min(passage => passage.Forecast!.Headroom);

        Assert.True(check.Answers(Wanted));
        Assert.True(check.Answers(Wanted with { Growth = least * 0.99 }));
        Assert.Equal(ExceededLimit.Room, check.Lacks(Wanted with { Growth = least * 1.01 }));
        Assert.Equal(ExceededLimit.Form, check.Lacks(Wanted with { Forms = [MachineForm.Laptop] }));
        Assert.Equal(ExceededLimit.Noise, check.Lacks(Wanted with { MostDecibels = 39 }));
        Assert.Equal(
            AnswerKind.Nothing,
            Answer.KindOf(Wanted with { MostDecibels = 39 }, check, [], null, Shortlist.For(Wanted, [], new Forecaster([Plan(machine)]))));
        Assert.Contains("less headroom than is required", AnswerWords.Of(check, Wanted with { Growth = 20 }), StringComparison.Ordinal);
    }

    [Fact]
    public void A_way_of_working_suffices_only_with_the_headroom_that_is_asked()
    {
        var plan = Plan(Samples.Machine(cores: 4, speed: 0.8));

        Assert.Contains(Remedies.For([plan]), remedy => remedy is { Suffices: true, Kinds: [RemedyKind.HalfProxies] });
        var asked = Remedies.For([plan], new Asked(10));
        Assert.Contains(asked, remedy => remedy is { Suffices: false, HasRoom: false, Kinds: [RemedyKind.HalfProxies] });
        Assert.NotEmpty(Remedies.For([Plan(Samples.Machine(cores: 8, engine: Rich))], new Asked(20)));
    }

    /// <summary>Common practice, no source: memory, a faster drive or a second graphics unit gain nothing where decoding limits.</summary>
    [Fact]
    public void What_gains_nothing_is_left_out_of_the_shortlist()
    {
        var machine = Samples.Machine("one", cores: 8, engine: Rich, price: 1000, graphics: new Graphics("g", 9000, 300, 8, 15.75));
        var more = new[]
        {
            machine, machine with { Id = "memory", Memory = machine.Memory with { Gigabytes = 128 }, Price = 1300 },
            machine with { Id = "units", Graphics = [machine.Graphics[0], machine.Graphics[0]], Price = 1400 },
            machine with { Id = "drive", Drives = [machine.Drives[0] with { ReadMegabytesPerSecond = 12000 }], Price = 1500 },
            machine with { Id = "engine", MediaEngines = [Rich with { MegapixelsPerSecond = 6000 }], Price = 1600 },
        };
        var shortlist = Shortlist.For(Wanted, [.. more.Select(Offer.Of).OfType<Offer>()], new Forecaster([Plan(machine)]));

        Assert.Equal(["one", "engine"], shortlist.Steps.Select(step => step.Offer.Machine.Id));
        Assert.Equal(3, shortlist.Counts.NoBetter);
    }

    [Fact]
    public void Limits_of_form_noise_and_battery_leave_offers_out_and_what_is_not_known_satisfies_none()
    {
        var brief = Wanted with { Forms = [MachineForm.Laptop], MostDecibels = 30 };
        ExceededLimit? Of(MachineForm? form, double? decibels) => brief.Outside(new Traits(form, decibels, HasBattery: false));

        Assert.Equal(ExceededLimit.Form, Of(MachineForm.Tower, 20));
        Assert.Equal(ExceededLimit.Noise, Of(MachineForm.Laptop, 31));
        Assert.Null(Of(MachineForm.Laptop, 30));
        Assert.Equal(ExceededLimit.FormUnknown, Of(null, 20));
        Assert.Equal(ExceededLimit.NoiseUnknown, Of(MachineForm.Laptop, null));
        Assert.Equal([ExceededLimit.FormUnknown, ExceededLimit.NoiseUnknown], brief.Unknown(default));
        Assert.Null(Wanted.Outside(default));
        Assert.Equal(ExceededLimit.Battery, (Wanted with { OnBattery = true }).Outside(default));
        Assert.Null((Wanted with { OnBattery = true }).Outside(new Traits(null, null, HasBattery: true)));
        Assert.Null(Offer.Of(Samples.Machine(price: null)));
        Assert.Null(Offer.Of(Samples.Machine() with { Kind = MachineKind.Real }));
    }

    private static readonly Brief[] Absurd =
    [
        Wanted with { Name = "" }, Wanted with { Name = "two\nlines" }, Wanted with { Id = "../x" }, Wanted with { Timelines = [] },
        Wanted with { Timelines = ["t", "t"] }, Wanted with { Timelines = [null!] }, Wanted with { Timelines = null! },
        Wanted with { Timelines = [.. Enumerable.Range(0, 21).Select(n => $"{n}")] }, Wanted with { Scale = (PreviewScale)3 },
        Wanted with { Growth = 0.5 }, Wanted with { Growth = double.NaN }, Wanted with { Others = new OtherPrograms(-1, 0) },
        Wanted with { Forms = [(MachineForm)77] }, Wanted with { MayUse = [(RemedyKind)77] }, Wanted with { MostDecibels = 0 },
        Wanted with { MostDecibels = double.NaN }, Wanted with { SessionMinutes = -1 }, Wanted with { SessionMinutes = double.NaN },
        Wanted with { Budget = 0 }, Wanted with { Budget = -1 }, Wanted with { Budget = 1e9m },
        Wanted with { MostStartSeconds = 0 }, Wanted with { MostScrubSeconds = double.NaN }, Wanted with { MostStartSeconds = 61 },
        Wanted with { HoursAWeek = new Dictionary<string, double> { ["t"] = -1 } },
        Wanted with { HoursAWeek = new Dictionary<string, double> { ["t"] = double.NaN } },
        Wanted with { HoursAWeek = new Dictionary<string, double> { ["other"] = 1 } },
        Wanted with { StoredHours = 0 }, Wanted with { StoredHours = double.NaN }, Wanted with { StoredHours = 1e7 },
    ];

    public static TheoryData<int> Briefs => new(Enumerable.Range(0, Absurd.Length));

    [Theory]
    [MemberData(nameof(Briefs))]
    public void An_absurd_brief_is_refused_with_one_reason(int place)
    {
        Assert.Single(BriefLimits.Problems(Absurd[place]));
        Assert.Throws<BriefRefusedException>(() => BriefLimits.Checked(Absurd[place]));
        Assert.Empty(BriefLimits.Problems(Wanted));
    }

    private static readonly Part[] Impossible =
    [
        new SupplyPart("s", "S", -1, 500), new SupplyPart("s", "", 1, 500), new SupplyPart("../s", "S", 1, 500),
        new SupplyPart("s", "S", 1, 0),
        new SupplyPart("s", "S", 1, double.NaN), new CoolerPart("k", "K", 1, 100, 100, 200), new MemoryPart("m", "M", 1, "", 2, 16, 5600),
        new MemoryPart("m", "M", 1, "DDR5", 0, 16, 5600), new DrivePart("d", "D", 1, (DriveInterface)9, "NVMe", 3000, 2000, 0.1),
        new CasePart("c", "C", 1, (MachineForm)99, BoardSize.Middle, 300, 160),
        new BoardPart("b", "B", 1, "A", "DDR5", 4, double.PositiveInfinity, 1, 1, 2, BoardSize.Middle),
        new ProcessorPart("p", "P", 1, "A", new Processor("P", 0, 16, 1.4, 4), 95), new ProcessorPart("p", "P", 1, "A", null!, 95),
        new GraphicsPart("g", "G", 1, new Graphics("G", -9000, 300, 8, 15.75), 150, 240), new GraphicsPart("g", "G", 1, null!, 150, 240),
    ];

    public static TheoryData<int> Parts => new(Enumerable.Range(0, Impossible.Length));

    [Theory]
    [MemberData(nameof(Parts))]
    public void An_impossible_part_is_refused(int place) => Assert.NotEmpty(PartLimits.Problems(Impossible[place]));

    private static MachineCheck Check(Machine machine) => new(
        machine,
        [.. new Forecaster([Plan(machine)]).Played(machine).SelectMany(run => RunFindings.Of(run))
            .Zip(new Forecaster([Plan(machine)]).Of(machine), (finding, forecast) => new CheckedPassage(0, finding, null, forecast))],
        IsMeasured: false);

    private static PlaybackPlan Plan(Machine machine) => Samples.Plan(machine, Samples.UhdHevc422, null, Raster.Uhd);
}
