using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Machines;
using HardyBench.Core.Wording;
using HardyBench.Formats.Comparing;
using HardyBench.Workbench.Comparing;

namespace HardyBench.Server.Comparing;

/// <summary>Machines by passages or timelines.</summary>
/// <param name="Timeline">The title of the one whose passages are the columns; null where the columns are timelines.</param>
public sealed record GridView(string? Timeline, IReadOnlyList<GridColumnView> Columns, IReadOnlyList<GridRowView> Rows)
{
    public static GridView Of(Grid grid) => new(
        grid.IsByPassage ? grid.Timelines[0].Title : null,
        grid.IsByPassage
            ? [.. grid.Timelines[0].Passages.Select((passage, index) => new GridColumnView($"{index + 1}", passage.Question))]
            : [.. grid.Timelines.Select(timeline => new GridColumnView(timeline.Id, timeline.Title))],
        [.. grid.Rows.Select(row => new GridRowView(
            row.Machine.Id,
            row.Machine.Name,
            row.Machine.Kind == MachineKind.StandIn,
            row.Machine.Price,
            [.. row.Cells.Select(cell => cell is null ? null : GridCellView.Of(cell))]
        )),
    ]
    );

    /// <summary>A line a cell.</summary>
    public static IEnumerable<GridCsvRow> Lines(Grid grid)
    {
        var heads = Of(grid).Columns.Select(column => grid.IsByPassage ? $"{column.Key} {column.Words}" : column.Words).ToList();
        return grid.Rows.SelectMany(row => row.Cells.Select((cell, at) => cell is null ? null : new GridCsvRow(
            row.Machine.Name,
            row.Machine.Price,
            heads[at],
            cell.Run,
            cell.Verdict,
            cell.Share,
            cell.Headroom,
            cell.Limiter,
            cell.Holds,
            cell.Judged
        )
                )
                .OfType<GridCsvRow>()
        );
    }
}

/// <param name="Key">The passage's number, or the timeline's id.</param>
/// <param name="Words">Its question, or its title.</param>
public sealed record GridColumnView(string Key, string Words);

public sealed record GridRowView(string MachineId, string Machine, bool IsStandIn, decimal? Price, IReadOnlyList<GridCellView?> Cells);

/// <inheritdoc cref="GridCell"/>
public sealed record GridCellView(
    long RunId, Verdict? Verdict, double Share, double? Headroom, Limiter? Limiter, int Holds, int Judged, string? NotCounting)
{
    public static GridCellView Of(GridCell cell) =>
        new(cell.Run, cell.Verdict, cell.Share, cell.Headroom, cell.Limiter, cell.Holds, cell.Judged, cell.NotCounting);
}

/// <summary>Runs that differ in one thing only.</summary>
/// <param name="What">That thing.</param>
/// <param name="Runs">By rising value.</param>
public sealed record FamilyView(string What, IReadOnlyList<long> Runs, IReadOnlyList<string> Machines, IReadOnlyList<string> Values)
{
    public static FamilyView Of(Family family) => new(
        ComparisonWords.About(family.What, family.Of),
        [.. family.Members.Select(member => member.Run)],
        [.. family.Members.Select(member => member.Machine)],
        [.. family.Members.Select(member => member.Text)]);
}

/// <summary>What is gained along the one thing in which the sides differ.</summary>
/// <param name="About">That thing.</param>
/// <param name="Words">What is gained, a sentence.</param>
/// <param name="Points">By rising value.</param>
/// <param name="Knee">The place among the points from which on nothing is gained.</param>
/// <param name="HasSizes">Whether points stand by their values; else by what they show, with nothing between them.</param>
public sealed record AxisView(string About, string Words, IReadOnlyList<AxisPoint> Points, int Knee, bool HasSizes)
{
    public static AxisView Of(Axis axis) =>
        new(ComparisonWords.About(axis.What, axis.Of), ComparisonWords.Of(axis), axis.Points, axis.Knee, axis.HasSizes);
}
