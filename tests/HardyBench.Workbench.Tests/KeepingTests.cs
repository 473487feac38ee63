using HardyBench.Core;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Trials;
using HardyBench.Core.Wording;
using HardyBench.Store;
using HardyBench.Workbench.Clips;
using HardyBench.Workbench.Data;
using HardyBench.Workbench.Demo;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Workbench.Tests;

/// <summary>What is kept stays whole and workable, whatever happens to a part of it.</summary>
public sealed class KeepingTests
{
    [Fact]
    public async Task One_bad_timeline_is_named_and_keeps_no_other_from_the_list()
    {
        var bench = await OpenAsync();
        await PlantAsync(bench, "broken", "{ not json");
        await PlantAsync(
            bench,
            "holed",
            """{"id":"holed","title":"Holed","raster":{"width":1920,"height":1080},"rate":{"numerator":25,"denominator":1},"passages":[null]}"""
        );
        await PlantAsync(
            bench,
            "huge",
            """{"id":"huge","title":"Huge","raster":{"width":999999,"height":1080},"rate":{"numerator":25,"denominator":1},"passages":[]}"""
        );

        Assert.Equal(["touring-night", "closing-gala"], (await bench.Timelines.AllAsync()).Select(timeline => timeline.Id));
        Assert.Equal(["broken", "holed", "huge"], (await bench.Timelines.UnreadableAsync()).Select(one => one.Id).Order());
        Assert.Contains(
            "cannot be worked with",
            (await Assert.ThrowsAsync<TimelineRefusedException>(() => bench.Timelines.FindAsync("huge"))).Message,
            StringComparison.Ordinal
        );
        Assert.Equal("touring-night", (await bench.Timelines.FindAsync("touring-night")).Timeline.Id);
    }

    /// <summary>Its id is taken all the same.</summary>
    [Fact]
    public async Task A_new_timeline_never_takes_the_id_of_one_that_cannot_be_read()
    {
        var bench = await OpenAsync();
        await PlantAsync(bench, "late-show", "{ not json");

        Assert.Equal("late-show-2", (await bench.Timelines.CreateAsync("Late show", null)).Timeline.Id);
    }

    /// <summary>Its runs are found by it, also where the title was corrected since.</summary>
    [Fact]
    public async Task A_timeline_that_is_brought_back_has_its_id_again_and_a_copy_a_new_one()
    {
        var bench = await OpenAsync();
        var second = (await bench.Timelines.CreateAsync("Late show", null)).Timeline with { Title = "The second of them" };
        Assert.Equal("the-second-of-them", (await bench.Timelines.AddAsync(second)).Timeline.Id);
        await bench.Timelines.DeleteAsync("late-show");
        Assert.Equal("late-show", (await bench.Timelines.AddAsync(second)).Timeline.Id);
        foreach (var strange in new[] { "../late", "Late Show", "läte", string.Empty, new string('a', 51) })
        {
            Assert.Matches("^the-second-of-them-[2-9]$", (await bench.Timelines.AddAsync(second with { Id = strange })).Timeline.Id);
        }
    }

    [Fact]
    public async Task A_timeline_that_is_too_large_is_not_kept()
    {
        var bench = await OpenAsync();
        var stored = await bench.Timelines.CreateAsync("Late", null);
        var passage = new Passage("asked", 50, [.. Enumerable.Repeat(new Layer("hd-avc-25", []), 65)], []);

        await Assert.ThrowsAsync<TimelineRefusedException>(() =>
            bench.Timelines.KeepAsync(stored.Timeline with { Passages = [passage] }, stored.Version)
        );
        await Assert.ThrowsAsync<TimelineRefusedException>(() => bench.Timelines.AddAsync(stored.Timeline with { Passages = [passage] }));

        Assert.Empty((await bench.Timelines.FindAsync(stored.Timeline.Id)).Timeline.Passages);
    }

    [Fact]
    public async Task Footage_that_went_round_begins_within_its_clip_once_it_is_kept()
    {
        var bench = await OpenAsync();
        var stored = await bench.Timelines.CreateAsync("Late", null);
        var frames = bench.Clips.Clips.Known("hd-avc-25").FrameCount;

        await bench.Timelines.KeepAsync(
            stored.Timeline with
            {
                Passages = [new Passage("asked", 50, [new Layer("hd-avc-25", [], (2 * frames) + 7)], [])],
            },
            stored.Version
        );

        Assert.Equal(7, (await bench.Timelines.FindAsync(stored.Timeline.Id)).Timeline.Passages[0].Layers[0].StartFrame);
    }

    [Fact]
    public async Task A_second_server_on_one_folder_is_refused_and_told_who_has_it()
    {
        var folder = new DataFolder(TestData.NewFolder());
        await Task.Yield();
        var first = ServingLock.Take(folder);

        var refused = Assert.Throws<DataFolderException>(() => ServingLock.Take(folder));
        first.Dispose();
        using var next = ServingLock.Take(folder);

        Assert.Contains($"process {Environment.ProcessId} since", refused.Message, StringComparison.Ordinal);
    }

    /// <summary>As after digests were reckoned otherwise.</summary>
    [Fact]
    public async Task Runs_without_a_digest_are_found_again_once_the_folder_is_opened()
    {
        var bench = await OpenAsync();
        await bench.Advice.PlayStandInsAsync("touring-night", CancellationToken.None);
        var advised = await bench.Advice.AdviseAsync("touring-night");
        await using (var database = new BenchDatabaseFactory(bench.Folder.Database).CreateDbContext())
        {
            await database.Runs.ExecuteUpdateAsync(set =>
                set.SetProperty(run => run.TimelineDigest, string.Empty).SetProperty(run => run.ConditionsDigest, string.Empty)
            );
        }

        Assert.Equal("No machine has played this timeline yet.", AdviceWords.ReasonFor(await bench.Advice.AdviseAsync("touring-night")));
        var opened = await Bench.OpenAsync(bench.Folder.Path, small: true, CancellationToken.None);
        Assert.Equal(AdviceWords.ReasonFor(advised), AdviceWords.ReasonFor(await opened.Advice.AdviseAsync("touring-night")));
    }

    [Fact]
    public async Task A_trial_whose_machine_is_gone_fails_and_says_so()
    {
        var bench = await OpenAsync();
        var asked = await bench.Trials.AskAsync(
            TrialKind.Play,
            "touring-night",
            "curlew-desk",
            new PlaybackSettings(),
            3,
            TimeSpan.FromMinutes(1)
        );
        await using (var database = new BenchDatabaseFactory(bench.Folder.Database).CreateDbContext())
        {
            var trial = (await database.Trials.FindAsync(asked.Id))!;
            trial.Json = trial.Json.Replace("curlew-desk", "gone-desk", StringComparison.Ordinal);
            await database.SaveChangesAsync();
        }

        await Assert.ThrowsAsync<UnknownThingException>(() => bench.Trials.PlayAsync(asked.Id, null, CancellationToken.None));

        Assert.Equal(TrialState.Failed, Assert.Single(await bench.Trials.ListAsync()).State);
    }

    [Fact]
    public async Task A_trial_is_played_once_whoever_asks()
    {
        var bench = await OpenAsync();
        var asked = await bench.Trials.AskAsync(
            TrialKind.Play,
            "touring-night",
            "curlew-desk",
            new PlaybackSettings(),
            3,
            TimeSpan.FromMinutes(1)
        );

        var both = await Task.WhenAll(Enumerable.Range(0, 2).Select(async _ =>
        {
            try
            {
                await bench.Trials.PlayAsync(asked.Id, null, CancellationToken.None);
                return true;
            }
            catch (PlanRefusedException)
            {
                return false;
            }
        }));

        Assert.Single(both, played => played);
        Assert.Equal(TrialState.Finished, Assert.Single(await bench.Trials.ListAsync()).State);
        Assert.Single(await bench.RunList.AllAsync());
    }

    [Fact]
    public async Task A_backup_brings_everything_back_and_what_was_there_is_kept_beside_it()
    {
        var bench = await OpenAsync();
        await bench.Advice.PlayStandInsAsync("touring-night", CancellationToken.None);
        var file = Path.Combine(bench.Folder.Path, "copy.db");
        Assert.True(await Backups.MakeAsync(bench.Folder, file, CancellationToken.None) > 0);
        Assert.Contains(
            "is there already",
            (await Assert.ThrowsAsync<DataFolderException>(() => Backups.MakeAsync(bench.Folder, file, CancellationToken.None))).Message,
            StringComparison.Ordinal
        );
        await bench.Timelines.CreateAsync("Written later", null);

        var kept = await Backups.RestoreAsync(bench.Folder, file, CancellationToken.None);

        var back = await Bench.OpenAsync(bench.Folder.Path, small: true, CancellationToken.None);
        Assert.Equal(["touring-night", "closing-gala"], (await back.Timelines.AllAsync()).Select(timeline => timeline.Id));
        Assert.Equal(DemoMachines.All.Count, (await back.RunList.AllAsync()).Count);
        Assert.True(File.Exists(kept));
    }

    [Fact]
    public async Task What_is_no_backup_is_not_restored()
    {
        var bench = await OpenAsync();
        var file = Path.Combine(bench.Folder.Path, "notes.txt");
        await File.WriteAllTextAsync(file, "not a database at all");

        await Assert.ThrowsAsync<DataFolderException>(() => Backups.RestoreAsync(bench.Folder, file, CancellationToken.None));
        await Assert.ThrowsAsync<DataFolderException>(() => Backups.RestoreAsync(bench.Folder, file + ".none", CancellationToken.None));
        using (ServingLock.Take(bench.Folder))
        {
            await Assert.ThrowsAsync<DataFolderException>(() =>
                Backups.RestoreAsync(bench.Folder, bench.Folder.Database, CancellationToken.None)
            );
        }

        Assert.Equal(2, (await bench.Timelines.AllAsync()).Count);
    }

    private static async Task<Bench> OpenAsync() =>
        await Bench.OpenAsync(await TestData.NewDataFolderAsync(), small: true, CancellationToken.None);

    private static async Task PlantAsync(Bench bench, string id, string json)
    {
        await using var database = new BenchDatabaseFactory(bench.Folder.Database).CreateDbContext();
        database.Add(new Store.Entities.DocumentEntity { Kind = "timeline", Id = id, Order = 9, Json = json });
        await database.SaveChangesAsync();
    }
}
