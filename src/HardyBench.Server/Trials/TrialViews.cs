using HardyBench.Core.Findings;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Trials;
using HardyBench.Core.Wording;
using HardyBench.Formats.Runs;
using HardyBench.Server.Timelines;
using HardyBench.Store;
using HardyBench.Workbench.Machines;
using HardyBench.Workbench.Trials;

namespace HardyBench.Server.Trials;

/// <summary>A trial as a line of a list.</summary>
/// <param name="Answer">In one sentence; null before its first run has ended.</param>
public sealed record TrialLineView(
    long Id, TrialKind Kind, string TimelineId, string TimelineTitle, string MachineName, bool StandIn, TrialState State,
    DateTimeOffset AskedAt, string? Problem, string? Answer)
{
    public static TrialLineView Of(StoredTrial trial, IReadOnlyDictionary<string, string> names, HostJobs host) => new(
            trial.Id, trial.Asked.Trial.Kind, trial.Asked.Timeline.Id, trial.Asked.Timeline.Title,
            names.GetValueOrDefault(trial.Asked.MachineId, trial.Asked.MachineId),
            !host.IsReal(trial.Asked.MachineId),
            trial.State,
            new DateTimeOffset(trial.AskedAtUtc, TimeSpan.Zero),
            trial.Problem,
            trial.Answer);
}

/// <summary>A trial with its answer: passages as rows, its runs as columns.</summary>
/// <param name="Differences">What differs from a bare run, a phrase each.</param>
/// <param name="Change">What the second side of a comparison changes; null for other trials.</param>
/// <param name="NextStep">What to do with the answer; null where nothing counts yet.</param>
/// <param name="EndCelsius">Of a soak: the temperature at the end of each round that counts, degrees Celsius.</param>
public sealed record TrialView(
    TrialLineView Trial, IReadOnlyList<string> Differences, string? Change, string Answer, string? NextStep,
    IReadOnlyList<double?> EndCelsius,
    IReadOnlyList<TrialRunView> Runs, IReadOnlyList<TrialRowView> Rows)
{
    public static TrialView Of(TrialReport report, IReadOnlyDictionary<string, string> names, HostJobs host)
    {
        var (stored, answer) = (report.Trial, report.Answer);
        var cells = report.Runs.Select(run => run.Passages.Select(CellView.Of).ToList()).ToList();
        return new TrialView(
            TrialLineView.Of(stored, names, host),
            stored.Asked.Settings.Differences(),
            ChangeWords.Of(stored.Asked.Trial, stored.Asked.Settings),
            TrialWords.Of(answer),
            answer.NextStep,
            answer.EndCelsius,
            [.. report.Runs.Select(run => new TrialRunView(run.Id, run.Role.Label, run.FramesPerSecond))],
            [.. answer.Rows.Select(row => new TrialRowView(
                row.Index + 1, row.Question, stored.Asked.Timeline.Passages[row.Index].FrameCount, row.Words,
                [.. row.Cells.Select((cell, run) => cell is null ? null : cells[run][cell.Index])],
                [.. answer.Lags.Where(lag => lag.PassageIndex == row.Index).Select(LagRow.Of)]))]);
    }
}

/// <summary>A run of a trial.</summary>
public sealed record TrialRunView(long RunId, string Label, double FramesPerSecond);

/// <summary>What a trial found about a passage.</summary>
/// <param name="Cells">One a run; null where the run did not play it. Empty for scrub and start lag.</param>
public sealed record TrialRowView(
    int Number, string Question, int FrameCount, string Words, IReadOnlyList<CellView?> Cells, IReadOnlyList<LagRow> Lags);
