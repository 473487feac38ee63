using HardyBench.Core.Findings.Limiters;
using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Findings;

public sealed class LimiterRulesTests
{
    private static readonly Conditions Cores = new("p", null, [0, 1], null, null, null);

    private static readonly (LoadKind, int, float)[] FullMemory =
        [(LoadKind.SwapTraffic, 0, 5e6f), (LoadKind.MemoryUsed, 0, 15.9e9f), (LoadKind.MemoryFitted, 0, 16e9f)];

    private static readonly (LoadKind, int, float)[] Hot =
    [
        (LoadKind.Clock, 0, 1.2e9f),
        (LoadKind.RatedClock, 0, 2.4e9f),
        (LoadKind.Temperature, 0, 92),
    ];

    /// <summary>What limits, what would limit next, and the loads that say so.</summary>
    public static TheoryData<Limiter, Limiter?, (LoadKind, int, float)[]> Cases => new()
    {
        // Memory: full and swapping, both.
        { Limiter.Memory, Limiter.ProcessorDecode, [.. FullMemory, .. Busy(1, 1, 2, 0)] },
        { Limiter.Memory, null, [.. FullMemory, .. Busy(0.3f, 0.3f, 0.5f, 0)] },
        { Limiter.Memory, Limiter.Drive, [.. FullMemory, (LoadKind.DriveBusy, 0, 0.99f), .. Busy(0.3f, 0.3f, 0.5f, 0)] },
        { Limiter.Unknown, null, [(LoadKind.MemoryUsed, 0, 15.9e9f), (LoadKind.MemoryFitted, 0, 16e9f), .. Busy(0.3f, 0.3f, 0.5f, 0)] },
        {
            Limiter.Unknown,
            null,
            [
                (LoadKind.SwapTraffic, 0, 5e6f),
                (LoadKind.MemoryUsed, 0, 8e9f),
                (LoadKind.MemoryFitted, 0, 16e9f),
                .. Busy(0.3f, 0.3f, 0.5f, 0),
            ]
        },

        // Memory that a control group does not give, whatever is free.
        { Limiter.Memory, null, [(LoadKind.MemoryPressure, 0, 0.3f), .. Busy(0.3f, 0.3f, 0.5f, 0)] },
        { Limiter.Unknown, null, [(LoadKind.MemoryPressure, 0, 0.2f), .. Busy(0.3f, 0.3f, 0.5f, 0)] },
        { Limiter.Memory, Limiter.Drive, [.. FullMemory, (LoadKind.FootageWait, 1, 0.9f), .. Busy(0.3f, 0.3f, 0.5f, 0)] },

        // A drive that the system does not call busy, known by the clip that waits longest.
        { Limiter.Drive, null, [(LoadKind.FootageWait, 0, 0.2f), (LoadKind.FootageWait, 1, 0.9f), .. Busy(0.1f, 0.1f, 0.1f, 0)] },
        { Limiter.Unknown, null, [(LoadKind.FootageWait, 0, 0.8f), (LoadKind.FootageWait, 1, 0.8f), .. Busy(0.1f, 0.1f, 0.1f, 0)] },
        { Limiter.ProcessorDecode, Limiter.Drive, [(LoadKind.FootageWait, 0, 0.9f), .. Busy(0.98f, 0.98f, 1.8f, 0)] },

        // Devices, the busiest of several.
        { Limiter.MediaEngine, null, [(LoadKind.MediaEngineBusy, 0, 0.97f), .. Busy(0.2f, 0.2f, 0.2f, 0)] },
        {
            Limiter.MediaEngine,
            null,
            [(LoadKind.MediaEngineBusy, 0, 0.4f), (LoadKind.MediaEngineBusy, 1, 0.96f), .. Busy(0.2f, 0.2f, 0.2f, 0)]
        },
        {
            Limiter.MediaEngine,
            Limiter.GraphicsEffects,
            [(LoadKind.MediaEngineBusy, 0, 0.97f), (LoadKind.GraphicsBusy, 0, 0.99f), .. Busy(0.2f, 0.2f, 0.2f, 0)]
        },
        { Limiter.Unknown, null, [(LoadKind.MediaEngineBusy, 0, 0.94f), .. Busy(0.2f, 0.2f, 0.2f, 0)] },
        { Limiter.GraphicsEffects, null, [(LoadKind.GraphicsBusy, 0, 0.99f), .. Busy(0.3f, 0.3f, 0.5f, 0)] },
        {
            Limiter.GraphicsEffects,
            null,
            [(LoadKind.GraphicsBusy, 0, 0.5f), (LoadKind.GraphicsBusy, 1, 0.98f), .. Busy(0.3f, 0.3f, 0.5f, 0)]
        },
        { Limiter.GraphicsEffects, Limiter.ProcessorDecode, [(LoadKind.GraphicsBusy, 0, 0.99f), .. Busy(0.97f, 0.97f, 1.7f, 0)] },
        {
            Limiter.GraphicsEffects,
            Limiter.Bus,
            [(LoadKind.GraphicsBusy, 0, 0.96f), (LoadKind.BusBusy, 0, 0.97f), .. Busy(0.3f, 0.3f, 0.5f, 0)]
        },
        { Limiter.Drive, null, [(LoadKind.DriveBusy, 0, 0.99f), .. Busy(0.2f, 0.2f, 0.3f, 0)] },
        { Limiter.Drive, Limiter.Bus, [(LoadKind.DriveBusy, 0, 0.99f), (LoadKind.BusBusy, 0, 0.99f), .. Busy(0.2f, 0.2f, 0.3f, 0)] },
        { Limiter.Bus, null, [(LoadKind.BusBusy, 0, 0.98f), .. Busy(0.2f, 0.2f, 0.3f, 0)] },

        // The processor: one matter, whatever fills it, whatever keeps it down.
        { Limiter.Heat, null, [.. Hot, .. Busy(1, 1, 2, 0)] },
        { Limiter.Heat, Limiter.Drive, [.. Hot, (LoadKind.DriveBusy, 0, 0.97f), .. Busy(1, 1, 2, 0)] },
        { Limiter.Unknown, null, [.. Hot, .. Busy(0.5f, 0.5f, 0.9f, 0)] },
        {
            Limiter.ProcessorDecode,
            null,
            [(LoadKind.Clock, 0, 2.35e9f), (LoadKind.RatedClock, 0, 2.4e9f), (LoadKind.Temperature, 0, 92), .. Busy(1, 1, 2, 0)]
        },
        { Limiter.ProcessorDecode, null, Busy(0.95f, 0.97f, 1.7f, 0.2f) },
        { Limiter.ProcessorDecode, null, Busy(1, 1, 0.95f, 0.95f) },
        { Limiter.ProcessorEffects, null, Busy(0.95f, 0.97f, 0.4f, 1.5f) },
        { Limiter.ProcessorEffects, Limiter.Drive, [(LoadKind.DriveBusy, 0, 0.96f), .. Busy(0.95f, 0.97f, 0.4f, 1.5f)] },
        { Limiter.ProcessorDecode, null, Busy(0.8f, 0.84f, 1.6f, 0) },
        { Limiter.Drive, null, [(LoadKind.DriveBusy, 0, 0.96f), .. Busy(0.8f, 0.84f, 1.6f, 0)] },
        { Limiter.OtherPrograms, null, Busy(0.98f, 0.98f, 0.2f, 0.2f) },
        { Limiter.OtherPrograms, Limiter.Drive, [(LoadKind.DriveBusy, 0, 0.99f), .. Busy(0.98f, 0.98f, 0.2f, 0.2f)] },
        { Limiter.ProcessorDecode, null, Busy(0.98f, 0.98f, 1.5f, 0) },
        { Limiter.ProcessorEncode, null, Writing(0.3f, 0.4f, 1.2f) },
        { Limiter.ProcessorEffects, null, Writing(0.3f, 1.2f, 0.4f) },
        { Limiter.ProcessorDecode, null, Writing(0.9f, 0.6f, 0.4f) },
        { Limiter.EncodingEngine, null, [(LoadKind.EncoderBusy, 0, 0.99f), .. Busy(0.4f, 0.4f, 0.3f, 0.4f)] },
        { Limiter.SingleThread, null, Busy(0.99f, 0.1f, 0.9f, 0) },
        { Limiter.SingleThread, Limiter.Drive, [(LoadKind.DriveBusy, 0, 0.99f), .. Busy(0.99f, 0.1f, 0.9f, 0)] },
        { Limiter.SingleThread, null, [(LoadKind.OwnThread, 7, 0.98f), .. Busy(0.8f, 0.55f, 1f, 0.3f)] },
        { Limiter.ProcessorDecode, null, [(LoadKind.OwnThread, 7, 0.98f), .. Busy(0.99f, 0.98f, 1.9f, 0)] },

        // Nothing that can be read is at its ceiling, or nothing can be read.
        { Limiter.SingleThread, null, [(LoadKind.OwnThread, 7, 0.9f), .. Busy(0.4f, 0.35f, 1f, 0.1f)] },
        { Limiter.Unknown, null, [(LoadKind.OwnThread, 7, 0.8f), .. Busy(0.4f, 0.35f, 1f, 0.1f)] },
        { Limiter.Unknown, null, [(LoadKind.OwnThread, 7, 0.6f), .. Busy(0.6f, 0.55f, 1f, 0.1f)] },
        { Limiter.Unknown, null, Busy(0.3f, 0.4f, 0.5f, 0.1f) },
        { Limiter.Unknown, null, [(LoadKind.Core, 0, 0.99f), (LoadKind.Core, 1, 0.98f)] },
        { Limiter.Unknown, null, [] },
    };

    [Theory]
    [MemberData(nameof(Cases))]
    public void The_limiter_is_the_first_rule_that_fits_and_what_fits_besides_comes_second(
        Limiter expected,
        Limiter? second,
        (LoadKind, int, float)[] loads
    )
    {
        var finding = LimiterRules.Find(Means(loads), Cores);

        Assert.Equal((expected, second), (finding.Limiter, finding.Second?.Limiter));
        Assert.EndsWith(".", LimiterWords.Evidence(finding), StringComparison.Ordinal);
        Assert.Equal(second is null, LimiterWords.Second(finding) is null);
    }

    /// <summary>Second is what stands at its ceiling in half of the windows or more, with figures of those windows.</summary>
    [Theory]
    [InlineData(5, true)]
    [InlineData(4, false)]
    public void What_is_at_its_ceiling_in_half_of_the_windows_comes_second(int windows, bool named)
    {
        var missed = Enumerable.Range(1, 10).Select(n => Samples.Ms((n * 600) - 40)).ToList();
        var loads = Enumerable.Range(1, 60).SelectMany(n => At(n, 1).Append(
            new LoadReading(Samples.Ms(n * 100), LoadKind.DriveBusy, 0, (n - 1) / 6 < windows ? 0.98f : 0.3f))).ToList();
        var whole = LoadMeans.Over(loads, TimeSpan.Zero, Samples.Ms(6000));

        var finding = LimiterRules.Find(MissWindows.Of(missed, loads, whole), true, whole, Cores);

        Assert.Equal((Limiter.ProcessorDecode, 1.0), (finding.Limiter, finding.Before!.Share));
        Assert.Equal(named ? Limiter.Drive : null, finding.Second?.Limiter);
        Assert.True(
            !named
                || LimiterWords
                    .Second(finding)!
                    .Contains("Media drive 98 % busy, from 0.3 to 3.0 s, before 50 % of the misses.", StringComparison.Ordinal),
            LimiterWords.Second(finding)
        );
    }

    /// <summary>Utilisation law, U = X·D: the full part does what is shown, the others what they could do in the time they were
    /// idle.</summary>
    [Fact]
    public void Each_part_has_its_headroom_the_tightest_first()
    {
        var loads = Means([
            (LoadKind.GraphicsBusy, 0, 1f),
            (LoadKind.GraphicsBusy, 1, 0.5f),
            (LoadKind.MemoryUsed, 0, 4e9f),
            (LoadKind.MemoryFitted, 0, 16e9f),
            (LoadKind.BusBusy, 0, 0),
            .. Busy(0.1f, 0.3f, 0.3f, 0),
        ]);

        var parts = Headrooms.Of(loads, Cores, worked: 0.4);

        Assert.Equal(
            [
                (LoadKind.GraphicsBusy, 0, 0.4),
                (LoadKind.GraphicsBusy, 1, 0.8),
                (LoadKind.Core, 0, 2.0),
                (LoadKind.MemoryUsed, 0, 4.0),
                (LoadKind.BusBusy, 0, (double?)null),
            ],
            parts.Select(part => (part.Part, part.Index, part.Headroom is { } headroom ? Math.Round(headroom, 6) : (double?)null)));
        Assert.Equal(
            ["graphics compute 1", "graphics compute 2", "processor", "memory", "bus to the graphics unit"],
            parts.Select(part => LimiterWords.NameOf(part, Cores, parts.Count(other => other.Part == part.Part) > 1)));
        Assert.All(
            Headrooms.Of(loads, Cores, worked: 0).Where(part => part.Part != LoadKind.MemoryUsed),
            part => Assert.Null(part.Headroom)
        );
    }

    [Fact]
    public void Evidence_names_figures_and_seconds()
    {
        var finding = LimiterRules.Find(Means(Busy(0.95f, 0.97f, 1.82f, 0.18f)), Cores);

        Assert.Equal("Processor 96 % busy and 91 % of the player's work was decoding, from 0.0 to 6.0 s.", LimiterWords.Evidence(finding));
        Assert.Contains("smaller timeline raster", LimiterRule.AdviceOf(finding.Limiter).DoesNotHelp, StringComparison.Ordinal);
    }

    [Fact]
    public void Only_cores_that_the_player_may_use_count()
    {
        var pinned = LimiterRules.Find(
            Means([
                (LoadKind.Core, 0, 0.99f),
                (LoadKind.Core, 1, 0.02f),
                (LoadKind.OwnDecode, 0, 0.95f),
                (LoadKind.OwnEffects, 0, 0),
                (LoadKind.OwnProcess, 0, 0.97f),
            ]),
            Cores with
            {
                UsableCores = [0],
            }
        );

        Assert.Equal(Limiter.ProcessorDecode, pinned.Limiter);
    }

    /// <summary>The drive that a run is kept on, or that a backup reads, is busy without holding anything back.</summary>
    [Theory]
    [InlineData("sdb", Limiter.Drive, "Media drive 99 % busy")]
    [InlineData("sda", Limiter.Unknown, "drive sdb, without any of this footage, is 99 % busy")]
    public void Only_the_drive_that_holds_the_footage_is_the_media_drive(string footageLiesOn, Limiter expected, string evidence)
    {
        var conditions = Cores with
        {
            Footage = new Dictionary<string, FootageState> { ["c"] = new(footageLiesOn, null, null, "processor", null) },
            Sources = [new LoadSource(LoadKind.DriveBusy, 0, "sda"), new LoadSource(LoadKind.DriveBusy, 1, "sdb")],
        };
        var loads = Means([(LoadKind.DriveBusy, 0, 0.1f), (LoadKind.DriveBusy, 1, 0.99f), .. Busy(0.2f, 0.2f, 0.3f, 0)]);

        var finding = LimiterRules.Find(loads, conditions);

        Assert.Equal(expected, finding.Limiter);
        Assert.Contains(evidence, LimiterWords.Evidence(finding), StringComparison.Ordinal);
        Assert.Equal(footageLiesOn == "sdb" ? 1 / 0.99 : 1 / 0.2, Headrooms.Least(Headrooms.Of(loads, conditions, 1))!.Value, 3);
    }

    [Fact]
    public void A_thread_that_is_busy_now_and_then_is_no_limit()
    {
        LoadReading[] loads =
        [
            .. Enumerable
                .Range(1, 6)
                .Select(n => new LoadReading(Samples.Ms(n * 1000), LoadKind.OwnThread, n == 1 ? 7 : 8, n == 1 ? 1f : 0.3f)),
        ];

        var means = LoadMeans.Over(loads, TimeSpan.Zero, Samples.Ms(6000));

        Assert.Equal(1 / 6.0, means.Of(LoadKind.OwnThread, 7)!.Value, 6);
        Assert.Equal(0.25, means.Of(LoadKind.OwnThread, 8)!.Value, 6);
    }

    [Fact]
    public void Headroom_is_of_the_busiest_thread_too() =>
        Assert.Equal(
            1 / 0.8,
            Headrooms.Least(Headrooms.Of(Means([(LoadKind.OwnThread, 3, 0.8f), .. Busy(0.4f, 0.4f, 0.8f, 0)]), Cores, 1))!.Value,
            6
        );

    /// <summary>Full for a third of a second before every miss and resting between: three in four of all readings are far below the
    /// ceiling.</summary>
    [Theory]
    [InlineData(1.0, Limiter.ProcessorDecode, "Processor 100 % busy")]
    [InlineData(0.5, Limiter.Unknown, "nothing measured is at its limit (processor 50 %)")]
    public void The_windows_before_each_miss_are_judged_and_not_the_mean_around_it(double busyBefore, Limiter expected, string evidence)
    {
        var missed = Enumerable.Range(1, 5).Select(n => Samples.Ms((n * 1200) - 40)).ToList();
        var loads = Enumerable.Range(1, 60).SelectMany(n => At(n, n % 12 is 0 or >= 10 ? (float)busyBefore : 0.1f)).ToList();
        var whole = LoadMeans.Over(loads, TimeSpan.Zero, Samples.Ms(6000));

        var finding = LimiterRules.Find(MissWindows.Of(missed, loads, whole), true, whole, Cores);

        Assert.Equal(expected, finding.Limiter);
        Assert.Contains(evidence, LimiterWords.Evidence(finding), StringComparison.OrdinalIgnoreCase);
        Assert.EndsWith("before every miss.", LimiterWords.Evidence(finding), StringComparison.Ordinal);
        Assert.InRange(whole.Of(LoadKind.Core)!.Value, 0.15, 0.4);
        Assert.Equal(Limiter.Unknown, LimiterRules.Find(whole, Cores).Limiter);
    }

    /// <summary>A few windows in which nothing is full, as when a picture waited for the drive, do not hide what most say.</summary>
    [Theory]
    [InlineData(5, Limiter.ProcessorDecode, "before 50 % of the misses.")]
    [InlineData(6, Limiter.Unknown, "before 60 % of the misses.")]
    public void Not_clear_is_said_only_when_most_windows_are_not(int idle, Limiter expected, string evidence)
    {
        var missed = Enumerable.Range(1, 10).Select(n => Samples.Ms((n * 600) - 40)).ToList();
        var loads = Enumerable.Range(1, 60).SelectMany(n => At(n, (n - 1) / 6 < idle ? 0.2f : 1)).ToList();
        var whole = LoadMeans.Over(loads, TimeSpan.Zero, Samples.Ms(6000));

        var finding = LimiterRules.Find(MissWindows.Of(missed, loads, whole), true, whole, Cores);

        Assert.Equal(expected, finding.Limiter);
        Assert.EndsWith(evidence, LimiterWords.Evidence(finding), StringComparison.Ordinal);
    }

    [Fact]
    public void Windows_outside_the_passage_count_nothing_and_a_load_not_read_in_one_counts_with_its_mean()
    {
        var loads = Enumerable.Range(1, 20).SelectMany(n => At(n, n <= 10 ? 1 : 0.3f))
            .Append(new LoadReading(Samples.Ms(1900), LoadKind.DriveBusy, 0, 0.99f)).ToList();
        var whole = LoadMeans.Over(loads, Samples.Ms(1000), Samples.Ms(2000));

        Assert.Empty(MissWindows.Of([Samples.Ms(700)], loads, whole));
        var window = Assert.Single(MissWindows.Of([Samples.Ms(1310), Samples.Ms(1390)], loads, whole));
        Assert.Equal(0.3, window.Of(LoadKind.Core)!.Value, 6);
        Assert.Equal(0.99, window.Of(LoadKind.DriveBusy)!.Value, 6);
    }

    [Fact]
    public void An_hour_of_misses_is_judged_by_as_many_windows_as_are_enough()
    {
        var loads = Enumerable.Range(1, 36_000).SelectMany(n => At(n, 1)).ToList();
        var missed = Enumerable.Range(1, 36_000).Select(n => Samples.Ms(n * 100)).ToList();

        Assert.InRange(MissWindows.Of(missed, loads, LoadMeans.Over(loads, TimeSpan.Zero, Samples.Ms(3_600_000))).Count, 150, 200);
    }

    private static IEnumerable<LoadReading> At(int step, float busy) =>
        Busy(busy, busy, 1.9f * busy, 0.05f * busy)
            .Select(load => new LoadReading(Samples.Ms(step * 100), load.Item1, load.Item2, load.Item3));

    private static (LoadKind, int, float)[] Busy(float core0, float core1, float decode, float effects) =>
    [
        (LoadKind.Core, 0, core0), (LoadKind.Core, 1, core1), (LoadKind.OwnDecode, 0, decode), (LoadKind.OwnEffects, 0, effects),
        (LoadKind.OwnProcess, 0, decode + effects + 0.02f),
    ];

    private static (LoadKind, int, float)[] Writing(float decode, float effects, float encode) =>
    [
        .. Busy(0.97f, 0.97f, decode, effects).Where(load => load.Item1 != LoadKind.OwnProcess), (LoadKind.OwnEncode, 0, encode),
        (LoadKind.OwnProcess, 0, decode + effects + encode),
    ];

    private static LoadMeans Means((LoadKind Kind, int Index, float Value)[] loads) => LoadMeans.Over(
        loads.Select(load => new LoadReading(Samples.Ms(1000), load.Kind, load.Index, load.Value)), TimeSpan.Zero, Samples.Ms(6000));
}
