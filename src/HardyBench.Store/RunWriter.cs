using System.Text.Json;
using HardyBench.Core.Playback;
using HardyBench.Formats.Json;
using HardyBench.Formats.Runs;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>Keeps runs. A run in play is kept in pieces, one a second; when it ends they become one.</summary>
public sealed class RunWriter(BenchDatabaseFactory databases)
{
    /// <summary>Notes that a run has started.</summary>
    /// <param name="place">Its place in a trial, or null.</param>
    /// <returns>Its number.</returns>
    public async Task<long> BeginAsync(RunHeader header, RunPlace? place = null)
    {
        await using var database = databases.CreateDbContext();
        var run = RunRows.Begun(header, place);
        database.Add(run);
        await database.SaveChangesAsync();
        return run.Id;
    }

    /// <summary>Keeps a run that is whole already.</summary>
    /// <returns>Its number.</returns>
    public async Task<long> AddAsync(Run run, RunPlace? place = null)
    {
        var entity = RunRows.Begun(run.Header, place);
        RunRows.End(entity, run, await RunColumns.WriteAsync(run.Frames, run.Loads));
        await using var database = databases.CreateDbContext();
        database.Add(entity);
        await database.SaveChangesAsync();
        return entity.Id;
    }

    /// <summary>Keeps what a run in play has brought since the last call. A piece that was reported as not kept and is there anyway is
    /// replaced by the one that now holds it and more.</summary>
    public async Task AppendAsync(long id, int sequence, RunProgress news)
    {
        var rows = RunPiece.Write(news);
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        await database.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO RunPieces (RunId, Sequence, Columns) VALUES ({id}, {sequence}, {rows})
            ON CONFLICT (RunId, Sequence) DO UPDATE SET Columns = excluded.Columns
            """
        );
        if (news.Failures.Count + news.Lags.Count > 0)
        {
            var run = await database.Runs.SingleAsync(run => run.Id == id);
            run.FailuresJson = JsonSerializer.Serialize(RunRows.Failures(run).Union(news.Failures), BenchJson.Options);
            run.LagsJson = JsonSerializer.Serialize(RunRows.Lags(run).Union(news.Lags), BenchJson.Options);
            await database.SaveChangesAsync();
        }

        await step.CommitAsync();
    }

    /// <summary>Keeps an ended run as a whole and lets its pieces go, in one step.</summary>
    public async Task FinishAsync(long id, Run run)
    {
        var columns = await RunColumns.WriteAsync(run.Frames, run.Loads);
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        var entity = await database.Runs.Include(entity => entity.Line).SingleAsync(entity => entity.Id == id);
        RunRows.End(entity, run, columns);
        await database.SaveChangesAsync();
        await database.RunPieces.Where(piece => piece.RunId == id).ExecuteDeleteAsync();
        await step.CommitAsync();
    }

    /// <summary>Ends a run in play where it stands: kept up to its last piece, and marked so.</summary>
    public async Task CutShortAsync(long id)
    {
        var run = (await new RunReader(databases).FindAsync(id))!.Run;
        await FinishAsync(id, run with { Ending = RunEnding.CutShort });
    }

    /// <summary>Whether an ended run is kept as a whole.</summary>
    public async Task<bool> IsWholeAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        return await database.Runs.AnyAsync(run => run.Id == id && run.Ending != RunEnding.Playing && run.Columns != null);
    }

    /// <summary>Deletes runs, or restores them.</summary>
    /// <returns>How many that were.</returns>
    public async Task<int> SetDeletedAsync(IReadOnlyList<long> ids, bool deleted, DateTimeOffset now)
    {
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        DateTime? moment = deleted ? now.UtcDateTime : null;
        var count = await database.Runs.Where(run => ids.Contains(run.Id) && run.Ending != RunEnding.Playing)
            .ExecuteUpdateAsync(change => change.SetProperty(run => run.DeletedAtUtc, moment));
        await database.Set<RunLineEntity>().Where(line => ids.Contains(line.RunId) && line.Ending != RunEnding.Playing)
            .ExecuteUpdateAsync(change => change.SetProperty(line => line.Deleted, deleted));
        await step.CommitAsync();
        return count;
    }

    /// <summary>Removes what was deleted longer ago than it can be restored.</summary>
    /// <returns>How many runs that were.</returns>
    public async Task<int> RemoveExpiredAsync(DateTimeOffset now)
    {
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        var before = (now - DeletedStore.RestorableFor).UtcDateTime;
        var gone = database.Runs.Where(run => run.DeletedAtUtc != null && run.DeletedAtUtc < before);
        var ids = gone.Select(run => run.Id);
        await database.RunPieces.Where(piece => ids.Contains(piece.RunId)).ExecuteDeleteAsync();
        await database.Marks.Where(mark => ids.Contains(mark.RunId)).ExecuteDeleteAsync();
        await database.Set<PassageEntity>().Where(passage => ids.Contains(passage.RunId)).ExecuteDeleteAsync();
        await database.Set<RunLineEntity>().Where(line => ids.Contains(line.RunId)).ExecuteDeleteAsync();
        var count = await gone.ExecuteDeleteAsync();
        await step.CommitAsync();
        return count;
    }

    /// <summary>Pins an observation to a run.</summary>
    /// <param name="mark">Its id is given here.</param>
    public async Task<RunMark> MarkAsync(long runId, RunMark mark)
    {
        await using var database = databases.CreateDbContext();
        var entity = new MarkEntity { RunId = runId, AtTicks = mark.At.Ticks, Frame = mark.Frame, Kind = mark.Kind, Text = mark.Text };
        database.Add(entity);
        await database.SaveChangesAsync();
        return mark with { Id = entity.Id };
    }

    /// <summary>Removes an observation; does nothing when there is none.</summary>
    public async Task UnmarkAsync(long runId, long markId)
    {
        await using var database = databases.CreateDbContext();
        await database.Marks.Where(mark => mark.Id == markId && mark.RunId == runId).ExecuteDeleteAsync();
    }

    /// <summary>Notes that a run is damaged. Nothing of it is changed but its ending, so that it counts nowhere.</summary>
    internal async Task<UnreadableRun> MarkUnreadableAsync(long id, string why)
    {
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        var notes = JsonSerializer.Serialize((string[])[why], BenchJson.Options);
        await database.Runs.Where(run => run.Id == id).ExecuteUpdateAsync(set =>
            set.SetProperty(run => run.Ending, RunEnding.Unreadable).SetProperty(run => run.NotesJson, notes));
        await database.Set<RunLineEntity>().Where(line => line.RunId == id)
            .ExecuteUpdateAsync(set => set.SetProperty(line => line.Ending, RunEnding.Unreadable));
        await step.CommitAsync();
        return new UnreadableRun(id, why);
    }
}
