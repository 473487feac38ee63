using HardyBench.Core.Playback;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using static HardyBench.Store.Tests.Samples;

namespace HardyBench.Store.Tests;

/// <summary>What a killed program or a bad sector leaves in the database keeps nobody from opening it.</summary>
public sealed class DamageTests : IAsyncLifetime
{
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(10);
    private readonly string file = Path.Combine(Directory.CreateTempSubdirectory("hardybench-damage-").FullName, "bench.db");
    private BenchDatabaseFactory databases = null!;
    private RunReader runs = null!;
    private RunWriter writer = null!;
    private RunJudging judging = null!;
    private RunRecovery recovery = null!;

    public async ValueTask InitializeAsync()
    {
        databases = new BenchDatabaseFactory(file);
        await databases.MigrateAsync(CancellationToken.None);
        (runs, writer) = (new RunReader(databases), new RunWriter(databases));
        (judging, recovery) = (new RunJudging(databases, writer), new RunRecovery(databases, writer));
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task A_lock_row_of_a_killed_start_is_removed_whether_or_not_there_is_something_to_migrate()
    {
        await ExecuteAsync(file, StaleRow);
        await databases.MigrateAsync(CancellationToken.None).WaitAsync(Patience);

        var earlier = file + ".earlier";
        var old = new BenchDatabaseFactory(earlier);
        await using (var database = old.CreateDbContext())
        {
            await database.GetService<IMigrator>().MigrateAsync(database.Database.GetMigrations().First());
        }

        await ExecuteAsync(earlier, StaleRow);
        await old.MigrateAsync(CancellationToken.None).WaitAsync(Patience);

        await using var now = old.CreateDbContext();
        Assert.Empty(await now.Database.GetPendingMigrationsAsync());
    }

    [Fact]
    public async Task Two_who_migrate_a_new_file_at_once_both_come_through()
    {
        var fresh = new BenchDatabaseFactory(file + ".fresh");

        var all = Enumerable.Range(0, 6).Select(_ => Task.Run(() => fresh.MigrateAsync(CancellationToken.None)));
        await Task.WhenAll(all).WaitAsync(Patience);

        await using var now = fresh.CreateDbContext();
        Assert.Empty(await now.Database.GetPendingMigrationsAsync());
    }

    [Theory]
    [InlineData("UPDATE RunPieces SET Columns = x'00ff00ff'")]
    [InlineData("UPDATE RunPieces SET Columns = CAST('{\"progressed\":null}' AS BLOB)")]
    [InlineData("UPDATE Runs SET HeaderJson = '{ not json'")]
    [InlineData("UPDATE Runs SET HeaderJson = '{}'")]
    [InlineData("UPDATE Runs SET LagsJson = 'nonsense'")]
    [InlineData("UPDATE Runs SET FailuresJson = '[null]'")]
    public async Task An_interrupted_run_that_is_damaged_is_marked_and_the_others_are_recovered(string damage)
    {
        var (bad, good) = (await InterruptedAsync(), 0L);
        await ExecuteAsync(file, damage);
        good = await InterruptedAsync();

        var (interrupted, unreadable) = await recovery.RecoverAsync();

        Assert.Equal([good], interrupted);
        var one = Assert.Single(unreadable);
        Assert.Equal(bad, one.Id);
        Assert.Contains("cannot be read", one.Why, StringComparison.Ordinal);
        Assert.Equal(RunEnding.Unreadable, (await new RunList(databases).AllAsync()).Single(run => run.Id == bad).Ending);
        Assert.Empty((await recovery.RecoverAsync()).Unreadable);
        Assert.Contains("cannot be read", Assert.Single((await runs.JudgedAsync(bad))!.Notes), StringComparison.Ordinal);
        await Assert.ThrowsAsync<InvalidDataException>(() => runs.FindAsync(bad));
    }

    [Theory]
    [InlineData("UPDATE Runs SET LagsJson = '{'")]
    [InlineData("UPDATE Runs SET Columns = x'50415231'")]
    [InlineData("UPDATE Runs SET FailuresJson = 'null'")]
    public async Task A_damaged_run_that_is_to_be_judged_again_is_marked_and_the_others_are_judged(string damage)
    {
        var bad = await writer.AddAsync(Sample());
        await ExecuteAsync(file, damage);
        var good = await writer.AddAsync(Sample());
        await ExecuteAsync(file, "UPDATE Runs SET Rules = 0");

        Assert.Equal([good, bad], await judging.ToJudgeAsync());
        Assert.Null(await judging.JudgeAgainAsync(good));
        Assert.Equal(bad, (await judging.JudgeAgainAsync(bad))!.Id);
        Assert.Null(await judging.JudgeAgainAsync(good + 1));

        Assert.Empty(await judging.ToJudgeAsync());
        Assert.Single((await runs.JudgedAsync(good))!.Passages);
    }

    /// <summary>Every column that names a value of an enumeration.</summary>
    [Theory]
    [InlineData("UPDATE Runs SET Ending = 'Exploded'")]
    [InlineData("UPDATE Runs SET Scale = 'Eightieth', Policy = '', Side = 'Third'")]
    [InlineData("UPDATE PassageEntity SET Verdict = 'Shines', Limiter = 'Mood', SecondLimiter = '9999'")]
    public async Task A_name_that_nobody_knows_keeps_no_list_from_being_read(string damage)
    {
        await writer.AddAsync(Sample());
        await ExecuteAsync(file, damage);

        Assert.Single(await new RunList(databases).AllAsync());
        Assert.NotNull(await runs.JudgedAsync(1));
        Assert.Empty((await recovery.RecoverAsync()).Interrupted);
        Assert.Null(await judging.JudgeAgainAsync(1));
    }

    [Fact]
    public async Task A_trial_of_an_unknown_kind_or_state_keeps_no_other_from_being_listed()
    {
        await using (var database = databases.CreateDbContext())
        {
            database.Add(new TrialEntity { TimelineId = "t", MachineId = "m", Json = "{}" });
            await database.SaveChangesAsync();
        }

        await ExecuteAsync(file, "UPDATE Trials SET Kind = 'Guess', State = 'Lost'");

        await new TrialStore(databases).RecoverAsync("ended");
        Assert.Empty(await new TrialStore(databases).ListAsync());
    }

    /// <summary>What people measured is theirs alone to read.</summary>
    [Fact]
    public async Task The_database_and_copies_of_it_are_readable_by_their_owner_only()
    {
        await databases.CopyToAsync(file + ".copy", CancellationToken.None);

        Assert.All(
            Directory.GetFiles(Path.GetDirectoryName(file)!, "bench.db*").Where(one => !one.EndsWith(".migrating", StringComparison.Ordinal)),
            one => Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(one)));
    }

    [Fact]
    public async Task Only_the_newest_copies_of_a_kind_stay()
    {
        foreach (var n in Enumerable.Range(1, 5))
        {
            await File.WriteAllTextAsync($"{file}.before-restore-2026010{n}", "copy");
            await File.WriteAllTextAsync($"{file}.before-2026010{n}", "copy");
        }

        databases.RemoveOldCopies("before-restore-*");

        Assert.Equal(
            [3, 4, 5],
            Directory.GetFiles(Path.GetDirectoryName(file)!, "*.before-restore-*").Order(StringComparer.Ordinal).Select(one => one[^1] - '0'));
        Assert.Equal(5, Directory.GetFiles(Path.GetDirectoryName(file)!, "*.before-2*").Length);
    }

    /// <summary>As a start that was killed in the midst of migrating leaves it.</summary>
    private const string StaleRow =
        """
        CREATE TABLE IF NOT EXISTS "__EFMigrationsLock" ("Id" INTEGER NOT NULL PRIMARY KEY, "Timestamp" TEXT NOT NULL);
        INSERT OR IGNORE INTO "__EFMigrationsLock" VALUES (1, '2026-01-01 00:00:00');
        """;

    private async Task<long> InterruptedAsync()
    {
        var run = Sample();
        var id = await writer.BeginAsync(run.Header);
        await writer.AppendAsync(id, 0, new RunProgress(run.Frames, run.Loads, []));
        await ExecuteAsync(file, $"UPDATE Runs SET Owner = '999999999@1' WHERE Id = {id}");
        return id;
    }
}
