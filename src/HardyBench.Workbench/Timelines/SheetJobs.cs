using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Timelines;
using HardyBench.Store;
using HardyBench.Workbench.Machines;

namespace HardyBench.Workbench.Timelines;

/// <summary>A timeline with what the machines beside it have shown of it.</summary>
public sealed record Sheet(Timeline Timeline, IReadOnlyList<SheetColumn> Columns);

/// <summary>A machine's column.</summary>
/// <param name="Runs">All that it can show, newest first.</param>
/// <param name="Shown">The one that it shows, or null.</param>
public sealed record SheetColumn(Machine Machine, IReadOnlyList<RunOfColumn> Runs, JudgedRun? Shown);

/// <summary>Puts sheets together.</summary>
public sealed class SheetJobs(TimelineJobs timelines, MachineJobs machines, RunReader runs)
{
    /// <param name="picked">Runs that a person picked, each for the column that it belongs to.</param>
    /// <exception cref="Core.UnknownThingException">There is no such timeline.</exception>
    public async Task<Sheet> OfAsync(string timelineId, PreviewScale scale, IReadOnlyCollection<long> picked)
    {
        var timeline = (await timelines.FindAsync(timelineId)).Timeline;
        var digest = TimelineJson.Digest(timeline);
        var columns = new List<SheetColumn>();
        foreach (var machine in await machines.ShownAsync(timelineId))
        {
            var ofColumn = await runs.OfColumnAsync(digest, machine, scale);
            var shown = RunOfColumn.Shown(ofColumn, picked);
            columns.Add(new SheetColumn(machine, ofColumn, shown is { } one ? await runs.JudgedAsync(one) : null));
        }

        return new Sheet(timeline, columns);
    }
}
