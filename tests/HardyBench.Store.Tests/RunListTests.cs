using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Store.Tests;

/// <summary>The list of runs is filtered, sorted and paged where it is kept.</summary>
public sealed class RunListTests : IAsyncLifetime
{
    private static readonly FrameRate Rate = new(25);
    private readonly BenchDatabaseFactory databases = new(
        Path.Combine(Directory.CreateTempSubdirectory("hardybench-list-").FullName, "bench.db")
    );
    private RunWriter writer = null!;
    private RunList list = null!;

    public async ValueTask InitializeAsync()
    {
        await databases.MigrateAsync(CancellationToken.None);
        (writer, list) = (new RunWriter(databases), new RunList(databases));
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task Pages_follow_each_other_without_a_gap()
    {
        for (var n = 0; n < 25; n++)
        {
            await KeepAsync("Evening", "Curlew", 50);
        }

        var first = await list.PageAsync(new RunQuery(Take: 10));
        var last = await list.PageAsync(new RunQuery(Skip: 20, Take: 10));

        Assert.Equal((25, 25), (first.All, first.Found));
        Assert.Equal(Enumerable.Range(16, 10).Reverse().Select(id => (long)id), first.Runs.Select(run => run.Id));
        Assert.Equal([5L, 4, 3, 2, 1], last.Runs.Select(run => run.Id));
        Assert.Empty((await list.PageAsync(new RunQuery(Skip: 99))).Runs);
        Assert.Equal(25, (await list.PageAsync(new RunQuery(Skip: -5))).Runs.Count);
        Assert.Single((await list.PageAsync(new RunQuery(Take: -1))).Runs);
    }

    [Theory]
    [InlineData("", new long[] { 3, 2, 1 })]
    [InlineData("CURLEW", new long[] { 3, 1 })]
    [InlineData("curlew half", new long[] { 3 })]
    [InlineData("  heron   night ", new long[] { 2 })]
    [InlineData("bare", new long[] { 2, 1 })]
    [InlineData("finished", new long[] { 3, 2, 1 })]
    [InlineData("2", new long[] { 2 })]
    [InlineData("100%", new long[] { 3 })]
    [InlineData("%", new long[] { 3 })]
    [InlineData("_", new long[] { })]
    [InlineData("'; DROP TABLE Runs; --", new long[] { })]
    public async Task Every_word_has_to_be_found_and_signs_stand_for_themselves(string words, long[] found)
    {
        await KeepAsync("Evening", "Curlew desk", 50);
        await KeepAsync("Night", "Heron", 50);
        await KeepAsync("At 100% volume", "Curlew desk", 50, new PlaybackSettings(PreviewScale.Half));

        // Days have figures in them, which are not what is looked for here.
        var page = await list.PageAsync(new RunQuery(words == "2" ? "heron 2" : words));
        Assert.Equal(found, page.Runs.Select(run => run.Id));
        Assert.Equal((3, found.Length), (page.All, page.Found));
    }

    [Fact]
    public async Task It_is_sorted_by_what_runs_have_shown_and_ties_stand_newest_first()
    {
        await KeepAsync("Evening", "Curlew", 50);
        await KeepAsync("Night", "Heron", 20);
        await KeepAsync("Dawn", "Avocet", 50);

        Assert.Equal([3L, 1, 2], await SortedAsync(RunOrder.Shown));
        Assert.Equal([2L, 3, 1], await SortedAsync(RunOrder.Shown, rising: true));
        Assert.Equal([3L, 1, 2], await SortedAsync(RunOrder.Timeline, rising: true));
        Assert.Equal([2L, 1, 3], await SortedAsync(RunOrder.Machine));
        Assert.Equal([3L, 1, 2], await SortedAsync(RunOrder.Holds));
        Assert.Equal([1L, 2, 3], await SortedAsync(RunOrder.Number, rising: true));
    }

    [Fact]
    public async Task What_is_put_aside_is_neither_listed_nor_counted()
    {
        await KeepAsync("Evening", "Curlew", 50);
        await KeepAsync("Night", "Heron", 50);
        await writer.SetDeletedAsync([1], true, DateTimeOffset.UnixEpoch);
        Assert.Equal((1, 1), ((await list.PageAsync(new RunQuery())).All, (await list.PageAsync(new RunQuery())).Found));

        await writer.SetDeletedAsync([1], false, DateTimeOffset.UnixEpoch);
        Assert.Equal(2, (await list.PageAsync(new RunQuery())).All);
    }

    [Fact]
    public async Task A_run_in_play_is_listed_and_its_line_follows_its_end()
    {
        var run = Sample("Evening", "Curlew", 50, new PlaybackSettings());
        var id = await writer.BeginAsync(run.Header);
        Assert.Equal(RunEnding.Playing, Assert.Single((await list.PageAsync(new RunQuery("playing"))).Runs).Ending);

        await writer.FinishAsync(id, run with { Ending = RunEnding.Stopped });
        Assert.Empty((await list.PageAsync(new RunQuery("playing"))).Runs);
        Assert.Single((await list.PageAsync(new RunQuery("stopped early"))).Runs);
    }

    private async Task<IEnumerable<long>> SortedAsync(RunOrder by, bool rising = false) =>
        (await list.PageAsync(new RunQuery(By: by, Rising: rising))).Runs.Select(run => run.Id);

    private async Task KeepAsync(string title, string machine, int shown, PlaybackSettings? settings = null) =>
        await writer.AddAsync(Sample(title, machine, shown, settings ?? new PlaybackSettings()));

    private static Run Sample(string title, string machine, int shown, PlaybackSettings settings) => new(
        new RunHeader(
            new Timeline("t", title, Raster.Hd, Rate, [new Passage("asked", 50, [new Layer("c", [])], [])]),
            new Machine(
                "m", machine, MachineKind.StandIn, "", new Processor("p", 2, 2, 1, 3), [], [], new Memory(8, 2, null, null),
                [new Drive(Drive.AllRoles, "NVMe", 1000, 1000, 0.1)], null, null),
            settings, new Conditions("player", null, [0, 1], null, null, 1), new Dictionary<string, string>(),
            new DateTimeOffset(2026, 11, 3, 0, 0, 0, TimeSpan.Zero)),
        RunEnding.Finished, TimeSpan.FromMilliseconds(100),
        [
            .. Enumerable.Range(0, 50).Select(n => new FrameRecord(
                n, Rate.StartOf(n), n < shown ? Rate.StartOf(n) : null, n < shown ? Rate.StartOf(n) : null,
                n < shown ? FrameStatus.OnTime : FrameStatus.Dropped, n < shown ? DropReason.None : DropReason.NotReady,
                default, default, default, default, 1)),
        ],
        [], []);
}
