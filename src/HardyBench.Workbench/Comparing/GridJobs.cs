using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Machines;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Machines;
using HardyBench.Formats.Timelines;
using HardyBench.Store;
using HardyBench.Workbench.Machines;
using HardyBench.Workbench.Timelines;

namespace HardyBench.Workbench.Comparing;

/// <summary>Machines by passages or by timelines.</summary>
/// <param name="Timelines">By the columns' order: one whose passages are the columns, or all.</param>
/// <param name="IsByPassage">Whether columns are passages.</param>
/// <param name="Rows">One a listed machine that has played any of it.</param>
public sealed record Grid(IReadOnlyList<Timeline> Timelines, bool IsByPassage, IReadOnlyList<GridRow> Rows);

/// <param name="Cells">One a column; null where the machine has no complete bare run of it.</param>
public sealed record GridRow(Machine Machine, IReadOnlyList<GridCell?> Cells);

/// <summary>Looks over everything that machines have played bare and to its end, each by its newest run.</summary>
public sealed class GridJobs(TimelineJobs timelines, MachineJobs machines, RunReader runs)
{
    /// <summary>More runs than this are not looked through for families.</summary>
    private const int MaxCandidates = 300;

    /// <summary>Machines by the passages of a timeline.</summary>
    /// <exception cref="Core.UnknownThingException">There is no such timeline.</exception>
    public async Task<Grid> ByPassageAsync(string timelineId)
    {
        var timeline = (await timelines.FindAsync(timelineId)).Timeline;
        var all = await machines.AllAsync();
        var played = await runs.GridAsync(TimelineJson.Digest(timeline), Described(all));
        return new Grid([timeline], true, [.. all.Where(machine => played.ContainsKey(machine.Id)).Select(machine => new GridRow(
            machine, [.. timeline.Passages.Select((_, index) => played[machine.Id].GetValueOrDefault(index))]))]);
    }

    /// <summary>Machines by timelines.</summary>
    public async Task<Grid> ByTimelineAsync()
    {
        var (all, every) = (await machines.AllAsync(), await timelines.AllAsync());
        var (played, described) = (new List<IReadOnlyDictionary<string, IReadOnlyDictionary<int, GridCell>>>(), Described(all));
        foreach (var timeline in every)
        {
            played.Add(await runs.GridAsync(TimelineJson.Digest(timeline), described));
        }

        return new Grid(
            every,
            false,
            [
                .. all.Where(machine => played.Exists(of => of.ContainsKey(machine.Id)))
                    .Select(machine => new GridRow(
            machine, [.. played.Select(of => of.TryGetValue(machine.Id, out var passages) ? GridCell.Of([.. passages.Values]) : null)]))]);
    }

    /// <summary>Runs of a timeline that differ in one thing only, on listed machines.</summary>
    /// <exception cref="Core.UnknownThingException">There is no such timeline.</exception>
    public async Task<IReadOnlyList<Family>> FamiliesAsync(string timelineId)
    {
        var timeline = (await timelines.FindAsync(timelineId)).Timeline;
        var digest = TimelineJson.Digest(timeline);
        var described = Described(await machines.AllAsync());
        var played = await runs.GridAsync(digest, described);
        var bare = await CandidatesAsync(
            played.Values.Where(passages => passages.Count > 0).Select(passages => passages.Values.First().Run).Order()
                .Take(MaxCandidates));
        var asPrograms = await CandidatesAsync(await runs.ByProgramAsync(digest, described, MaxCandidates));
        return [.. Family.Among(bare), .. Family.OfPrograms([.. bare, .. asPrograms])];
    }

    private async Task<IReadOnlyList<FamilyCandidate>> CandidatesAsync(IEnumerable<long> ids)
    {
        var candidates = new List<FamilyCandidate>();
        foreach (var id in ids)
        {
            if (await runs.ConditionsAsync(id) is { } run)
            {
                candidates.Add(new FamilyCandidate(id, run.Header, run.TimelineDigest));
            }
        }

        return candidates;
    }

    private static Dictionary<string, string> Described(IReadOnlyList<Machine> machines) =>
        machines.ToDictionary(machine => machine.Id, MachineDigest.Of);
}
