using System.Text.Json;
using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Formats.Json;
using HardyBench.Formats.Runs;
using HardyBench.Formats.Timelines;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>A run and its number.</summary>
public sealed record StoredRun(long Id, Run Run);

/// <summary>A run as a line of a list.</summary>
public sealed record RunLine(
    long Id, string TimelineId, string MachineId, PreviewScale Scale, PlayingPolicy Policy, bool Pictures,
    DateTime StartedAtUtc, RunEnding Ending, IReadOnlyList<PassageLine> Passages);

/// <summary>A passage of such a line.</summary>
public sealed record PassageLine(int Index, int Slots, int Shown, int SteadyDrops, Verdict? Verdict, Limiter? Limiter);

/// <summary>Keeps runs. A run in play is kept in pieces, one a second; when it ends they become one.</summary>
public sealed class RunStore(BenchDatabaseFactory databases)
{
    /// <summary>Notes that a run has started.</summary>
    /// <returns>Its number.</returns>
    public async Task<long> BeginAsync(RunHeader header)
    {
        await using var database = databases.CreateDbContext();
        var run = new RunEntity
        {
            TimelineId = header.Timeline.Id,
            TimelineDigest = TimelineJson.Digest(header.Timeline),
            MachineId = header.Machine.Id,
            Scale = header.Settings.Scale,
            Policy = header.Settings.Policy,
            Pictures = header.Settings.Pictures,
            StartedAtUtc = header.StartedAt.UtcDateTime,
            Ending = RunEnding.Playing,
            Owner = RunOwner.Current,
            HeaderJson = JsonSerializer.Serialize(header, BenchJson.Options),
            FailuresJson = "[]",
        };
        database.Add(run);
        await database.SaveChangesAsync();
        return run.Id;
    }

    /// <summary>Keeps what a run in play has brought since the last call.</summary>
    public async Task AppendAsync(long id, int sequence, RunProgress news)
    {
        await using var database = databases.CreateDbContext();
        database.Add(new RunPieceEntity
        {
            RunId = id, Sequence = sequence, Columns = await RunColumns.WriteAsync(news.Frames, news.Loads),
        });
        if (news.Failures.Count > 0)
        {
            var run = await database.Runs.SingleAsync(run => run.Id == id);
            run.FailuresJson = JsonSerializer.Serialize(Failures(run).Concat(news.Failures), BenchJson.Options);
        }

        await database.SaveChangesAsync();
    }

    /// <summary>Keeps an ended run as a whole and lets its pieces go, in one step.</summary>
    public async Task FinishAsync(long id, Run run)
    {
        var columns = await RunColumns.WriteAsync(run.Frames, run.Loads);
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        var entity = await database.Runs.SingleAsync(entity => entity.Id == id);
        entity.Ending = run.Ending;
        entity.StartLagTicks = run.StartLag?.Ticks;
        entity.FailuresJson = JsonSerializer.Serialize(run.Failures, BenchJson.Options);
        entity.Columns = columns;
        entity.Passages.AddRange(RunFindings.Of(run).Select(finding => new PassageEntity
        {
            RunId = id,
            Index = finding.Index,
            Slots = finding.Counts.Slots,
            Shown = finding.Counts.Shown,
            SteadyDrops = finding.Counts.SteadyDrops,
            Verdict = finding.Verdict,
            Limiter = finding.Limiter?.Limiter,
        }));
        await database.SaveChangesAsync();
        await database.RunPieces.Where(piece => piece.RunId == id).ExecuteDeleteAsync();
        await step.CommitAsync();
    }

    /// <summary>Makes whole what programs that ended in mid-run left behind. Runs that another living program is
    /// playing are left alone.</summary>
    /// <returns>The numbers of the runs cut short.</returns>
    public async Task<IReadOnlyList<long>> RecoverAsync()
    {
        await using var database = databases.CreateDbContext();
        var playing = await database.Runs.AsNoTracking().Where(run => run.Ending == RunEnding.Playing)
            .Select(run => new { run.Id, run.Owner }).ToListAsync();
        var cut = playing.Where(run => !RunOwner.IsAlive(run.Owner)).Select(run => run.Id).ToList();
        foreach (var id in cut)
        {
            await CutShortAsync(id);
        }

        return cut;
    }

    /// <summary>Ends a run in play where it stands: kept up to its last piece, and marked so.</summary>
    public async Task CutShortAsync(long id)
    {
        var run = (await FindAsync(id))!.Run;
        await FinishAsync(id, run with { Ending = RunEnding.CutShort });
    }

    /// <summary>A run by its number, in play or ended, or null.</summary>
    public async Task<StoredRun?> FindAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        var run = await database.Runs.AsNoTracking().SingleOrDefaultAsync(run => run.Id == id);
        return run is null ? null : new StoredRun(id, await WholeAsync(database, run));
    }

    /// <summary>All runs, newest first.</summary>
    public async Task<IReadOnlyList<RunLine>> ListAsync()
    {
        await using var database = databases.CreateDbContext();
        return await database.Runs.AsNoTracking().OrderByDescending(run => run.Id)
            .Select(run => new RunLine(
                run.Id, run.TimelineId, run.MachineId, run.Scale, run.Policy, run.Pictures, run.StartedAtUtc, run.Ending,
                run.Passages.OrderBy(p => p.Index)
                    .Select(p => new PassageLine(p.Index, p.Slots, p.Shown, p.SteadyDrops, p.Verdict, p.Limiter)).ToList()))
            .ToListAsync();
    }

    /// <summary>The newest ended run of a timeline, just as it is now, on a machine.</summary>
    /// <param name="scale">Only runs at this scale; null for any.</param>
    /// <param name="bareOnly">Only finished runs that keep time, without preview pictures.</param>
    public async Task<StoredRun?> LatestAsync(string timelineDigest, string machineId, PreviewScale? scale, bool bareOnly)
    {
        await using var database = databases.CreateDbContext();
        var run = await database.Runs.AsNoTracking()
            .Where(run => run.TimelineDigest == timelineDigest && run.MachineId == machineId && run.Ending != RunEnding.Playing)
            .Where(run => scale == null || run.Scale == scale)
            .Where(run => !bareOnly || (run.Policy == PlayingPolicy.KeepTime && !run.Pictures && run.Ending == RunEnding.Finished))
            .OrderByDescending(run => run.Id)
            .FirstOrDefaultAsync();
        return run is null ? null : new StoredRun(run.Id, await WholeAsync(database, run));
    }

    private static async Task<Run> WholeAsync(BenchDatabase database, RunEntity run)
    {
        var blobs = run.Columns is { } whole
            ? [whole]
            : await database.RunPieces.AsNoTracking().Where(piece => piece.RunId == run.Id)
                .OrderBy(piece => piece.Sequence).Select(piece => piece.Columns).ToListAsync();
        var (frames, loads) = (new List<FrameRecord>(), new List<LoadReading>());
        foreach (var blob in blobs)
        {
            var (pieceFrames, pieceLoads) = await RunColumns.ReadAsync(blob);
            frames.AddRange(pieceFrames);
            loads.AddRange(pieceLoads);
        }

        var header = JsonSerializer.Deserialize<RunHeader>(run.HeaderJson, BenchJson.Options)!;
        var lag = run.StartLagTicks is { } ticks ? new TimeSpan(ticks) : frames.Find(frame => frame.Shown is not null).Shown;
        return new Run(header, run.Ending, lag, frames, loads, Failures(run));
    }

    private static List<PassageFailure> Failures(RunEntity run) =>
        JsonSerializer.Deserialize<List<PassageFailure>>(run.FailuresJson, BenchJson.Options)!;
}
