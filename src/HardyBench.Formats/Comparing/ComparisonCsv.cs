using HardyBench.Core.Findings;
using HardyBench.Formats.Files;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Comparing;

/// <summary>A passage on one side of a comparison. Rates are frames a second; the last four columns are beside the base.</summary>
public sealed record ComparisonRow(
    int Passage,
    string Question,
    long Run,
    string Machine,
    int Runs,
    Verdict? Verdict,
    double? Shown,
    int? SteadyDrops,
    Limiter? Limiter,
    double? Headroom,
    double? Difference, double? Half, double? Ratio, string Words);

/// <summary>Comparisons as comma-separated text with a head line (RFC 4180); docs/formats.md describes every column.</summary>
public static class ComparisonCsv
{
    public static string Write(IEnumerable<ComparisonRow> rows) => CsvText.Of(rows.Select(row => new
    {
        passage = row.Passage, question = row.Question, run = row.Run, machine = row.Machine, runs = row.Runs,
        verdict = row.Verdict is { } verdict ? BenchJson.Name(verdict) : null, shown_per_s = row.Shown, steady_drops = row.SteadyDrops,
        limiter = row.Limiter is { } limiter ? BenchJson.Name(limiter) : null,
        headroom = row.Headroom,
        difference = row.Difference,
        half_width = row.Half,
        ratio = row.Ratio, words = row.Words,
    }));
}
