using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Trials;

namespace HardyBench.Store.Tests;

public sealed class TrialStoreTests : IAsyncLifetime
{
    private readonly BenchDatabaseFactory databases = new(Path.Combine(Directory.CreateTempSubdirectory("hardybench-trials-").FullName, "bench.db"));
    private TrialStore trials = null!;

    public async ValueTask InitializeAsync()
    {
        await databases.MigrateAsync(CancellationToken.None);
        trials = new TrialStore(databases);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task A_trial_comes_back_as_it_was_asked_newest_first()
    {
        var first = await trials.AddAsync(Asked(TrialKind.Repeat), DateTimeOffset.UnixEpoch);
        var other = Asked(TrialKind.Compare) with { Other = new PlaybackSettings(PreviewScale.Half, Cache: FileCache.Warm) };
        var second = await trials.AddAsync(other, DateTimeOffset.UnixEpoch);

        Assert.Equal([second.Id, first.Id], (await trials.ListAsync()).Select(trial => trial.Id));
        var found = (await trials.FindAsync(second.Id))!;
        Assert.Equal((TrialState.Waiting, other.Other, 3), (found.State, found.Asked.Other, found.Asked.Times));
        Assert.Equal("asked", found.Asked.Timeline.Passages[0].Question);
        Assert.Null(await trials.FindAsync(99));
    }

    [Fact]
    public async Task A_trial_whose_program_ended_under_it_is_closed_and_one_that_waits_still_waits()
    {
        var (cut, waiting, mine) = (await trials.AddAsync(Asked(TrialKind.Play), default), await trials.AddAsync(Asked(TrialKind.Play), default), await trials.AddAsync(Asked(TrialKind.Play), default));
        await trials.ChangeAsync(cut.Id, TrialState.Playing);
        await trials.ChangeAsync(mine.Id, TrialState.Playing);
        await using (var database = databases.CreateDbContext())
        {
            (await database.Trials.FindAsync(cut.Id))!.Owner = "999999999@1";
            await database.SaveChangesAsync();
        }

        await trials.RecoverAsync("The program ended while it played.");

        Assert.Equal((TrialState.Failed, "The program ended while it played."), await StateAsync(cut.Id));
        Assert.Equal((TrialState.Waiting, null), await StateAsync(waiting.Id));
        Assert.Equal((TrialState.Playing, null), await StateAsync(mine.Id));
    }

    private async Task<(TrialState State, string? Problem)> StateAsync(long id) => (await trials.FindAsync(id)) is { } trial ? (trial.State, trial.Problem) : default;

    private static AskedTrial Asked(TrialKind kind) => new(
        kind, new Timeline("t", "T", Raster.Hd, new FrameRate(25), [new Passage("asked", 100, [new Layer("c", [])], [])]),
        "m", new PlaybackSettings(), 3, TimeSpan.FromMinutes(1), null, null);
}
