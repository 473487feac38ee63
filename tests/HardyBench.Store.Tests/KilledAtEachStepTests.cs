using System.Data.Common;
using HardyBench.Core.Playback;
using Microsoft.EntityFrameworkCore.Diagnostics;
using static HardyBench.Store.Tests.Samples;

namespace HardyBench.Store.Tests;

/// <summary>A program that is killed while it stores a run leaves the run complete or interrupted, never missing and never twice. The
/// database is copied before and after every statement and every commit, which is what a kill at that moment leaves on the drive; each
/// copy is opened and recovered as the next start would, and the recovery is killed at each of its own steps in the same way.</summary>
public sealed class KilledAtEachStepTests
{
    private readonly string folder = Directory.CreateTempSubdirectory("hardybench-steps-").FullName;

    [Fact]
    public async Task A_run_in_play_is_complete_or_interrupted_whenever_its_program_is_killed()
    {
        var run = Sample() with { Failures = [new PassageFailure(0, "clip")] };
        var (file, kills) = await NewAsync();
        var writer = new RunWriter(new BenchDatabaseFactory(file, kills));

        var id = await writer.BeginAsync(run.Header);
        kills.Promised = new(1, 0);
        await writer.AppendAsync(id, 0, new RunProgress([.. run.Frames.Take(20)], [], []));
        kills.Promised = new(1, 20);
        await writer.AppendAsync(id, 1, new RunProgress([.. run.Frames.Skip(20)], run.Loads, run.Failures));
        kills.Promised = new(1, run.Frames.Count);
        await writer.FinishAsync(id, run);
        kills.Promised = new(1, run.Frames.Count, IsFinished: true);
        kills.Copy();

        await CheckAsync(kills, run, 12);
    }

    [Fact]
    public async Task A_run_that_comes_whole_is_there_or_not_whenever_its_program_is_killed()
    {
        var run = Sample();
        var (file, kills) = await NewAsync();

        await new RunWriter(new BenchDatabaseFactory(file, kills)).AddAsync(run);
        kills.Promised = new(1, run.Frames.Count, IsFinished: true);
        kills.Copy();

        await CheckAsync(kills, run, 2);
    }

    /// <summary>Each copy, and each copy of its recovery, holds what was promised when it was made.</summary>
    /// <param name="steps">Statements and commits at least; were they not seen, nothing would be proven.</param>
    private static async Task CheckAsync(Kills kills, Run sent, int steps)
    {
        Assert.True(kills.Copies.Count > 2 * steps, $"{kills.Copies.Count}");
        foreach (var (copy, promised) in kills.Copies)
        {
            await ExecuteAsync(copy, "UPDATE Runs SET Owner = '999999999@1'");
            var again = new Kills(copy) { Promised = promised };
            await HoldsAsync(copy, promised, sent, again);
            foreach (var (twice, _) in again.Copies)
            {
                await HoldsAsync(twice, promised, sent);
            }
        }
    }

    private static async Task HoldsAsync(string file, Promise promised, Run sent, params IInterceptor[] during)
    {
        var recovering = new BenchDatabaseFactory(file, during);
        await new RunRecovery(recovering, new RunWriter(recovering)).RecoverAsync();

        var databases = new BenchDatabaseFactory(file);
        var rows = await new RunList(databases).AllAsync();
        Assert.InRange(rows.Count, promised.Runs, 1);
        foreach (var row in rows)
        {
            var found = (await new RunReader(databases).FindAsync(row.Id))!.Run;
            Assert.True(found.Ending == RunEnding.Finished || (found.Ending == RunEnding.CutShort && !promised.IsFinished), $"{found.Ending}");
            Assert.InRange(found.Frames.Count, promised.Slots, sent.Frames.Count);
            Assert.Equal(sent.Frames.Take(found.Frames.Count), found.Frames);
            Assert.Equal(found.Frames.Count, row.Passages.Sum(passage => passage.Slots));
            Assert.True(found.Ending == RunEnding.CutShort || found.Frames.Count == sent.Frames.Count);
        }

        await using var database = databases.CreateDbContext();
        Assert.Empty(database.RunPieces);
        Assert.Empty((await new RunRecovery(databases, new RunWriter(databases)).RecoverAsync()).Interrupted);
    }

    private async Task<(string File, Kills Kills)> NewAsync()
    {
        var file = Path.Combine(folder, $"{Guid.NewGuid():N}", "bench.db");
        Directory.CreateDirectory(Path.GetDirectoryName(file)!);
        await new BenchDatabaseFactory(file).MigrateAsync(CancellationToken.None);
        return (file, new Kills(file));
    }

    /// <summary>What a caller has been told is stored.</summary>
    private sealed record Promise(int Runs, int Slots, bool IsFinished = false);

    /// <summary>Copies a database whenever a statement or a commit begins or has ended.</summary>
    private sealed class Kills(string file) : DbCommandInterceptor, IDbTransactionInterceptor
    {
        private static readonly string[] Parts = ["", "-wal", "-journal"];
        private readonly string copies = file + ".kills";

        public Promise Promised { get; set; } = new(0, 0);

        public List<(string File, Promise Promised)> Copies { get; } = [];

        /// <summary>Copies the file and its journal. The index of the journal is left out: it is memory that a program shares.</summary>
        public void Copy()
        {
            var to = Path.Combine(copies, $"{Copies.Count}", "bench.db");
            Directory.CreateDirectory(Path.GetDirectoryName(to)!);
            foreach (var end in Parts.Where(end => File.Exists(file + end)))
            {
                File.Copy(file + end, to + end);
            }

            Copies.Add((to, Promised));
        }

        public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
            DbCommand command, CommandEventData eventData, InterceptionResult<DbDataReader> result,
            CancellationToken cancellationToken = default) => Copied(result);

        public override ValueTask<DbDataReader> ReaderExecutedAsync(
            DbCommand command, CommandExecutedEventData eventData, DbDataReader result, CancellationToken cancellationToken = default) =>
            Copied(result);

        public override ValueTask<InterceptionResult<int>> NonQueryExecutingAsync(
            DbCommand command, CommandEventData eventData, InterceptionResult<int> result, CancellationToken cancellationToken = default) =>
            Copied(result);

        public override ValueTask<int> NonQueryExecutedAsync(
            DbCommand command, CommandExecutedEventData eventData, int result, CancellationToken cancellationToken = default) =>
            Copied(result);

        public ValueTask<InterceptionResult> TransactionCommittingAsync(
            DbTransaction transaction, TransactionEventData eventData, InterceptionResult result,
            CancellationToken cancellationToken = default) => Copied(result);

        public Task TransactionCommittedAsync(
            DbTransaction transaction, TransactionEndEventData eventData, CancellationToken cancellationToken = default)
        {
            Copy();
            return Task.CompletedTask;
        }

        private ValueTask<T> Copied<T>(T result)
        {
            Copy();
            return ValueTask.FromResult(result);
        }
    }
}
