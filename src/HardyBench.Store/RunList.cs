using HardyBench.Core.Playback;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>What a list of runs is put in order by.</summary>
public enum RunOrder
{
    Number,
    Timeline,
    Machine,
    Scale,
    Ending,
    Holds,
    Wavers,
    Breaks,
    Shown,
    Slots,
}

/// <summary>What is wanted of the list of runs.</summary>
/// <param name="Words">Each is found somewhere in a run's line, whatever its case; a number also finds the run of that number.</param>
/// <param name="Skip">Runs passed over, from 0.</param>
/// <param name="Take">Runs wanted, 1 to <see cref="Most"/>.</param>
public sealed record RunQuery(string Words = "", RunOrder By = RunOrder.Number, bool Rising = false, int Skip = 0, int Take = RunQuery.Most)
{
    /// <summary>The most runs that one answer holds.</summary>
    public const int Most = 20_000;

    /// <summary>More words than this are not looked for.</summary>
    public const int MaxWords = 12;
}

/// <summary>A page of the list.</summary>
/// <param name="All">Runs that there are.</param>
/// <param name="Found">Runs that have the words.</param>
public sealed record RunPage(int All, int Found, IReadOnlyList<RunLine> Runs);

/// <summary>Lists, filters, sorts and pages runs in the database, by their lines and not by what they left.</summary>
public sealed class RunList(BenchDatabaseFactory databases)
{
    public async Task<RunPage> PageAsync(RunQuery query)
    {
        await using var database = databases.CreateDbContext();
        var lines = database.Set<RunLineEntity>().AsNoTracking().Where(line => !line.Deleted);
        var found = query.Words.ToLowerInvariant().Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).Take(RunQuery.MaxWords)
            .Aggregate(lines, Having);
        var page = InOrder(found, query).Skip(Math.Max(0, query.Skip)).Take(Math.Clamp(query.Take, 1, RunQuery.Most));
        var ids = await page.Select(line => line.RunId).ToListAsync();
        var runs = new Dictionary<long, RunLine>();
        foreach (var chunk in ids.Chunk(AtOnce))
        {
            foreach (var run in await LinesAsync(database.Runs.Where(run => chunk.Contains(run.Id))))
            {
                runs[run.Id] = run;
            }
        }

        return new RunPage(await lines.CountAsync(), await found.CountAsync(), [.. ids.Where(runs.ContainsKey).Select(id => runs[id])]);
    }

    /// <summary>All of them, newest first.</summary>
    /// <param name="deleted">Whether deleted runs are included.</param>
    public async Task<IReadOnlyList<RunLine>> AllAsync(bool deleted = false)
    {
        await using var database = databases.CreateDbContext();
        return await LinesAsync(database.Runs.Where(run => deleted || run.DeletedAtUtc == null).OrderByDescending(run => run.Id));
    }

    /// <summary>More ids than this are not asked for in one question.</summary>
    private const int AtOnce = 500;

    private static IQueryable<RunLineEntity> Having(IQueryable<RunLineEntity> lines, string word)
    {
        var like = $"%{word.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("%", "\\%", StringComparison.Ordinal)
            .Replace("_", "\\_", StringComparison.Ordinal)}%";
        var number = long.TryParse(word, out var id) ? id : -1;
        return lines.Where(line => EF.Functions.Like(line.Words, like, "\\") || line.RunId == number);
    }

    /// <summary>Runs that are equal in that column are newest first.</summary>
    private static IQueryable<RunLineEntity> InOrder(IQueryable<RunLineEntity> lines, RunQuery query)
    {
        IOrderedQueryable<RunLineEntity> By<T>(System.Linq.Expressions.Expression<Func<RunLineEntity, T>> key) =>
            (query.Rising ? lines.OrderBy(key) : lines.OrderByDescending(key)).ThenByDescending(line => line.RunId);

        return query.By switch
        {
            RunOrder.Timeline => By(line => line.Timeline),
            RunOrder.Machine => By(line => line.Machine),
            RunOrder.Scale => By(line => line.Scale),
            RunOrder.Ending => By(line => line.Ending),
            RunOrder.Holds => By(line => line.Holds),
            RunOrder.Wavers => By(line => line.Wavers),
            RunOrder.Breaks => By(line => line.Breaks),
            RunOrder.Shown => By(line => line.Slots == 0 ? -1 : (double)line.Shown / line.Slots),
            RunOrder.Slots => By(line => line.Slots),
            _ => By(line => line.RunId),
        };
    }

    private static async Task<IReadOnlyList<RunLine>> LinesAsync(IQueryable<RunEntity> runs) =>
        await runs.AsNoTracking()
            .Select(run => new RunLine(
                run.Id,
                run.TimelineId,
                run.TimelineDigest,
                run.MachineId,
                run.Scale,
                run.Policy,
                run.Pictures,
                run.StartedAtUtc,
                run.Ending,
                run.ByHand, run.ConditionsDigest, run.Differences, run.TrialId, run.Label, run.Marks.Count, run.DeletedAtUtc != null,
                run.NotCounting,
                run.Passages.OrderBy(p => p.Index)
                    .Select(p => new PassageLine(p.Index, p.Slots, p.Shown, p.SteadyDrops, p.Verdict, p.Limiter)).ToList())
            {
                TimelineTitle = run.Line != null ? run.Line.Timeline : run.TimelineId,
                MachineName = run.Line != null ? run.Line.Machine : run.MachineId,
            })
            .ToListAsync();
}
