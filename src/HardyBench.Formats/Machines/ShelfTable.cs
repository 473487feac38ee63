using HardyBench.Formats.Files;

namespace HardyBench.Formats.Machines;

/// <summary>A table of machines or parts as it is read. What every such table is refused for stands here once.</summary>
/// <param name="Columns">As they are called here.</param>
/// <param name="Problems">What is to be said of the columns.</param>
internal sealed record ShelfTable(IReadOnlyList<string> Columns, IReadOnlyList<RowProblem> Problems, IEnumerable<CsvLine> Lines)
{
    /// <summary>More lines than this are not read.</summary>
    private const int MaxLines = 20_000;

    /// <param name="nameOf">A column's name as it is called here, however somebody else wrote it.</param>
    /// <param name="known">All columns that there are.</param>
    /// <exception cref="ShelfException">A column stands twice; while the lines are read, there are far too many.</exception>
    public static ShelfTable Read(string text, Func<string, string> nameOf, IReadOnlyList<string> known)
    {
        var (columns, lines) = CsvText.Read(text, nameOf);
        if (columns.Where(column => column.Length > 0).GroupBy(column => column).FirstOrDefault(same => same.Count() > 1) is { } twice)
        {
            throw new ShelfException($"The column {twice.Key} occurs twice. Nothing was imported; delete one of the two.");
        }

        var unknown = columns.Where(name => name.Length > 0 && !known.Contains(name)).ToList();
        return new ShelfTable(
            columns,
            unknown.Count == 0 ? [] : [new RowProblem("line 1", null, $"There is no column {string.Join(", ", unknown)}; it was ignored.")],
            lines.Select((line, place) => place < MaxLines
                ? line
                : throw new ShelfException($"The table has more than {MaxLines} lines. Nothing was imported; split it.")));
    }
}
