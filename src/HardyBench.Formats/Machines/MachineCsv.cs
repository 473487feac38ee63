using HardyBench.Core.Machines;
using HardyBench.Formats.Files;

namespace HardyBench.Formats.Machines;

/// <summary>Machines as comma-separated text with a head line (RFC 4180), a machine a line; docs/formats.md describes every column. A
/// machine with several units of a kind has their columns again, with a number behind.</summary>
public static class MachineCsv
{
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
        var table = ShelfTable.Read(text, name => name.Trim().ToLowerInvariant(), MachineRow.Columns);
        var missing = Needed.Except(table.Columns).ToList();
        if (missing.Count > 0)
        {
            throw new ShelfException(
                $"The header line lacks the {(missing.Count == 1 ? "column" : "columns")} {string.Join(", ", missing)}. Export "
                    + "the machines to see every column."
            );
        }

        var (machines, problems) = (new List<Machine>(), table.Problems.ToList());
        foreach (var line in table.Lines)
        {
            var row = new MachineRow(new Dictionary<string, string>(line.Cells));
            try
            {
                machines.Add(
                    line.Problem is null ? MachineLimits.Checked(row.ToMachine()) : throw new MachineRefusedException(line.Problem)
                );
            }
            catch (MachineRefusedException wrong)
            {
                problems.Add(new RowProblem($"line {line.Line}", row.Name, wrong.Message));
            }
        }

        return new ShelfReading(machines, problems);
    }
}
