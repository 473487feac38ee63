using System.Text.Json;
using HardyBench.Core.Advice;
using HardyBench.Core.Findings;
using HardyBench.Core.Wording;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Advice;

/// <summary>Advice as JSON; docs/formats.md describes every member.</summary>
public static class PickJson
{
    public static string Write(string timelineId, Pick pick) =>
        JsonSerializer.Serialize(PickDocument.Of(timelineId, pick), BenchJson.Options);
}

/// <summary>The document that <see cref="PickJson"/> writes.</summary>
/// <param name="MachineId">The pick, or null when no machine plays all of it.</param>
public sealed record PickDocument(
    string Format, string Timeline, string? MachineId, string? MachineName, decimal? Price, string Currency, string Reason,
    IReadOnlyList<PassedRow> Others)
{
    public static PickDocument Of(string timelineId, Pick pick) => new(
        "hardy-bench-advice/1", timelineId, pick.Machine?.Id, pick.Machine?.Name, pick.Machine?.Price,
        Core.Machines.Machine.Currency, AdviceWords.ReasonFor(pick),
        [.. pick.Others.Select(other => new PassedRow(
            other.Machine.Id, other.Machine.Name, other.Machine.Price, AdviceWords.WhyNot(other),
            other.FirstFailure is { } failure ? failure.Index + 1 : null,
            other.FirstFailure?.Verdict, other.FirstFailure?.Limiter?.Limiter))]);
}

/// <summary>A machine that was not picked.</summary>
public sealed record PassedRow(
    string MachineId, string MachineName, decimal? Price, string Why, int? FirstFailingPassage, Verdict? Verdict, Limiter? Limiter);
