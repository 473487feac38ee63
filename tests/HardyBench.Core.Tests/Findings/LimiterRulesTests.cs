using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Findings;

public sealed class LimiterRulesTests
{
    private static readonly Conditions Cores = new("p", null, [0, 1], null, null, null);

    public static TheoryData<Limiter, (LoadKind, int, float)[]> Cases => new()
    {
        { Limiter.Memory, [(LoadKind.SwapTraffic, 0, 5e6f), (LoadKind.MemoryUsed, 0, 15.9e9f), (LoadKind.MemoryFitted, 0, 16e9f), .. Busy(1, 1, 2, 0)] },
        { Limiter.MediaEngine, [(LoadKind.MediaEngineBusy, 0, 0.97f), .. Busy(0.2f, 0.2f, 0.2f, 0)] },
        { Limiter.GraphicsEffects, [(LoadKind.GraphicsBusy, 0, 0.99f), .. Busy(0.3f, 0.3f, 0.5f, 0)] },
        { Limiter.Heat, [(LoadKind.Clock, 0, 1.2e9f), (LoadKind.RatedClock, 0, 2.4e9f), (LoadKind.Temperature, 0, 92), .. Busy(1, 1, 2, 0)] },
        { Limiter.ProcessorDecode, Busy(0.95f, 0.97f, 1.7f, 0.2f) },
        { Limiter.ProcessorEffects, Busy(0.95f, 0.97f, 0.4f, 1.5f) },
        { Limiter.ProcessorDecode, Busy(0.8f, 0.84f, 1.6f, 0) },
        { Limiter.OtherPrograms, Busy(0.98f, 0.98f, 0.2f, 0.2f) },
        { Limiter.SingleThread, Busy(0.99f, 0.1f, 0.9f, 0) },
        { Limiter.SingleThread, [(LoadKind.OwnThread, 7, 0.98f), .. Busy(0.8f, 0.55f, 1f, 0.3f)] },
        { Limiter.Unknown, [(LoadKind.OwnThread, 7, 0.6f), .. Busy(0.6f, 0.55f, 1f, 0.1f)] },
        { Limiter.Drive, [(LoadKind.DriveBusy, 0, 0.99f), .. Busy(0.2f, 0.2f, 0.3f, 0)] },
        { Limiter.Bus, [(LoadKind.BusBusy, 0, 0.98f), .. Busy(0.2f, 0.2f, 0.3f, 0)] },
        { Limiter.Unknown, Busy(0.3f, 0.4f, 0.5f, 0.1f) },
        { Limiter.Unknown, [] },
    };

    [Theory]
    [MemberData(nameof(Cases))]
    public void The_limiter_is_the_first_rule_that_fits(Limiter expected, (LoadKind, int, float)[] loads)
    {
        var finding = LimiterRules.Find(Means(loads), Cores);

        Assert.Equal(expected, finding.Limiter);
        Assert.EndsWith(".", LimiterWords.Evidence(finding), StringComparison.Ordinal);
    }

    [Fact]
    public void Evidence_names_figures_and_seconds()
    {
        var finding = LimiterRules.Find(Means(Busy(0.95f, 0.97f, 1.82f, 0.18f)), Cores);

        Assert.Equal("Processor 96 % busy and 91 % of the player's work was decoding, from 0.0 to 6.0 s.", LimiterWords.Evidence(finding));
        Assert.Contains("smaller timeline raster", LimiterWords.HelpsNot(finding), StringComparison.Ordinal);
    }

    [Fact]
    public void Only_cores_that_the_player_may_use_count()
    {
        var pinned = LimiterRules.Find(Means([(LoadKind.Core, 0, 0.99f), (LoadKind.Core, 1, 0.02f), (LoadKind.OwnDecode, 0, 0.95f), (LoadKind.OwnEffects, 0, 0), (LoadKind.OwnProcess, 0, 0.97f)]), Cores with { UsableCores = [0] });

        Assert.Equal(Limiter.ProcessorDecode, pinned.Limiter);
    }

    /// <summary>The drive that a run is kept on, or that a backup reads, is busy without holding anything back.</summary>
    [Theory]
    [InlineData("sdb", Limiter.Drive, "Media drive 99 % busy")]
    [InlineData("sda", Limiter.Unknown, "drive sdb, which holds none of this footage, is 99 % busy")]
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
        Assert.Equal(footageLiesOn == "sdb" ? 1 / 0.99 : 1 / 0.2, Headrooms.Least(loads, conditions)!.Value, 3);
    }

    [Fact]
    public void A_thread_that_is_busy_now_and_then_is_no_limit()
    {
        LoadReading[] loads = [.. Enumerable.Range(1, 6).Select(n => new LoadReading(Samples.Ms(n * 1000), LoadKind.OwnThread, n == 1 ? 7 : 8, n == 1 ? 1f : 0.3f))];

        var means = LoadMeans.Over(loads, TimeSpan.Zero, Samples.Ms(6000));

        Assert.Equal(1 / 6.0, means.Of(LoadKind.OwnThread, 7)!.Value, 6);
        Assert.Equal(0.25, means.Of(LoadKind.OwnThread, 8)!.Value, 6);
    }

    [Fact]
    public void Headroom_is_of_the_busiest_thread_too() =>
        Assert.Equal(1 / 0.8, Headrooms.Least(Means([(LoadKind.OwnThread, 3, 0.8f), .. Busy(0.4f, 0.4f, 0.8f, 0)]), Cores)!.Value, 6);

    /// <summary>Full for a third of a second before every miss and resting between: three in four of all readings are far below the ceiling.</summary>
    [Theory]
    [InlineData(1.0, Limiter.ProcessorDecode, "Processor 100 % busy")]
    [InlineData(0.5, Limiter.Unknown, "nothing measured is at its ceiling (processor 50 %)")]
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
        Busy(busy, busy, 1.9f * busy, 0.05f * busy).Select(load => new LoadReading(Samples.Ms(step * 100), load.Item1, load.Item2, load.Item3));

    private static (LoadKind, int, float)[] Busy(float core0, float core1, float decode, float effects) =>
    [
        (LoadKind.Core, 0, core0), (LoadKind.Core, 1, core1), (LoadKind.OwnDecode, 0, decode), (LoadKind.OwnEffects, 0, effects),
        (LoadKind.OwnProcess, 0, decode + effects + 0.02f),
    ];

    private static LoadMeans Means((LoadKind Kind, int Index, float Value)[] loads) => LoadMeans.Over(
        loads.Select(load => new LoadReading(Samples.Ms(1000), load.Kind, load.Index, load.Value)), TimeSpan.Zero, Samples.Ms(6000));
}
