using System.Globalization;
using CsvHelper;

namespace HardyBench.Formats.Files;

/// <summary>Rows as comma-separated text with a head line (RFC 4180).</summary>
internal static class CsvText
{
    /// <param name="rows">A column a property, by its name.</param>
    public static string Of<T>(IEnumerable<T> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using var csv = new CsvWriter(text, CultureInfo.InvariantCulture);
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
                csv.WriteField(cell);
            }

            csv.NextRecord();
        }

        csv.Flush();
        return text.ToString();
    }
}
