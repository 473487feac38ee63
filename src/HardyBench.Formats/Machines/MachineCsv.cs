using HardyBench.Core.Machines;
using HardyBench.Formats.Files;

namespace HardyBench.Formats.Machines;

/// <summary>Machines as comma-separated text with a head line (RFC 4180), a machine a line; docs/formats.md describes every column. A
/// machine with several units of a kind has their columns again, with a number behind.</summary>
public static class MachineCsv
{
    /// <summary>More lines than this are not read.</summary>
    public const int MostLines = 20_000;

    private static readonly string[] Needed = ["name", "cores", "memory_gb"];

    public static string Write(IReadOnlyList<Machine> machines)
    {
        var rows = machines.Select(machine => MachineRow.Of(machine).ToDictionary()).ToList();
        var columns = MachineRow
            .Columns.Where(column => MachineRow.IsFirst(column) || rows.Exists(row => row.ContainsKey(column)))
            .ToList();
        return CsvText.Of(columns, rows);
    }

    /// <exception cref="ShelfException">There is no head line that names the columns needed, or far too many lines.</exception>
    public static ShelfReading Read(string text)
    {
        IReadOnlyList<string> head;
        IEnumerable<CsvLine> lines;
        try
        {
            (head, lines) = CsvText.Read(text, name => name.Trim().ToLowerInvariant());
        }
        catch (InterchangeTableException wrong)
        {
            throw new ShelfException(wrong.Message);
        }

        var missing = Needed.Except(head).ToList();
        if (missing.Count > 0)
        {
            throw new ShelfException(
                $"The head line does not name the {(missing.Count == 1 ? "column" : "columns")} {string.Join(", ", missing)}. Export "
                    + "a shelf to see every column."
            );
        }

        var unknown = head.Where(name => name.Length > 0 && !MachineRow.Columns.Contains(name)).ToList();
        var problems =
            unknown.Count == 0
                ? []
                : new List<RowProblem> { new("line 1", null, $"There is no column {string.Join(", ", unknown)}; it was ignored.") };
        var machines = new List<Machine>();
        foreach (var line in lines)
        {
            if (machines.Count + problems.Count > MostLines)
            {
                throw new ShelfException($"The table has more than {MostLines} lines. Nothing was read; divide it.");
            }

            var row = new MachineRow(new Dictionary<string, string>(line.Cells));
            try
            {
                machines.Add(line.TooMany == 0
                    ? MachineLimits.Checked(row.ToMachine())
                    : throw new MachineRefusedException($"The line has {line.TooMany} more cells than there are columns."));
            }
            catch (MachineRefusedException wrong)
            {
                problems.Add(new RowProblem($"line {line.Line}", row.Name, wrong.Message));
            }
        }

        return new ShelfReading(machines, problems);
    }
}
