using HardyBench.Core.Trials.Kinds;
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
            "cannot be opened",
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
        var asked = await bench.Trials.AskAsync(new PlayTrial(), "touring-night", "curlew-desk", new PlaybackSettings());
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
        var asked = await bench.Trials.AskAsync(new PlayTrial(), "touring-night", "curlew-desk", new PlaybackSettings());

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
            "already exists",
            (await Assert.ThrowsAsync<DataFolderException>(() => Backups.MakeAsync(bench.Folder, file, CancellationToken.None))).Message,
            StringComparison.Ordinal
        );
        await bench.Timelines.CreateAsync("Written later", null);

        var refused = await Assert.ThrowsAsync<DataFolderException>(() =>
            Backups.RestoreAsync(bench.Folder, file, CancellationToken.None));
        Assert.Contains("Another program uses the data", refused.Message, StringComparison.Ordinal);
        bench.Dispose();
        var kept = await Backups.RestoreAsync(bench.Folder, file, CancellationToken.None);

        using var back = await Bench.OpenAsync(bench.Folder.Path, small: true, CancellationToken.None);
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
        Assert.Equal(2, (await bench.Timelines.AllAsync()).Count);
    }

    /// <summary>A copy made by other means than a backup: as the file lies there while it is written to.</summary>
    [Fact]
    public async Task A_copy_with_its_write_ahead_log_is_restored_with_what_is_in_the_log()
    {
        var bench = await OpenAsync();
        await bench.Timelines.CreateAsync("In the log", null);
        var file = Path.Combine(TestData.NewFolder("wal"), "copy.db");
        File.Copy(bench.Folder.Database, file);
        File.Copy(bench.Folder.Database + "-wal", file + "-wal");
        await bench.Timelines.CreateAsync("Written later", null);
        bench.Dispose();

        await Backups.RestoreAsync(bench.Folder, file, CancellationToken.None);

        using var back = await Bench.OpenAsync(bench.Folder.Path, small: true, CancellationToken.None);
        Assert.Equal(
            ["closing-gala", "in-the-log", "touring-night"], (await back.Timelines.AllAsync()).Select(timeline => timeline.Id).Order());
    }

    [Theory]
    [InlineData("CREATE TRIGGER t AFTER INSERT ON Runs BEGIN DELETE FROM Runs; END", "trigger")]
    [InlineData("CREATE VIEW v AS SELECT 1", "view")]
    [InlineData("CREATE VIRTUAL TABLE f USING fts5(a)", "table")]
    [InlineData("DROP TABLE __EFMigrationsHistory", "not a copy")]
    public async Task A_copy_that_holds_what_the_product_never_makes_is_refused(string sql, string why)
    {
        var bench = await OpenAsync();
        var file = Path.Combine(bench.Folder.Path, "copy.db");
        await Backups.MakeAsync(bench.Folder, file, CancellationToken.None);
        bench.Dispose();
        await ExecuteAsync(file, sql);

        var refused = await Assert.ThrowsAsync<DataFolderException>(() =>
            Backups.RestoreAsync(bench.Folder, file, CancellationToken.None));

        Assert.Contains(why, refused.Message, StringComparison.Ordinal);
        Assert.Empty(Directory.GetFiles(bench.Folder.Path, "bench.db.*restor*"));
    }

    [Fact]
    public async Task A_copy_with_a_damaged_page_is_refused()
    {
        var bench = await OpenAsync();
        await bench.Advice.PlayStandInsAsync("touring-night", CancellationToken.None);
        var file = Path.Combine(bench.Folder.Path, "copy.db");
        await Backups.MakeAsync(bench.Folder, file, CancellationToken.None);
        bench.Dispose();
        await using (var damaged = File.OpenWrite(file))
        {
            damaged.Position = damaged.Length / 2 / 4096 * 4096;
            await damaged.WriteAsync(Enumerable.Repeat((byte)0xa5, 4096).ToArray());
        }

        var refused = await Assert.ThrowsAsync<DataFolderException>(() =>
            Backups.RestoreAsync(bench.Folder, file, CancellationToken.None));

        Assert.Contains("damaged", refused.Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_ships_and_was_deleted_stays_deleted_until_it_is_restored()
    {
        var bench = await OpenAsync();
        await bench.Timelines.DeleteAsync("touring-night");
        await bench.Briefs.SetDeletedAsync((await bench.Briefs.AllAsync())[0].Thing.Id, deleted: true);
        bench.Dispose();

        using var again = await Bench.OpenAsync(bench.Folder.Path, small: true, CancellationToken.None);

        Assert.Equal(["closing-gala"], (await again.Timelines.AllAsync()).Select(timeline => timeline.Id));
        var deleted = await again.Deleted.ListAsync();
        Assert.Equal(["brief", "timeline"], deleted.Select(thing => thing.Kind));
        Assert.Equal("Touring night", deleted[1].Name);
        foreach (var thing in deleted)
        {
            await again.Deleted.RestoreAsync(thing.Kind, thing.Id);
        }

        Assert.Empty(await again.Deleted.ListAsync());
        Assert.Equal(2, (await again.Timelines.AllAsync()).Count);
        await Assert.ThrowsAsync<UnknownThingException>(() => again.Deleted.RestoreAsync("timeline", "touring-night"));
        await Assert.ThrowsAsync<UnknownThingException>(() => again.Deleted.RestoreAsync("nonsense", "touring-night"));
    }

    /// <summary>Its id stays taken, or it would come back with the next start.</summary>
    [Fact]
    public async Task What_was_deleted_too_long_ago_cannot_be_restored_and_does_not_come_back()
    {
        var bench = await OpenAsync();
        await bench.Timelines.DeleteAsync("touring-night");
        await ExecuteAsync(bench.Folder.Database, "UPDATE Documents SET DeletedAtUtc = '2020-01-01 00:00:00' WHERE Id = 'touring-night'");
        bench.Dispose();

        using var again = await Bench.OpenAsync(bench.Folder.Path, small: true, CancellationToken.None);

        Assert.Empty(await again.Deleted.ListAsync());
        Assert.Equal(["closing-gala"], (await again.Timelines.AllAsync()).Select(timeline => timeline.Id));
        await Assert.ThrowsAsync<UnknownThingException>(() => again.Deleted.RestoreAsync("timeline", "touring-night"));
    }

    /// <summary>Every kind of thing that is imported under its id.</summary>
    [Fact]
    public async Task What_is_exported_deleted_and_imported_has_its_id_again_however_often()
    {
        var bench = await OpenAsync();
        var part = (await bench.Catalogue.AllAsync())[0].Id;
        var (parts, machines) = (await bench.Catalogue.ExportAsync("csv"), await bench.Machines.ExportAsync(["curlew-desk"], "json"));
        var (briefs, programs) = (await bench.Briefs.ExportAsync(), await bench.Programs.ExportAsync());
        var counts = await CountsAsync();
        foreach (var _ in Enumerable.Range(0, 2))
        {
            await bench.Catalogue.SetDeletedAsync(part, deleted: true);
            await bench.Machines.SetDeletedAsync("curlew-desk", deleted: true);
            foreach (var brief in await bench.Briefs.AllAsync())
            {
                await bench.Briefs.SetDeletedAsync(brief.Thing.Id, deleted: true);
            }

            foreach (var program in await bench.Programs.AllAsync())
            {
                await bench.Programs.SetDeletedAsync(program.Thing.Id, deleted: true);
            }

            await bench.Catalogue.ImportAsync(parts);
            await bench.Machines.ImportAsync("a.json", machines);
            await bench.Briefs.ImportAsync(briefs);
            await bench.Programs.ImportAsync(programs);

            Assert.Equal(counts, await CountsAsync());
            Assert.Contains(await bench.Catalogue.AllAsync(), one => one.Id == part);
            Assert.Equal("Curlew desk", (await bench.Machines.FindAsync("curlew-desk")).Name);
        }

        async Task<(int, int, int, int)> CountsAsync() => (
            (await bench.Catalogue.AllAsync()).Count, (await bench.Machines.AllAsync()).Count, (await bench.Briefs.AllAsync()).Count,
            (await bench.Programs.AllAsync()).Count);
    }

    [Fact]
    public async Task Of_several_changes_at_once_all_are_saved_or_none()
    {
        var bench = await OpenAsync();
        var shelf = Shelves.Parts(new BenchDatabaseFactory(bench.Folder.Database));
        var (first, second) = ((await shelf.AllAsync())[0], (await shelf.AllAsync())[1]);

        await Assert.ThrowsAsync<VersionConflictException>(() => shelf.KeepAsync(
            [(first.Thing with { Price = 1 }, first.Version), (second.Thing with { Price = 1 }, second.Version + 7)]));

        Assert.DoesNotContain(await bench.Catalogue.AllAsync(), part => part.Price == 1);
    }

    /// <summary>What is stopped goes on after the next start, and no run is judged without its turn.</summary>
    [Fact]
    public async Task Judging_again_takes_a_turn_for_each_run_newest_first_and_can_be_stopped()
    {
        var bench = await OpenAsync();
        var plan = await bench.Plays.PlanAsync("touring-night", "curlew-desk", new PlaybackSettings());
        var runs = new List<long>();
        for (var run = 0; run < 3; run++)
        {
            runs.Add((await bench.Plays.PlayAsync(plan, null, CancellationToken.None)).Id);
        }

        await ExecuteAsync(bench.Folder.Database, "UPDATE Runs SET Rules = 0");
        using var stop = new CancellationTokenSource();
        var (turns, told) = (0, new List<(int, int)>());

        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => bench.JudgeAgainAsync(stop.Token, Tell, Turn));
        Assert.Equal([runs[0]], await bench.RunJudging.ToJudgeAsync());
        await bench.JudgeAgainAsync(CancellationToken.None);

        Assert.Empty(await bench.RunJudging.ToJudgeAsync());
        Assert.Equal(2, turns);
        Assert.Equal([(1, 3), (2, 3)], told);

        Task<IDisposable> Turn(CancellationToken stopped)
        {
            turns++;
            return Task.FromResult<IDisposable>(new CancellationTokenSource());
        }

        void Tell(int done, int of)
        {
            told.Add((done, of));
            if (done == 2)
            {
                stop.Cancel();
            }
        }
    }

    [Fact]
    public async Task Several_programs_open_a_new_folder_at_once()
    {
        var folder = TestData.NewFolder("several");

        var opened = await Task.WhenAll(Enumerable.Range(0, 5)
            .Select(_ => Task.Run(() => Bench.OpenAsync(folder, small: true, CancellationToken.None))));

        Assert.All(opened, bench => Assert.Empty(bench.Unreadable));
        Array.ForEach(opened, bench => bench.Dispose());
    }

    private static async Task ExecuteAsync(string file, string sql)
    {
        await using var connection = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={file};Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync();
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
