using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Wording;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>Finds runs and what was found of them. Nothing here changes a run.</summary>
public sealed class RunReader(BenchDatabaseFactory databases)
{
    /// <summary>Earlier descriptions of a machine that are listed.</summary>
    private const int MaxEarlier = 5;

    /// <summary>What an ended run has shown, without its frames and loads; null where there is no such run.</summary>
    public async Task<JudgedRun?> JudgedAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        var run = await database.Runs.AsNoTracking().Where(run => run.Id == id).Select(run => new
        {
            run.Id,
            run.Ending,
            run.StartedAtUtc,
            run.StartLagTicks,
            run.Scale,
            run.NotesJson,
            run.NotCounting,
            run.Disturbed,
            Passages = run.Passages.OrderBy(passage => passage.Index).ToList(),
        }).SingleOrDefaultAsync();
        return run is null ? null : new JudgedRun(
            run.Id,
            run.Ending,
            new DateTimeOffset(run.StartedAtUtc, TimeSpan.Zero),
            run.StartLagTicks is { } lag ? new TimeSpan(lag) : null,
            run.Scale,
            RunRows.NotesOf(run.NotesJson),
            [.. run.Passages.Select(passage => new PassageSummary(
                passage.Index,
                passage.Verdict,
                passage.Limiter,
                passage.SecondLimiter,
                passage.Headroom,
                passage.Slots,
                passage.Shown,
                passage.ShownRate,
                passage.StartUpDrops, passage.SteadyDrops, new TimeSpan(passage.LongestFreezeTicks), passage.Failure, passage.Teeth,
                passage.DecodedOn.Split('\n', StringSplitOptions.RemoveEmptyEntries)))])
        {
            NotCounting = run.NotCounting, Disturbed = run.Disturbed,
        };
    }

    /// <summary>A run by its number, in play or ended, or null.</summary>
    public async Task<StoredRun?> FindAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        var run = await database.Runs.AsNoTracking().SingleOrDefaultAsync(run => run.Id == id);
        return run is null ? null : await RunRows.StoredAsync(database, run);
    }

    /// <summary>The runs of a trial, in the order played, one read at a time; those deleted are left out.</summary>
    public async IAsyncEnumerable<StoredRun> OfTrialAsync(long trialId)
    {
        await using var database = databases.CreateDbContext();
        var ids = await database
            .Runs.Where(run => run.TrialId == trialId && run.DeletedAtUtc == null)
            .OrderBy(run => run.Id)
            .Select(run => run.Id)
            .ToListAsync();
        foreach (var id in ids)
        {
            if (await database.Runs.AsNoTracking().SingleOrDefaultAsync(run => run.Id == id) is { } run)
            {
                yield return await RunRows.StoredAsync(database, run);
            }
        }
    }

    /// <summary>Those of some runs that are there and not deleted.</summary>
    public async Task<IReadOnlySet<long>> PresentAsync(IReadOnlyList<long> ids)
    {
        await using var database = databases.CreateDbContext();
        return await database.Runs.Where(run => ids.Contains(run.Id) && run.DeletedAtUtc == null).Select(run => run.Id).ToHashSetAsync();
    }

    /// <summary>Ended runs of a timeline, just as it is now, played through on a machine, just as it is described now, at a preview scale;
    /// newest first.</summary>
    public async Task<IReadOnlyList<RunOfColumn>> OfColumnAsync(string timelineDigest, Machine machine, PreviewScale scale)
    {
        await using var database = databases.CreateDbContext();
        var described = Formats.Machines.MachineDigest.Of(machine);
        var runs = await database.Runs.AsNoTracking()
            .Where(run =>
                run.TimelineDigest == timelineDigest
                && run.MachineId == machine.Id
                && run.MachineDigest == described
                && run.Scale == scale
                && run.Ending != RunEnding.Playing && !run.ByHand && run.DeletedAtUtc == null)
            .OrderByDescending(run => run.Id)
            .Select(run => new { run.Id, run.StartedAtUtc, run.Ending, run.Differences, run.NotCounting })
            .ToListAsync();
        var byScale = new PlaybackSettings(scale).Differences();
        return [.. runs.Select(run => new RunOfColumn(
            run.Id, new DateTimeOffset(run.StartedAtUtc, TimeSpan.Zero), run.Ending,
            [.. run.Differences.Split(RunLine.DifferenceMark, StringSplitOptions.RemoveEmptyEntries).Except(byScale)], run.NotCounting))];
    }

    /// <summary>Runs that a machine played before it was changed, for each of its last descriptions; the newest first. They no
    /// longer count for the machine.</summary>
    /// <param name="others">Ids of machines all of whose runs are earlier ones.</param>
    public async Task<IReadOnlyList<EarlierRuns>> OfEarlierAsync(Machine machine, params IReadOnlyList<string> others)
    {
        await using var database = databases.CreateDbContext();
        var now = Formats.Machines.MachineDigest.Of(machine);
        var groups = await database.Runs.AsNoTracking()
            .Where(run => ((run.MachineId == machine.Id && run.MachineDigest != now) || others.Contains(run.MachineId))
                && run.MachineDigest != string.Empty && run.DeletedAtUtc == null)
            .GroupBy(run => new { run.MachineId, run.MachineDigest })
            .Select(group => new { Count = group.Count(), Newest = group.Max(run => run.Id) })
            .OrderByDescending(group => group.Newest).Take(MaxEarlier).ToListAsync();
        var newest = groups.Select(group => group.Newest).ToList();
        var headers = await database.Runs.AsNoTracking().Where(run => newest.Contains(run.Id))
            .ToDictionaryAsync(run => run.Id, run => run.HeaderJson);
        return [.. groups.Select(group => (group.Count, Header: RunRows.WholeHeader(headers[group.Newest])))
            .Where(group => group.Header is not null)
            .Select(group => new EarlierRuns(group.Header!.Machine, group.Count, group.Header.StartedAt))];
    }

    /// <summary>The newest complete bare run of a timeline, just as it is now, on a machine.</summary>
    public async Task<StoredRun?> NewestBareAsync(string timelineDigest, Machine machine)
    {
        var runs = await OfColumnAsync(timelineDigest, machine, PreviewScale.Full);
        return RunOfColumn.Shown(runs, []) is { } id ? await FindAsync(id) : null;
    }

    /// <summary>The newest complete bare run of a timeline, just as it is now, on each of several machines as they are described
    /// now.</summary>
    /// <param name="described">Each machine's digest, by its id.</param>
    /// <returns>By machine, then by passage; machines without such a run are left out.</returns>
    public async Task<IReadOnlyDictionary<string, IReadOnlyDictionary<int, GridCell>>> GridAsync(
        string timelineDigest,
        IReadOnlyDictionary<string, string> described
    )
    {
        await using var database = databases.CreateDbContext();
        var runs = await database.Runs.AsNoTracking()
            .Where(run =>
                run.TimelineDigest == timelineDigest
                && run.Bare
                && run.Ending == RunEnding.Finished
                && !run.ByHand
                && run.DeletedAtUtc == null
            )
            .OrderByDescending(run => run.NotCounting == null).ThenByDescending(run => run.Id)
            .Select(run => new { run.Id, run.MachineId, run.MachineDigest, run.NotCounting }).ToListAsync();
        var newest = runs.Where(run => described.GetValueOrDefault(run.MachineId) == run.MachineDigest).DistinctBy(run => run.MachineId)
            .ToDictionary(run => run.Id);
        var passages = await database
            .Set<PassageEntity>()
            .AsNoTracking()
            .Where(passage => newest.Keys.Contains(passage.RunId) && passage.Slots > 0)
            .OrderBy(passage => passage.RunId).ThenBy(passage => passage.Index)
            .Select(passage => new
            {
                passage.RunId,
                passage.Index,
                passage.Verdict,
                passage.Limiter,
                passage.Shown,
                passage.Slots,
                passage.Headroom,
            })
            .ToListAsync();
        return passages
            .GroupBy(passage => newest[passage.RunId].MachineId)
            .ToDictionary(
                group => group.Key,
                IReadOnlyDictionary<int, GridCell> (group) =>
                    group.ToDictionary(
            passage => passage.Index,
            passage =>
                GridCell.Of(
                    passage.RunId, passage.Verdict, passage.Limiter, passage.Shown, passage.Slots, passage.Headroom,
                    newest[passage.RunId].NotCounting)
                    )
            );
    }

    /// <summary>Finished runs of a timeline, just as it is now, that stand-ins as they are described now played as editing programs; newest
    /// first.</summary>
    /// <param name="described">Each machine's digest, by its id.</param>
    public async Task<IReadOnlyList<long>> ByProgramAsync(string timelineDigest, IReadOnlyDictionary<string, string> described, int most)
    {
        await using var database = databases.CreateDbContext();
        var runs = await database.Runs.AsNoTracking()
            .Where(run => run.TimelineDigest == timelineDigest && run.Differences.StartsWith(SettingWords.PlaysAs)
                && run.Ending == RunEnding.Finished && !run.ByHand && run.DeletedAtUtc == null)
            .OrderByDescending(run => run.Id).Take(most).Select(run => new { run.Id, run.MachineId, run.MachineDigest }).ToListAsync();
        return [.. runs.Where(run => described.GetValueOrDefault(run.MachineId) == run.MachineDigest).Select(run => run.Id)];
    }

    /// <summary>What a run was played under, without what it left; null where there is none such.</summary>
    public async Task<RunConditions?> ConditionsAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        var run = await database.Runs.AsNoTracking().Where(run => run.Id == id && run.DeletedAtUtc == null)
            .Select(run => new { run.Id, run.Ending, run.TimelineDigest, run.ConditionsDigest, run.HeaderJson }).SingleOrDefaultAsync();
        return run is null
            ? null
            : new RunConditions(
                run.Id,
                RunRows.WholeHeader(run.HeaderJson) ?? throw new InvalidDataException($"Run {id} is stored but cannot be read. It was not changed."),
                run.Ending, run.TimelineDigest, run.ConditionsDigest);
    }

    /// <summary>Finished runs under just these conditions whose figures are right, newest first.</summary>
    public async Task<IReadOnlyList<long>> RepeatsAsync(string conditionsDigest, int most)
    {
        await using var database = databases.CreateDbContext();
        return await database
            .Runs.Where(run => run.ConditionsDigest == conditionsDigest && run.Ending == RunEnding.Finished
                && run.DeletedAtUtc == null && !run.Disturbed)
            .OrderByDescending(run => run.Id).Select(run => run.Id).Take(most).ToListAsync();
    }
}
