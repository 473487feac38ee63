using HardyBench.Core.Playback;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>Ends what a program left in play.</summary>
public sealed class RunRecovery(BenchDatabaseFactory databases, RunWriter writer)
{
    /// <summary>Makes whole what programs that ended in mid-run left behind. Runs that another living program is
    /// playing are left alone.</summary>
    /// <returns>The numbers of the runs that were interrupted, and those among them that are damaged.</returns>
    public async Task<(IReadOnlyList<long> Interrupted, IReadOnlyList<UnreadableRun> Unreadable)> RecoverAsync()
    {
        await using var database = databases.CreateDbContext();
        var playing = await database.Runs.AsNoTracking().Where(run => run.Ending == RunEnding.Playing)
            .Select(run => new { run.Id, run.Owner }).ToListAsync();
        var cut = playing.Where(run => !RunOwner.IsAlive(run.Owner)).Select(run => run.Id).ToList();
        var (whole, unreadable) = (new List<long>(), new List<UnreadableRun>());
        foreach (var id in cut)
        {
            try
            {
                await writer.CutShortAsync(id);
                whole.Add(id);
            }
            catch (InvalidDataException damage)
            {
                unreadable.Add(await writer.MarkUnreadableAsync(id, damage.Message));
            }
        }

        return (whole, unreadable);
    }
}
