using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Limiters;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Wording;
using HardyBench.Formats.Runs;
using HardyBench.Store;
using HardyBench.Workbench;

namespace HardyBench.Server.Runs;

/// <summary>A run as a row of the list.</summary>
/// <param name="ConditionsDigest">Alike for runs that are repeats of each other.</param>
/// <param name="Differences">What differed from a bare run, a phrase each.</param>
/// <param name="TimelineDigest">Alike for runs of the same passages, whatever they were called.</param>
/// <param name="Label">What it stands for in its trial, or null.</param>
/// <param name="Marks">How many observations are pinned to it.</param>
public sealed record RunLineView(
    long Id, DateTimeOffset StartedAt, string TimelineId, string TimelineTitle, string TimelineDigest, string MachineId, string MachineName,
    PreviewScale Scale,
    PlayingPolicy Policy,
    RunEnding Ending,
    bool ByHand,
    string ConditionsDigest,
    IReadOnlyList<string> Differences,
    long? TrialId,
    string? Label,
    int Marks,
    IReadOnlyList<Verdict?> Verdicts, int Slots, int Shown, int SteadyDrops)
{
    /// <summary>Why it does not count for its machine, and what to do, in words; null where it counts.</summary>
    public string? NotCounting { get; init; }

    /// <summary>With the titles and names of today; what is deleted has those it had when it was played.</summary>
    public static async Task<IReadOnlyList<RunLineView>> OfAsync(Bench bench, IReadOnlyList<RunLine> runs)
    {
        var timelines = (await bench.Timelines.AllAsync()).ToDictionary(timeline => timeline.Id, timeline => timeline.Title);
        var machines = await bench.Machines.NamesAsync();
        return [.. runs.Select(run => Of(run, timelines, machines))];
    }

    private static RunLineView Of(
        RunLine run,
        IReadOnlyDictionary<string, string> timelines,
        IReadOnlyDictionary<string, string> machines
    ) =>
        new(
        run.Id,
        new DateTimeOffset(run.StartedAtUtc, TimeSpan.Zero),
        run.TimelineId,
        timelines.GetValueOrDefault(run.TimelineId, run.TimelineTitle),
        run.TimelineDigest, run.MachineId, machines.GetValueOrDefault(run.MachineId, run.MachineName), run.Scale, run.Policy,
        run.Ending, run.ByHand, run.ConditionsDigest, run.Differences.Split(RunLine.DifferenceMark, StringSplitOptions.RemoveEmptyEntries),
        run.TrialId, run.Label, run.Marks, [.. run.Passages.Select(passage => passage.Verdict)], run.Passages.Sum(passage => passage.Slots),
        run.Passages.Sum(passage => passage.Shown), run.Passages.Sum(passage => passage.SteadyDrops))
        {
            NotCounting = run.NotCounting,
        };
}

/// <summary>A page of the list of runs.</summary>
/// <param name="All">Runs that there are.</param>
/// <param name="Found">Runs that have the words.</param>
public sealed record RunPageView(int All, int Found, IReadOnlyList<RunLineView> Runs)
{
    public static async Task<RunPageView> OfAsync(Bench bench, RunQuery query)
    {
        var page = await bench.RunList.PageAsync(query);
        return new RunPageView(page.All, page.Found, await RunLineView.OfAsync(bench, page.Runs));
    }
}

/// <summary>One passage of a run in full: the finding, every frame, the loads on the same time axis.</summary>
/// <param name="DecodedOn">Where its clips were decoded, each place once.</param>
/// <param name="From">Milliseconds from the key at which the passage's first slot begins; frames and loads count from it.</param>
public sealed record PassageDetail(
    long RunId,
    string MachineName,
    bool StandIn,
    PassageRow Row,
    string? Helps,
    string? HelpsNot,
    IReadOnlyList<string> DecodedOn,
    IReadOnlyList<string> Notes,
    double From, double FrameMs, FrameColumns Frames, IReadOnlyList<LoadSeries> Loads, IReadOnlyList<MarkRow> Marks)
{
    /// <summary>Why the run says nothing of its machine, and what to do, in words; null where it counts, and until it has ended.</summary>
    public string? NotCounting { get; init; }

    /// <param name="number">From 1; null comes back where the timeline has no such passage.</param>
    public static PassageDetail? Of(StoredRun stored, int number)
    {
        var (run, timeline) = (stored.Run, stored.Run.Header.Timeline);
        if (number < 1 || number > timeline.Passages.Count)
        {
            return null;
        }

        // One passage alone: a timeline may have hundreds.
        var finding = RunFindings.Of(run, number - 1);
        var frames = run.FramesOf(finding.Index);
        var from = frames.Count > 0 ? frames[0].SlotStart : TimeSpan.Zero;
        var to = frames.Count > 0 ? frames[^1].SlotStart + timeline.Rate.FrameDuration : TimeSpan.Zero;
        return new PassageDetail(
            stored.Id, run.Header.Machine.Name, run.Header.Conditions.Seed is not null, PassageRow.Of(finding, run.Header.Conditions),
            finding.Limiter is { } helped ? LimiterRule.AdviceOf(helped.Limiter).Helps : null,
            finding.Limiter is { } limiter ? LimiterRule.AdviceOf(limiter.Limiter).DoesNotHelp : null,
            RunSummary.DecodedOn(run, finding.Index),
            run.Ending == RunEnding.Playing ? RunWords.NotesOf(run) : stored.Notes,
            from.TotalMilliseconds,
            timeline.Rate.FrameDuration.TotalMilliseconds,
            FrameColumns.Of(frames, timeline), LoadSeries.Of(run.Loads.Where(load => load.At > from && load.At <= to), from),
            [.. stored.Marks.Where(mark => mark.At >= from && mark.At < to).Select(MarkRow.Of)])
        {
            NotCounting = stored.NotCounting,
        };
    }
}

/// <summary>Frames as columns of equal length. Milliseconds; null where there is nothing to tell.</summary>
/// <param name="Teeth">What each slot showed, as <see cref="CombTeeth"/> writes it.</param>
/// <param name="Statuses">What became of the frame that the slot is for.</param>
/// <param name="Lateness">Shown after its slot began.</param>
public sealed record FrameColumns(
    IReadOnlyList<int> Frame, IReadOnlyList<string> Timecodes, string Teeth, IReadOnlyList<FrameStatus> Statuses,
    IReadOnlyList<DropReason> Reasons,
    IReadOnlyList<double?> Lateness, IReadOnlyList<double> Read, IReadOnlyList<double> Decode, IReadOnlyList<double> Effects,
    IReadOnlyList<double> Wait, IReadOnlyList<int> Queue)
{
    public static FrameColumns Of(IReadOnlyList<FrameRecord> frames, Timeline timeline) => new(
        [.. frames.Select(frame => frame.Frame)],
        [.. frames.Select(frame => Timecode.Of(frame.Frame, timeline.Rate))],
        CombTeeth.Of(frames, timeline.Rate),
        [.. frames.Select(frame => frame.Status)],
        [.. frames.Select(frame => frame.Reason)],
        [.. frames.Select(frame => frame.Shown is { } shown ? Ms(shown - frame.SlotStart) : (double?)null)],
        [.. frames.Select(frame => Ms(frame.Read))],
        [.. frames.Select(frame => Ms(frame.Decode))],
        [.. frames.Select(frame => Ms(frame.Effects))],
        [.. frames.Select(frame => Ms(frame.Wait))],
        [.. frames.Select(frame => frame.QueueDepth)]);

    private static double Ms(TimeSpan time) => Math.Round(time.TotalMilliseconds, 2);
}
