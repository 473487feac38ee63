using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Formats.Timelines;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>Judges runs again after the rules have changed, and takes their digests again.</summary>
public sealed class RunJudging(BenchDatabaseFactory databases, RunWriter writer)
{
    /// <summary>Ended runs that were judged by earlier rules, or by none; the newest first.</summary>
    public async Task<IReadOnlyList<long>> ToJudgeAsync()
    {
        await using var database = databases.CreateDbContext();
        return await database
            .Runs.Where(run => run.Rules != RunSummary.Rules && run.Ending != RunEnding.Playing && run.Ending != RunEnding.Unreadable)
            .OrderByDescending(run => run.Id).Select(run => run.Id).ToListAsync();
    }

    /// <summary>Judges a run again. One that cannot be read is marked so; one that was removed meanwhile is passed over.</summary>
    /// <returns>Why it cannot be read; null where it can.</returns>
    public async Task<UnreadableRun?> JudgeAgainAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        var entity = await database.Runs.Include(run => run.Passages).Include(run => run.Line).SingleOrDefaultAsync(run => run.Id == id);
        if (entity is null)
        {
            return null;
        }

        try
        {
            var run = await RunRows.WholeAsync(database, entity);
            var summary = RunSummary.Of(run);
            await using var step = await database.Database.BeginTransactionAsync();
            database.RemoveRange(entity.Passages);
            await database.SaveChangesAsync();
            entity.Passages.Clear();
            RunRows.Keep(entity, run, summary);
            await database.SaveChangesAsync();
            await step.CommitAsync();
            return null;
        }
        catch (InvalidDataException damage)
        {
            return await writer.MarkUnreadableAsync(id, damage.Message);
        }
        catch (Exception damage)
            when (damage is ArgumentException or ArithmeticException or (InvalidOperationException and not ObjectDisposedException))
        {
            // It can be read, but not as a run of its timeline; one such run must not keep the others from being judged.
            return await writer.MarkUnreadableAsync(id, $"Run {id} is stored but cannot be judged: {damage.Message} It was not changed.");
        }
    }

    /// <summary>Takes the digests of runs that have none, as after they were calculated otherwise. A run that cannot be read stays without,
    /// and so answers no timeline.</summary>
    public async Task RecomputeDigestsAsync()
    {
        await using var database = databases.CreateDbContext();
        var without = await database
            .Runs.AsNoTracking()
            .Where(run => run.TimelineDigest == string.Empty || run.MachineDigest == string.Empty)
            .Select(run => new { run.Id, run.HeaderJson }).ToListAsync();
        await using var whole = await database.Database.BeginTransactionAsync();
        foreach (var run in without)
        {
            if (RunRows.WholeHeader(run.HeaderJson) is { } header)
            {
                var (timeline, conditions) = (TimelineJson.Digest(header.Timeline), Formats.Runs.ConditionsDigest.Of(header));
                var machine = Formats.Machines.MachineDigest.Of(header.Machine);
                await database
                    .Runs.Where(one => one.Id == run.Id)
                    .ExecuteUpdateAsync(set =>
                        set.SetProperty(one => one.TimelineDigest, timeline)
                            .SetProperty(one => one.MachineDigest, machine)
                            .SetProperty(one => one.ConditionsDigest, conditions)
                    );
            }
        }

        await whole.CommitAsync();
    }
}
