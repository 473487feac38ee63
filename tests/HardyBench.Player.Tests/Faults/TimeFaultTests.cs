using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Wording;
using HardyBench.Player.Playing;
using HardyBench.Player.Tests.Playing;
using HardyBench.Telemetry;

namespace HardyBench.Player.Tests.Faults;

/// <summary>A machine that sleeps, and a clock that somebody sets, while a run goes on.</summary>
public sealed class TimeFaultTests
{
    private static readonly TimeSpan Tenth = TimeSpan.FromSeconds(0.1);
    private readonly string root = TestData.NewFolder();
    private readonly SetClock day = new();

    [Fact]
    public void A_machine_that_slept_is_noticed_by_its_uptime_running_ahead()
    {
        Assert.Equal([(LoadKind.Asleep, 42f)], Second(uptime: 42.1, timeOfDay: 42.1));
    }

    [Theory]
    [InlineData(3600)]
    [InlineData(-7)]
    public void A_clock_that_is_set_is_noticed_by_its_running_off_from_the_uptime(double by) =>
        Assert.Equal([(LoadKind.ClockSet, (float)by)], Second(uptime: 0.1, timeOfDay: 0.1 + by));

    [Fact]
    public void Neither_is_seen_in_the_coarseness_of_the_figures() => Assert.Empty(Second(uptime: 0.4, timeOfDay: -0.05));

    [Fact]
    public async Task A_clock_set_in_mid_run_moves_no_slot_and_is_told()
    {
        var plan = await Plans.SmallAsync(1, 50, new PlaybackSettings());
        var observer = new Notes { OnProgress = () => day.Offset = TimeSpan.FromHours(-2) };

        var run = await new LocalPlayback(await TestData.ClipsAsync(), Plans.Filters, SystemFiles.Live, day, rest: TimeSpan.Zero)
            .PlayAsync(plan, observer, CancellationToken.None);

        Assert.Equal(50, run.Frames.Count);
        Assert.All(
            run.Frames.Zip(run.Frames.Skip(1)),
            pair => Assert.Equal(40, (pair.Second.SlotStart - pair.First.SlotStart).TotalMilliseconds, 3)
        );
        Assert.Contains(
            RunWords.NotesOf(run),
            note =>
                note.StartsWith("the time of day was set back by 7200 s at", StringComparison.Ordinal)
            && note.EndsWith("the run's own clock does not follow it", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_run_over_which_the_machine_slept_says_so_and_counts_nothing_as_dropped_for_it()
    {
        var run = await Plans.PlayAsync(await Plans.SmallAsync(1, 10, new PlaybackSettings()));
        var slept = run with { Loads = [.. run.Loads, new LoadReading(TimeSpan.FromSeconds(0.3), LoadKind.Asleep, 0, 90)] };

        Assert.Contains(
            "the machine was suspended for 90 s at 0.3 s; the run's clock stopped meanwhile, so no frame counts as dropped because of it",
            RunWords.NotesOf(slept)
        );
    }

    /// <summary>Two samples a tenth of a second apart by the run's clock, over which the other clocks moved as given.</summary>
    private List<(LoadKind Kind, float Seconds)> Second(double uptime, double timeOfDay)
    {
        var reader = new TimeKeeping(new SystemFiles(root), day);
        Write(1000);
        reader.Read(TimeSpan.Zero, TimeSpan.Zero, []);
        Write(1000 + uptime);
        day.Fixed += TimeSpan.FromSeconds(timeOfDay);
        var loads = new List<LoadReading>();
        reader.Read(Tenth, Tenth, loads);
        return [.. loads.Select(load => (load.Kind, MathF.Round(load.Value, 1)))];

        void Write(double seconds)
        {
            Directory.CreateDirectory(Path.Combine(root, "proc"));
            File.WriteAllText(Path.Combine(root, "proc/uptime"), FormattableString.Invariant($"{seconds:0.00} 5000.00\n"));
        }
    }

    /// <summary>A time of day that stands where it is put, or runs on with an offset.</summary>
    private sealed class SetClock : TimeProvider
    {
        public DateTimeOffset Fixed { get; set; } = DateTimeOffset.UnixEpoch;

        public TimeSpan? Offset { get; set; }

        public override DateTimeOffset GetUtcNow() => Offset is { } by ? Fixed + by : Fixed;
    }
}
