using System.Text.Json;
using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Lags;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Playback.Subjects;
using HardyBench.Core.Wording;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Runs;

/// <summary>A run's results as JSON: machine, conditions, clip checksums, and a row for each passage. docs/formats.md
/// describes every member.</summary>
public static class RunJson
{
    /// <param name="id">The run's number in its store, or null when it has none.</param>
    /// <param name="marks">Observations pinned to it; null for none.</param>
    /// <param name="trialId">The trial that it belongs to, in its store; null for none.</param>
    public static string Write(
        long? id,
        Run run,
        IReadOnlyList<PassageFinding> findings,
        IReadOnlyList<RunMark>? marks = null,
        long? trialId = null
    ) => JsonSerializer.Serialize(RunDocument.Of(id, run, findings, marks, trialId), BenchJson.Options);
}

/// <summary>The document that <see cref="RunJson"/> writes.</summary>
public sealed record RunDocument(
    string Format,
    long? Id,
    DateTimeOffset StartedAt,
    RunEnding Ending,
    Core.Machines.Machine Machine,
    TimelineFacts Timeline,
    Subject Subject,
    PlaybackSettings Settings,
    Conditions Conditions,
    IReadOnlyDictionary<string, string> ClipChecksums,
    double? StartLagMs,
    IReadOnlyList<PassageRow> Passages,
    IReadOnlyList<LagRow> Lags,
    IReadOnlyList<MarkRow> Marks,
    IReadOnlyList<string> Notes,
    long? TrialId = null)
{
    /// <summary>Why it does not count for its machine, and what to do, in words; null where it counts.</summary>
    public string? NotCounting { get; init; }

    /// <param name="trialId">The trial that it belongs to, in its store; null for none.</param>
    public static RunDocument Of(
        long? id,
        Run run,
        IReadOnlyList<PassageFinding> findings,
        IReadOnlyList<RunMark>? marks = null,
        long? trialId = null
    )
    {
        var header = run.Header;
        return new RunDocument(
            "hardy-bench-run/2",
            id,
            header.StartedAt,
            run.Ending,
            header.Machine,
            new TimelineFacts(
                header.Timeline.Id, header.Timeline.Title, header.Timeline.Raster.Width, header.Timeline.Raster.Height,
                header.Timeline.Rate.Numerator, header.Timeline.Rate.Denominator),
            header.Subject,
            header.Settings,
            header.Conditions,
            header.ClipChecksums,
            run.StartLag?.TotalMilliseconds,
            [.. findings.Select(finding => PassageRow.Of(finding, run.Header.Conditions))],
            [.. LagFindings.Of(run).Select(LagRow.Of)],
            [.. (marks ?? []).Select(MarkRow.Of)],
            RunWords.NotesOf(run),
            trialId)
        {
            NotCounting = AdviceWords.NotCounting(run, findings),
        };
    }
}

/// <summary>How one sort of gesture went in one passage. Shares 0 to 1; milliseconds, null when no picture was shown.</summary>
public sealed record LagRow(
    int Passage, GestureKind Kind, string Gesture, int Asked, int PassedOver, double? MedianMs, double? NinetyFifthMs, double? LongestMs,
    double WithinTenth, double WithinSecond)
{
    public static LagRow Of(LagFinding lag) => new(
        lag.PassageIndex + 1,
        lag.Kind,
        lag.Name,
        lag.Asked,
        lag.PassedOver,
        lag.Median?.TotalMilliseconds,
        lag.NinetyFifth?.TotalMilliseconds,
        lag.Longest?.TotalMilliseconds, lag.WithinTenth, lag.WithinSecond);
}

/// <summary>An observation pinned to a moment.</summary>
public sealed record MarkRow(long Id, double AtMs, int? Frame, MarkKind Kind, string Text)
{
    public static MarkRow Of(RunMark mark) => new(mark.Id, mark.At.TotalMilliseconds, mark.Frame, mark.Kind, mark.Text);
}

/// <summary>Which timeline was played.</summary>
public sealed record TimelineFacts(string Id, string Title, int Width, int Height, int RateNumerator, int RateDenominator);

/// <summary>What one part of the machine had to do over a passage.</summary>
/// <param name="Use">Share of its time or room that was taken, 0 to 1.</param>
/// <param name="Headroom">Capacity ÷ demand at the timeline's rate; null where it hardly did anything.</param>
public sealed record PartRow(string Part, double Use, double? Headroom);

/// <summary>The results of one passage. Slots = onTime + late + overdue + startUpDrops + steadyDrops.</summary>
public sealed record PassageRow(
    int Number,
    string Name,
    int Slots,
    int OnTime,
    int Late,
    int Overdue,
    int StartUpDrops,
    int SteadyDrops,
    int SteadyMisses,
    double ShownRate,
    double LongestFreezeMs,
    Verdict? Verdict,
    Limiter? Limiter,
    string? Evidence,
    double? Headroom,
    double? RecoveryMs,
    double SlipMs,
    double GapDeviationMs,
    double LatenessMs,
    double ToolLatenessMs,
    double OverdueByMs,
    double LongestOverdueMs,
    IReadOnlyDictionary<DropReason, int> DropsByReason,
    int WastedFrames,
    double? WastedShare,
    string? Failure,
    Limiter? SecondLimiter,
    string? SecondEvidence,
    IReadOnlyList<PartRow> Parts)
{
    /// <param name="conditions">Of its run.</param>
    public static PassageRow Of(PassageFinding finding, Conditions conditions)
    {
        var counts = finding.Counts;
        return new PassageRow(
            finding.Index + 1, finding.Passage.Question, counts.Slots, counts.OnTime, counts.Late, counts.Overdue, counts.StartUpDrops,
            counts.SteadyDrops, counts.SteadyMisses, counts.ShownRate, counts.LongestFreeze.TotalMilliseconds, finding.Verdict,
            finding.Limiter?.Limiter,
            LimiterWords.Evidence(finding),
            finding.Headroom,
            counts.Recovery?.TotalMilliseconds,
            counts.Slip.TotalMilliseconds,
            counts.GapDeviation.TotalMilliseconds, counts.Lateness.TotalMilliseconds, counts.ToolLateness.TotalMilliseconds,
            counts.OverdueBy.Median.TotalMilliseconds, counts.OverdueBy.Longest.TotalMilliseconds,
            counts.DropsByReason, finding.Wasted.Frames, finding.Wasted.Share, finding.Failure, finding.Limiter?.Second?.Limiter,
            finding.Limiter is { } named ? LimiterWords.Second(named) : null,
            [.. finding.Parts.Select(part => new PartRow(
                LimiterWords.NameOf(part, conditions, finding.Parts.Count(other => other.Part == part.Part) > 1),
                part.Use,
                part.Headroom
            )),
        ]
        );
    }
}
