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
}
