using HardyBench.Core.Findings;
using HardyBench.Formats.Files;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Comparing;

/// <summary>A cell of a grid. Share is 0 to 1.</summary>
/// <param name="What">The passage's number and question, or the timeline's title.</param>
public sealed record GridCsvRow(
    string Machine,
    decimal? Price,
    string What,
    long Run,
    Verdict? Verdict,
    double Share,
    double? Headroom,
    Limiter? Limiter,
    int Holds,
    int Judged
);

/// <summary>Grids as comma-separated text with a head line (RFC 4180), a line a cell; docs/formats.md describes every column.</summary>
public static class GridCsv
{
    public static string Write(IEnumerable<GridCsvRow> rows) => CsvText.Of(rows.Select(row => new
    {
        machine = row.Machine,
        price_eur = row.Price,
        what = row.What,
        run = row.Run,
        verdict = row.Verdict is { } verdict ? BenchJson.Name(verdict) : null,
        share = row.Share,
        headroom = row.Headroom,
        limiter = row.Limiter is { } limiter ? BenchJson.Name(limiter) : null,
        holds = row.Holds,
        judged = row.Judged,
    }));
}
