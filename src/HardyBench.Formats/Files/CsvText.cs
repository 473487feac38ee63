using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using CsvHelper.TypeConversion;

namespace HardyBench.Formats.Files;

/// <summary>A line of a table that was read.</summary>
/// <param name="Line">Its number in the text, from 1.</param>
/// <param name="Cells">By column; those that are empty are left out.</param>
/// <param name="TooMany">Cells beyond the last column.</param>
internal sealed record CsvLine(int Line, IReadOnlyDictionary<string, string> Cells, int TooMany)
{
    /// <summary>Why nothing can be made of it, whatever it holds, a sentence; null where something may.</summary>
    public string? Problem => TooMany == 0 ? null : $"The line has {TooMany} more cells than there are columns.";
}

/// <summary>Rows as comma-separated text with a head line (RFC 4180). Programs for tables take a cell that begins with certain signs for a
/// formula and carry it out, so such a cell is written with an apostrophe before it, which is taken off again when it is read.</summary>
internal static class CsvText
{
    private const char Mark = '\'';

    /// <summary>Signs with which a formula may begin. Common practice, no source.</summary>
    private static readonly char[] Formula = ['=', '+', '-', '@', '\t', '\r', Mark];

    /// <param name="rows">A column a property, by its name.</param>
    public static string Of<T>(IEnumerable<T> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using var csv = new CsvWriter(text, CultureInfo.InvariantCulture);
        csv.Context.TypeConverterCache.AddConverter<string>(new Guarded());
        csv.WriteRecords(rows);
        csv.Flush();
        return text.ToString();
    }

    /// <param name="columns">Names, in order.</param>
    /// <param name="rows">Cells by column; one that is lacking is empty.</param>
    public static string Of(IReadOnlyList<string> columns, IEnumerable<IReadOnlyDictionary<string, string>> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using var csv = new CsvWriter(text, CultureInfo.InvariantCulture);
        foreach (var cells in rows.Select(row => columns.Select(column => row.GetValueOrDefault(column, string.Empty))).Prepend(columns))
        {
            foreach (var cell in cells)
            {
                csv.WriteField(Written(cell));
            }

            csv.NextRecord();
        }

        csv.Flush();
        return text.ToString();
    }

    /// <summary>Reads a table.</summary>
    /// <param name="nameOf">A column's name as it is written here, however somebody else wrote it.</param>
    /// <returns>The columns, and the lines, which are read as they are asked for.</returns>
    public static (IReadOnlyList<string> Columns, IEnumerable<CsvLine> Lines) Read(string text, Func<string, string> nameOf)
    {
        var csv = new CsvReader(new StringReader(text), new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            BadDataFound = null, MissingFieldFound = null, TrimOptions = TrimOptions.Trim, DetectColumnCountChanges = false,
        });
        IReadOnlyList<string> columns = csv.Read() && csv.ReadHeader() ? [.. csv.HeaderRecord!.Select(head => nameOf(Read(head)))] : [];
        return (columns, Lines());

        IEnumerable<CsvLine> Lines()
        {
            using (csv)
            {
                while (csv.Read())
                {
                    yield return new CsvLine(
                        csv.Parser.RawRow,
                        columns.Index().Where(column => column.Item.Length > 0)
                            .Select(column => (column.Item, Text: Read(csv.GetField(column.Index) ?? string.Empty)))
                            .Where(cell => cell.Text.Length > 0).ToDictionary(cell => cell.Item, cell => cell.Text),
                        Math.Max(0, csv.Parser.Count - columns.Count));
                }
            }
        }
    }

    /// <summary>A cell as it is written. Numbers stay as they are.</summary>
    internal static string Written(string cell) =>
        cell.Length > 0 && Formula.Contains(cell[0]) && !double.TryParse(cell, NumberStyles.Float, CultureInfo.InvariantCulture, out _)
            ? Mark + cell
            : cell;

    /// <summary>The other way round.</summary>
    internal static string Read(string cell) => cell.Length > 1 && cell[0] == Mark && Formula.Contains(cell[1]) ? cell[1..] : cell;

    private sealed class Guarded : StringConverter
    {
        public override string? ConvertToString(object? value, IWriterRow row, MemberMapData memberMapData) =>
            value is string text ? Written(text) : base.ConvertToString(value, row, memberMapData);
    }
}
