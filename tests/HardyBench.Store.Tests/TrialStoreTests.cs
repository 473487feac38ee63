using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Trials;

namespace HardyBench.Store.Tests;

public sealed class TrialStoreTests : IAsyncLifetime
{
    private readonly BenchDatabaseFactory databases = new(
        Path.Combine(Directory.CreateTempSubdirectory("hardybench-trials-").FullName, "bench.db")
    );
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
        var first = await trials.AddAsync(Asked(new RepeatTrial(5)), DateTimeOffset.UnixEpoch);
        var other = new CompareTrial(4, new PlaybackSettings(PreviewScale.Half, Cache: FileCache.Warm));
        var second = await trials.AddAsync(Asked(other), DateTimeOffset.UnixEpoch);

        Assert.Equal([second.Id, first.Id], (await trials.ListAsync()).Select(trial => trial.Id));
        var found = (await trials.FindAsync(second.Id))!;
        Assert.Equal((TrialState.Waiting, other), (found.State, found.Asked.Trial));
        Assert.Equal("asked", found.Asked.Timeline.Passages[0].Question);
        Assert.Null(await trials.FindAsync(99));
    }

    [Fact]
    public async Task A_trial_whose_program_ended_under_it_is_closed_and_one_that_waits_still_waits()
    {
        var (cut, waiting, mine) = (
            await trials.AddAsync(Asked(new PlayTrial()), default),
            await trials.AddAsync(Asked(new PlayTrial()), default),
            await trials.AddAsync(Asked(new PlayTrial()), default)
        );
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

    [Fact]
    public async Task Of_two_who_claim_a_trial_one_gets_it()
    {
        var asked = await trials.AddAsync(Asked(new PlayTrial()), default);

        var claims = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => trials.ClaimAsync(asked.Id)));

        Assert.Single(claims, claim => claim);
        Assert.False(await trials.ClaimAsync(asked.Id));
        Assert.False(await trials.ClaimAsync(99));
    }

    [Fact]
    public async Task A_trial_that_cannot_be_read_keeps_no_other_from_the_list_and_is_closed()
    {
        var (good, bad, odd) = (
            await trials.AddAsync(Asked(new PlayTrial()), default),
            await trials.AddAsync(Asked(new PlayTrial()), default),
            await trials.AddAsync(Asked(new PlayTrial()), default)
        );
        await using (var database = databases.CreateDbContext())
        {
            (await database.Trials.FindAsync(bad.Id))!.Json = "{ not json";
            (await database.Trials.FindAsync(odd.Id))!.Json = """{"kind":"play","timeline":null,"machineId":"m","settings":{}}""";
            await database.SaveChangesAsync();
        }

        await trials.RecoverAsync("The program ended.");

        Assert.Equal([good.Id], (await trials.ListAsync()).Select(trial => trial.Id));
        await Assert.ThrowsAsync<InvalidDataException>(() => trials.FindAsync(bad.Id));
        await using var after = databases.CreateDbContext();
        Assert.All([bad.Id, odd.Id], id => Assert.Equal(TrialState.Failed, after.Trials.Find(id)!.State));
    }

    [Fact]
    public async Task Only_a_trial_that_has_not_ended_can_be_closed_as_failed()
    {
        var (waiting, ended) = (
            await trials.AddAsync(Asked(new PlayTrial()), default),
            await trials.AddAsync(Asked(new PlayTrial()), default)
        );
        await trials.ChangeAsync(ended.Id, TrialState.Finished);

        await trials.FailAsync(waiting.Id, "The machine is gone.");
        await trials.FailAsync(ended.Id, "The machine is gone.");

        Assert.Equal((TrialState.Failed, "The machine is gone."), await StateAsync(waiting.Id));
        Assert.Equal((TrialState.Finished, null), await StateAsync(ended.Id));
    }

    private async Task<(TrialState State, string? Problem)> StateAsync(long id) =>
        (await trials.FindAsync(id)) is { } trial ? (trial.State, trial.Problem) : default;

    private static AskedTrial Asked(Trial trial) => new(
        trial, new Timeline("t", "T", Raster.Hd, new FrameRate(25), [new Passage("asked", 100, [new Layer("c", [])], [])]),
        "m", new PlaybackSettings());
}
