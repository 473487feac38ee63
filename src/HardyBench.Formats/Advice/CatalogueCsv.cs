using HardyBench.Core.Advice.Parts;
using HardyBench.Formats.Files;
using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Advice;

/// <summary>Parts as comma-separated text with a head line (RFC 4180), a part a line: a column a member of the JSON, by its path. A line
/// whose id is there already changes what it names, so that ids and prices alone are a new list of prices.</summary>
public static class CatalogueCsv
{
    public static string Write(IReadOnlyList<Part> parts)
    {
        var rows = parts.Select(PartCells.Of).ToList();
        var columns = PartCells.Columns.Where(column => rows.Exists(row => row.ContainsKey(column))).ToList();
        return CsvText.Of(columns, rows);
    }

    /// <param name="present">Parts that are there.</param>
    /// <returns>Those that can be worked with, and what was left out.</returns>
    /// <exception cref="ShelfException">There is no head line that names ids or kinds, or far too many lines.</exception>
    public static (IReadOnlyList<Part> Parts, IReadOnlyList<RowProblem> Problems) Read(string text, IReadOnlyList<Part> present)
    {
        var table = ShelfTable.Read(text, NameOf, PartCells.Columns);
        if (!table.Columns.Contains("id") && !table.Columns.Contains("kind"))
        {
            throw new ShelfException(
                "The header line has neither id nor kind. A price list has id and price; export the parts to see every column.");
        }

        var (parts, problems) = (new List<Part>(), table.Problems.ToList());
        var known = present.ToDictionary(part => part.Id);
        foreach (var line in table.Lines)
        {
            var cells = line.Cells.Where(cell => PartCells.Columns.Contains(cell.Key)).Select(cell => (cell.Key, cell.Value)).ToList();
            var (part, problem) = line.Problem is { } wrong
                ? (null, new RowProblem($"line {line.Line}", line.Cells.GetValueOrDefault("name"), wrong))
                : Read($"line {line.Line}", cells, known);
            parts.AddRange(part is null ? [] : [part]);
            problems.AddRange(problem is null ? [] : [problem]);
        }

        return (parts, problems);
    }

    private static (Part? Part, RowProblem? Problem) Read(
        string where, List<(string Column, string Text)> cells, Dictionary<string, Part> known)
    {
        var id = cells.Find(cell => cell.Column == "id").Text;
        var before = id is null ? null : known.GetValueOrDefault(id);
        return before is null && !cells.Exists(cell => cell.Column == "kind")
            ? (null, new RowProblem(
                where, cells.Find(cell => cell.Column == "name").Text ?? id,
                id is null ? "It has neither an id nor a kind." : $"There is no part '{id}' to change, and a new one needs its kind."))
            : PartCells.Read(where, before, cells);
    }

    /// <summary>A column as it is written here, however somebody else did.</summary>
    private static string NameOf(string head) =>
        PartCells.Columns.FirstOrDefault(column => column.Equals(head.Trim(), StringComparison.OrdinalIgnoreCase)) ?? head.Trim();
}
