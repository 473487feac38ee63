using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Programs;
using HardyBench.Core.Timelines;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Findings.Comparing;

/// <summary>Every planted unlike condition is named, and nothing else.</summary>
public sealed class LikeForLikeTests
{
    private static readonly RunHeader Base = new(
        new Timeline("t", "T", Raster.Uhd, new FrameRate(25), [new Passage("asked", 100, [new Layer("c", [])], [])]),
        Samples.Machine(
            engine: new MediaEngine("e", 1000, [new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Uhd)]),
            graphics: new Graphics("g", 5000, 250, 8, 15.75),
            cooling: new Cooling(false, 0.4, 200, 24, 95, 30, 120, 100, 40)
        ) with
        {
            OperatingSystem = "one",
        },
        new PlaybackSettings(),
        new Conditions(
            "player 1",
            "6.1",
            [0, 1, 2, 3],
            0.05,
            true,
            null,
            new MachineState("performance", true, null, null, null, null, null, 4),
            new Dictionary<string, FootageState> { ["c"] = new("sda", "solid state", 1, "processor", null) },
            Effects: new Dictionary<string, EffectState> { ["blur"] = new("processor", null) }),
        new Dictionary<string, string> { ["c"] = "abcdef0123456789" },
        DateTimeOffset.UnixEpoch);

    public static TheoryData<Condition, Func<RunHeader, RunHeader>> Planted => new()
    {
        { Condition.TimelineRaster, run => run with { Timeline = run.Timeline with { Raster = Raster.Hd } } },
        { Condition.TimelineRate, run => run with { Timeline = run.Timeline with { Rate = new FrameRate(50) } } },
        { Condition.Footage, run => run with { ClipChecksums = new Dictionary<string, string> { ["c"] = "0000000000000000" } } },
        { Condition.PreviewScale, run => run with { Settings = run.Settings with { Scale = PreviewScale.Half } } },
        { Condition.Policy, run => run with { Settings = run.Settings with { Policy = PlayingPolicy.KeepFrames } } },
        { Condition.LookAhead, run => run with { Settings = run.Settings with { LookAhead = 12 } } },
        { Condition.PreviewPictures, run => run with { Settings = run.Settings with { Pictures = true } } },
        { Condition.AutomaticScale, run => run with { Settings = run.Settings with { AutomaticScale = true } } },
        { Condition.Proxies, run => run with { Settings = run.Settings with { Proxies = Proxies.Half } } },
        { Condition.PreRenders, run => run with { Settings = run.Settings with { PreRenders = true } } },
        { Condition.FileCache, run => run with { Settings = run.Settings with { Cache = FileCache.Cold } } },
        { Condition.DecodeAskedOn, run => run with { Settings = run.Settings with { DecodeOn = "vaapi" } } },
        { Condition.EffectsAskedOn, run => run with { Settings = run.Settings with { EffectsOn = "opencl" } } },
        { Condition.Threads, run => run with { Settings = run.Settings with { Threads = 2 } } },
        { Condition.Player, run => Under(run, conditions => conditions with { Player = "player 2" }) },
        { Condition.Kernel, run => Under(run, conditions => conditions with { Kernel = "6.2" }) },
        { Condition.UsableCores, run => Under(run, conditions => conditions with { UsableCores = [0, 1] }) },
        { Condition.OtherLoad, run => Under(run, conditions => conditions with { OtherLoad = 1.2 }) },
        { Condition.Power, run => Under(run, conditions => conditions with { Machine = conditions.Machine! with { OnMains = false } }) },
        {
            Condition.Governor,
            run => Under(run, conditions => conditions with { Machine = conditions.Machine! with { Governor = "powersave" } })
        },
        { Condition.PresenterPriority, run => Under(run, conditions => conditions with { PresenterPriority = false }) },
        { Condition.PagesOpen, run => Under(run, conditions => conditions with { PagesHere = 2 }) },
        {
            Condition.DecodedOn,
            run => Under(run, conditions => conditions with { Footage = Footage(state => state with { DecodedOn = "vaapi" }) })
        },
        {
            Condition.Cached,
            run => Under(run, conditions => conditions with { Footage = Footage(state => state with { CachedShare = 0.1 }) })
        },
        {
            Condition.EffectRanOn,
            run =>
                Under(
                    run,
                    conditions => conditions with { Effects = new Dictionary<string, EffectState> { ["blur"] = new("opencl", null) } }
                )
        },
        {
            Condition.Graphics,
            run => run with { Machine = run.Machine with { Graphics = [.. run.Machine.Graphics, .. run.Machine.Graphics] } }
        },
        {
            Condition.MediaDrive,
            run => run with { Machine = run.Machine with { Drives = [run.Machine.Drives[0] with { Kind = "SATA" }] } }
        },
        { Condition.MediaDrive, run => Drive(run, drive => drive with { LatencyMilliseconds = 9 }) },
        { Condition.MediaDrive, run => Drive(run, drive => drive with { WriteMegabytesPerSecond = 77 }) },
        { Condition.MediaDrive, run => Drive(run, drive => drive with { Roles = [DriveRole.Media] }) },
        { Condition.Graphics, run => Graphics(run, unit => unit with { BusGigabytesPerSecond = 4 }) },
        { Condition.Graphics, run => Graphics(run, unit => unit with { BandwidthGigabytesPerSecond = 99 }) },
        { Condition.MediaEngine, run => Engine(run, engine => engine with { Encodes = [Hevc] }) },
        { Condition.MediaEngine, run => Engine(run, engine => engine with { Capabilities = [Hevc] }) },
        { Condition.Cooling, run => Cooling(run, cooling => cooling with { Fanless = true }) },
        { Condition.Cooling, run => Cooling(run, cooling => cooling with { CapacityJoulesPerKelvin = 99 }) },
        { Condition.Cooling, run => Cooling(run, cooling => cooling with { AmbientCelsius = 35 }) },
        { Condition.Cooling, run => Cooling(run, cooling => cooling with { LimitCelsius = 80 }) },
        { Condition.Cooling, run => Cooling(run, cooling => cooling with { IdleWatts = 5 }) },
        { Condition.PowerLimit, run => run with { Machine = run.Machine with { OnBattery = true } } },
        { Condition.OperatingSystem, run => run with { Machine = run.Machine with { OperatingSystem = "another" } } },
        { Condition.DriverDate, run => run with { Machine = run.Machine with { DriverDate = new DateOnly(2026, 1, 2) } } },
    };

    public static TheoryData<string, string, Func<Machine, Machine>> PlantedFigures => new()
    {
        { "processor.relativeCoreSpeed", "core speed", machine => machine with { Processor = machine.Processor with { RelativeCoreSpeed = 1.2 } } },
        { "memory.gigabytes", "memory", machine => machine with { Memory = machine.Memory with { Gigabytes = 64 } } },
        {
            "memory.megatransfersPerSecond", "memory speed",
            machine => machine with { Memory = machine.Memory with { MegatransfersPerSecond = 5600 } }
        },
        { "memory.sticks", "number of memory sticks", machine => machine with { Memory = machine.Memory with { Sticks = 4 } } },
        { "memory.channels", "number of memory channels", machine => machine with { Memory = machine.Memory with { Channels = 4 } } },
    };

    [Theory]
    [MemberData(nameof(PlantedFigures))]
    public void A_planted_difference_of_a_number_is_named_and_nothing_else(string path, string words, Func<Machine, Machine> change)
    {
        var difference = Assert.Single(LikeForLike.Differences(Base, "same", Base with { Machine = change(Base.Machine) }, "same"));

        Assert.Equal((Condition.Figure, path), (difference.What, difference.Of));
        Assert.True(difference.IsOfMachine);
        Assert.NotEqual(difference.Base, difference.Other);
        Assert.Equal(words, ComparisonWords.About(difference));
    }

    [Theory]
    [MemberData(nameof(Planted))]
    public void A_planted_difference_is_named_and_nothing_else(Condition planted, Func<RunHeader, RunHeader> change)
    {
        var difference = Assert.Single(LikeForLike.Differences(Base, "same", change(Base), "same"));

        Assert.Equal(planted, difference.What);
        Assert.Equal(planted >= Condition.Processor, difference.IsOfMachine);
        Assert.NotEqual(difference.Base, difference.Other);
        Assert.NotEmpty(ComparisonWords.About(difference));
    }

    /// <summary>Where a clip was decoded follows from what was asked, from the engine and from the program; the cause is enough.</summary>
    [Theory]
    [MemberData(nameof(Causes))]
    public void A_consequence_is_not_listed_beside_its_cause(Condition cause, Func<RunHeader, RunHeader> change)
    {
        var elsewhere = Under(change(Base), conditions => conditions with
        {
            Footage = Footage(state => state with { DecodedOn = WorkPlace.MediaEngine }),
        });

        Assert.Equal(cause, Assert.Single(LikeForLike.Differences(Base, "same", elsewhere, "same")).What);
    }

    public static TheoryData<Condition, Func<RunHeader, RunHeader>> Causes => new()
    {
        { Condition.DecodeAskedOn, run => run with { Settings = run.Settings with { DecodeOn = WorkPlace.Processor } } },
        { Condition.MediaEngine, run => Engine(run, engine => engine with { Capabilities = [Hevc] }) },
        { Condition.Program, run => run with { Settings = run.Settings with { Program = Cutter } } },
    };

    [Fact]
    public void Programs_of_one_name_with_other_settings_are_told_apart()
    {
        var one = Base with { Settings = Base.Settings with { Program = Cutter } };
        var other = Base with { Settings = Base.Settings with { Program = Cutter with { DecoderCores = 4, InColour = true } } };

        Assert.Equal(
            ["editing program: decoder cores: not stated → 4", "editing program: in colour: false → true"],
            LikeForLike.Differences(one, "same", other, "same")
                .Select(one => $"{ComparisonWords.About(one)}: {one.Base ?? "not stated"} → {one.Other}"));
    }

    [Fact]
    public void Sides_say_where_their_work_ran_when_they_differ_in_it()
    {
        var first = WhereWorkRan.Of(Base.Conditions);
        var second = WhereWorkRan.Of(Base.Conditions with { Footage = Footage(state => state with { DecodedOn = WorkPlace.MediaEngine }) });

        Assert.False(WhereWorkRan.Differ([first, WhereWorkRan.Of(Base.Conditions)]));
        Assert.True(WhereWorkRan.Differ([first, second]));
        Assert.Equal("Decoding on media engine; effects on processor.", ComparisonWords.Of(second));
    }

    private static readonly EditingProgram Cutter = new("cutter", "Cutter");

    [Fact]
    public void Like_is_like() =>
        Assert.Empty(LikeForLike.Differences(Base, "same", Base with { StartedAt = DateTimeOffset.UtcNow }, "same"));

    [Fact]
    public void An_edited_timeline_under_the_same_title_is_told_apart()
    {
        var difference = Assert.Single(LikeForLike.Differences(Base, "aaaaaaaaaaaa", Base, "bbbbbbbbbbbb"));

        Assert.Equal((Condition.Timeline, "T (aaaaaaaa)", "T (bbbbbbbb)"), (difference.What, difference.Base, difference.Other));
    }

    [Fact]
    public void Every_condition_has_words_of_its_own()
    {
        var words = Enum.GetValues<Condition>().Where(what => what != Condition.Figure).Select(what => ComparisonWords.About(what, null))
            .Concat(MachineFigures.All.Where(figure => figure.IsCompared)
                .Select(figure => ComparisonWords.About(Condition.Figure, figure.Path)))
            .ToList();

        Assert.Equal(words.Count, words.Distinct().Count());
    }

    private static readonly FormatCapability Hevc = new(Codec.Hevc, ChromaSubsampling.Half, 10, Raster.Uhd);

    private static RunHeader Drive(RunHeader run, Func<Drive, Drive> change) =>
        run with { Machine = run.Machine with { Drives = [change(run.Machine.Drives[0])] } };

    private static RunHeader Graphics(RunHeader run, Func<Graphics, Graphics> change) =>
        run with { Machine = run.Machine with { Graphics = [change(run.Machine.Graphics[0])] } };

    private static RunHeader Engine(RunHeader run, Func<MediaEngine, MediaEngine> change) =>
        run with { Machine = run.Machine with { MediaEngines = [change(run.Machine.MediaEngines[0])] } };

    private static RunHeader Cooling(RunHeader run, Func<Cooling, Cooling> change) =>
        run with { Machine = run.Machine with { Cooling = change(run.Machine.Cooling!) } };

    private static Dictionary<string, FootageState> Footage(Func<FootageState, FootageState> change) =>
        new() { ["c"] = change(Base.Conditions.Footage!["c"]) };

    private static RunHeader Under(RunHeader run, Func<Conditions, Conditions> change) => run with { Conditions = change(run.Conditions) };
}
