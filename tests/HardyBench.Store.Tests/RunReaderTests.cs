using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Timelines;

namespace HardyBench.Store.Tests;

public sealed class RunReaderTests : IAsyncLifetime
{
    private static readonly FrameRate Rate = new(25);
    private readonly BenchDatabaseFactory databases = new(
        Path.Combine(Directory.CreateTempSubdirectory("hardybench-store-").FullName, "bench.db")
    );
    private RunReader runs = null!;
    private RunWriter writer = null!;
    private RunRecovery recovery = null!;

    public async ValueTask InitializeAsync()
    {
        await databases.MigrateAsync(CancellationToken.None);
        (runs, writer) = (new RunReader(databases), new RunWriter(databases));
        recovery = new RunRecovery(databases, writer);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task A_finished_run_comes_back_whole()
    {
        var run = Sample(100);
        var id = await writer.BeginAsync(run.Header);
        await writer.AppendAsync(id, 0, new RunProgress(run.Frames, run.Loads, []));
        await writer.FinishAsync(id, run);

        var back = (await new RunReader(databases).FindAsync(id))!.Run;

        Assert.Equal(run.Frames, back.Frames);
        Assert.Equal(run.Loads, back.Loads);
        Assert.Equal((RunEnding.Finished, run.StartLag), (back.Ending, back.StartLag));
        Assert.Equal(TimelineJson.Digest(run.Header.Timeline), TimelineJson.Digest(back.Header.Timeline));
        Assert.Equal(run.Header.StartedAt, back.Header.StartedAt);
    }

    [Fact]
    public async Task A_run_in_play_can_be_read_piece_by_piece()
    {
        var run = Sample(100);
        var id = await writer.BeginAsync(run.Header);
        await writer.AppendAsync(id, 0, new RunProgress([.. run.Frames.Take(60)], [], []));
        await writer.AppendAsync(id, 1, new RunProgress([.. run.Frames.Skip(60)], run.Loads, [new PassageFailure(0, "clip")]));

        var found = (await runs.FindAsync(id))!.Run;

        Assert.Equal(run.Frames, found.Frames);
        Assert.Equal((RunEnding.Playing, 1), (found.Ending, found.Failures.Count));
    }

    [Fact]
    public async Task What_a_dead_program_left_is_kept_up_to_its_last_piece_and_marked()
    {
        var run = Sample(100);
        var id = await writer.BeginAsync(run.Header);
        await writer.AppendAsync(id, 0, new RunProgress([.. run.Frames.Take(60)], [], []));
        await OwnedByAsync(id, "999999999@1");

        Assert.Equal([id], (await recovery.RecoverAsync()).Interrupted);
        Assert.Empty((await recovery.RecoverAsync()).Interrupted);

        var found = (await runs.FindAsync(id))!.Run;
        Assert.Equal((RunEnding.CutShort, 60), (found.Ending, found.Frames.Count));
        Assert.Equal(60, Assert.Single(await new RunList(databases).AllAsync()).Passages[0].Slots);
    }

    [Fact]
    public async Task A_run_that_a_living_program_plays_is_left_alone()
    {
        var id = await writer.BeginAsync(Sample(1).Header);

        Assert.Empty((await recovery.RecoverAsync()).Interrupted);
        Assert.Equal(RunEnding.Playing, (await runs.FindAsync(id))!.Run.Ending);
        Assert.True(RunOwner.IsAlive(RunOwner.Current));
        Assert.False(RunOwner.IsAlive("nonsense"));
    }

    [Fact]
    public async Task The_newest_bare_run_is_complete_and_of_the_same_timeline_machine_and_scale()
    {
        var bare = await KeepAsync(Sample(10));
        var half = await KeepAsync(Sample(10, new PlaybackSettings(PreviewScale.Half)));
        var stopped = await KeepAsync(Sample(5) with { Ending = RunEnding.Stopped });
        var aided = await KeepAsync(Sample(10, new PlaybackSettings(PreviewScale.Half, Proxies: Proxies.Half)));
        var digest = TimelineJson.Digest(Sample(1).Header.Timeline);

        Assert.Equal(bare, (await runs.NewestBareAsync(digest, Described))!.Id);
        Assert.Null(await runs.NewestBareAsync(digest, Described with { Id = "other" }));
        Assert.Null(await runs.NewestBareAsync("edited", Described));
        Assert.Null(await runs.NewestBareAsync(digest, Described with { Memory = Described.Memory with { Gigabytes = 16 } }));
        Assert.NotNull(await runs.NewestBareAsync(digest, Described with { Name = "Another name", Price = 6 }));
        var full = await runs.OfColumnAsync(digest, Described, PreviewScale.Full);
        Assert.Equal([stopped, bare], full.Select(run => run.Id));
        Assert.Equal(RunEnding.Stopped, full[0].Ending);
        var scaled = await runs.OfColumnAsync(digest, Described, PreviewScale.Half);
        Assert.Equal([aided, half], scaled.Select(run => run.Id));
        Assert.Equal("half-raster proxies", Assert.Single(scaled[0].Differences));
        Assert.Empty(scaled[1].Differences);
    }

    /// <summary>A machine that was changed has shown nothing yet; what it played before is told apart, by description.</summary>
    [Fact]
    public async Task Runs_before_a_machine_was_changed_are_listed_by_what_it_was()
    {
        await KeepAsync(Sample(10));
        await KeepAsync(Sample(10));
        var deleted = await KeepAsync(Sample(10));
        await writer.SetDeletedAsync([deleted], true, DateTimeOffset.UnixEpoch);
        var upgraded = Described with { Memory = Described.Memory with { Gigabytes = Described.Memory.Gigabytes + 16 } };

        Assert.Empty(await runs.OfEarlierAsync(Described with { Name = "Another name" }));
        Assert.Empty(await runs.OfEarlierAsync(upgraded with { Id = "other" }));
        var earlier = Assert.Single(await runs.OfEarlierAsync(upgraded));
        Assert.Equal((2, Described.Memory), (earlier.Runs, earlier.Machine.Memory));
    }

    /// <summary>A slot that begins exactly as start-up ends is a steady one, whatever fraction of a microsecond the start lag
    /// has.</summary>
    [Theory]
    [InlineData(800_004)]
    [InlineData(800_005)]
    [InlineData(800_006)]
    public async Task Counts_are_the_same_before_and_after_a_run_is_kept(long startLagTicks)
    {
        var lag = new TimeSpan(startLagTicks);
        var sample = Sample(60);
        var run = sample with
        {
            StartLag = lag,
            Frames = [.. sample.Frames.Select(frame => frame with
            {
                SlotStart = frame.SlotStart + lag, Shown = frame.Frame == 25 ? null : frame.SlotStart + lag,
                Status = frame.Frame == 25 ? FrameStatus.Dropped : FrameStatus.OnTime,
            })],
        };

        var kept = (await runs.FindAsync(await KeepAsync(run)))!.Run;

        Assert.Equal((0, 1), Drops(run));
        Assert.Equal((0, 1), Drops(kept));

        static (int, int) Drops(Run run) => (RunFindings.Of(run)[0].Counts.StartUpDrops, RunFindings.Of(run)[0].Counts.SteadyDrops);
    }

    [Fact]
    public async Task Runs_put_aside_are_nowhere_until_they_are_brought_back()
    {
        var (kept, gone) = (await KeepAsync(Sample(10)), await KeepAsync(Sample(20)));
        var digest = TimelineJson.Digest(Sample(1).Header.Timeline);

        Assert.Equal(1, await writer.SetDeletedAsync([gone, 999], true, DateTimeOffset.UnixEpoch));
        Assert.Equal([kept], (await new RunList(databases).AllAsync()).Select(run => run.Id));
        Assert.Equal(kept, (await runs.NewestBareAsync(digest, Described))!.Id);

        Assert.Equal(1, await writer.SetDeletedAsync([gone], false, DateTimeOffset.UnixEpoch));
        Assert.Equal(20, (await runs.FindAsync(gone))!.Run.Frames.Count);
        Assert.Equal(gone, (await runs.NewestBareAsync(digest, Described))!.Id);
    }

    [Fact]
    public async Task Marks_come_back_with_their_run_and_can_be_taken_away()
    {
        var (id, other) = (await KeepAsync(Sample(10)), await KeepAsync(Sample(10)));
        var later = await writer.MarkAsync(id, new RunMark(0, TimeSpan.FromSeconds(2), 50, MarkKind.Fan, "it howls"));
        var sooner = await writer.MarkAsync(id, new RunMark(0, TimeSpan.FromSeconds(1), 25, MarkKind.Stutter, ""));

        Assert.Equal([sooner, later], (await runs.FindAsync(id))!.Marks);
        Assert.Equal(2, (await new RunList(databases).AllAsync()).Single(run => run.Id == id).Marks);
        await writer.UnmarkAsync(other, later.Id);
        Assert.Equal(2, (await runs.FindAsync(id))!.Marks.Count);
        await writer.UnmarkAsync(id, later.Id);
        Assert.Equal([sooner], (await runs.FindAsync(id))!.Marks);
    }

    [Fact]
    public async Task Only_runs_with_alike_conditions_share_a_digest()
    {
        await KeepAsync(Sample(10));
        await KeepAsync(Sample(99));
        await KeepAsync(Sample(10, new PlaybackSettings(Cache: FileCache.Cold)));
        await KeepAsync(Sample(10, new PlaybackSettings(Threads: 2)));

        var digests = (await new RunList(databases).AllAsync()).Select(run => run.ConditionsDigest).Reverse().ToList();

        Assert.Equal(digests[0], digests[1]);
        Assert.Equal(3, digests.Distinct().Count());
    }

    [Fact]
    public async Task What_was_put_aside_more_than_a_month_ago_is_cleared_away_with_all_that_hangs_on_it()
    {
        var (kept, fresh, old) = (await KeepAsync(Sample(10)), await KeepAsync(Sample(10)), await KeepAsync(Sample(10)));
        var now = new DateTimeOffset(2026, 6, 1, 0, 0, 0, TimeSpan.Zero);
        await writer.MarkAsync(old, new RunMark(0, TimeSpan.Zero, null, MarkKind.Other, "hot"));
        await writer.SetDeletedAsync([fresh], true, now.AddDays(-30));
        await writer.SetDeletedAsync([old], true, now.AddDays(-32));

        Assert.Equal(1, await writer.RemoveExpiredAsync(now));

        Assert.Equal([fresh, kept], (await new RunList(databases).AllAsync(deleted: true)).Select(run => run.Id));
        await using var database = databases.CreateDbContext();
        Assert.Empty(database.Marks);
        Assert.Equal(0, await writer.RemoveExpiredAsync(now));
    }

    private async Task<long> KeepAsync(Run run)
    {
        var id = await writer.BeginAsync(run.Header);
        await writer.FinishAsync(id, run);
        return id;
    }

    private async Task OwnedByAsync(long id, string owner)
    {
        await using var database = databases.CreateDbContext();
        (await database.Runs.FindAsync(id))!.Owner = owner;
        await database.SaveChangesAsync();
    }

    private static readonly Machine Described =
        new("m", "M", MachineKind.StandIn, "", new Processor("p", 2, 2, 1, 3), [], [], new Memory(8, 1, 1, 3200), [], null, 5);

    private static Run Sample(int frames, PlaybackSettings? settings = null)
    {
        var timeline = new Timeline("t", "T", Raster.Hd, Rate, [new Passage("asked", 100, [new Layer("c", [])], [])]);
        var header = new RunHeader(
            timeline,
            Described,
            settings ?? new PlaybackSettings(),
            new Conditions("p", null, [0], null, null, 1),
            new Dictionary<string, string>(),
            new DateTimeOffset(2026, 3, 4, 5, 6, 7, TimeSpan.Zero));
        return new Run(
            header,
            RunEnding.Finished,
            TimeSpan.FromMilliseconds(80),
            [
                .. Enumerable
                    .Range(0, frames)
                    .Select(n => new FrameRecord(
                        n,
                        Rate.StartOf(n),
                        Rate.StartOf(n),
                        Rate.StartOf(n),
                        FrameStatus.OnTime,
                        DropReason.None,
                        default,
                        default,
                        default,
                        default,
                        2
                    )),
            ],
            [new LoadReading(TimeSpan.FromSeconds(1), LoadKind.Core, 0, 0.5f)],
            []);
    }
}
