using HardyBench.Core.Advice;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Wording;
using HardyBench.Server.Machines;
using HardyBench.Workbench.Timelines;

namespace HardyBench.Server.Timelines;

/// <summary>The sheet: passages as rows, one column of results a machine.</summary>
public sealed record SheetView(TimelineView Timeline, IReadOnlyList<ColumnView> Columns);

/// <summary>A timeline's rows.</summary>
/// <param name="Effects">Ids of the effects in it, each once.</param>
/// <param name="About">What it is for, in a few sentences; null for nothing said.</param>
public sealed record TimelineView(
    string Id, string Title, string Raster, string Rate, double FramesPerSecond, double Seconds, IReadOnlyList<PassageView> Passages,
    IReadOnlyList<string> Effects, string? About)
{
    public static TimelineView Of(Timeline timeline, IReadOnlyDictionary<string, Clip> clips)
    {
        var weights = timeline.Passages.Select(passage => PassageWeight.Of(passage, timeline, clips).Cores).ToList();
        return new TimelineView(
            timeline.Id, timeline.Title, timeline.Raster.ToString(), timeline.Rate.ToString(), timeline.Rate.FramesPerSecond,
            timeline.Rate.StartOf(timeline.FrameCount).TotalSeconds,
            [.. timeline.Passages.Select((passage, index) => new PassageView(
                index + 1, Timecode.Of(timeline.StartOf(index), timeline.Rate), timeline.StartOf(index), passage.FrameCount,
                passage.Question, ChipsOf(passage, clips), weights[index] / Math.Max(1e-12, weights.Max())))],
            [.. timeline.Passages.SelectMany(passage => passage.WithoutOff().AllEffects())
                .Select(effect => effect.Id).Distinct().Order(StringComparer.Ordinal)],
            timeline.About);
    }

    /// <summary>Short words for the work: formats, effects, the number of layers.</summary>
    private static List<string> ChipsOf(Passage written, IReadOnlyDictionary<string, Clip> clips)
    {
        var passage = written.WithoutOff();
        var chips = passage.Layers.Select(layer => clips.GetValueOrDefault(layer.ClipId))
            .Select(clip => clip is null ? "missing clip" : $"{clip.Format.Encoding} · {clip.Format.RasterAndRate}")
            .Distinct().ToList();
        if (passage.Layers.Count > 1)
        {
            chips.Add($"{passage.Layers.Count} layers");
        }

        var effects = passage.Layers.SelectMany(layer => layer.Effects).Where(effect => effect.Id != EffectCatalogue.Placement)
            .Concat(passage.Over).Select(effect => effect.Label);
        chips.AddRange(effects);
        chips.AddRange(passage.Layers.Select(layer => layer.Retime).OfType<Retime>()
            .Select(retime => FormattableString.Invariant($"{retime.Speed * 100:0.##} % speed")));
        chips.AddRange(passage.Layers.Where(layer => layer.IsTranslucent)
            .Select(layer => FormattableString.Invariant($"{layer.Opacity * 100:0.##} % opaque")));
        if (passage.Transition is { } transition)
        {
            chips.Add(transition.ToString().ToLowerInvariant());
        }

        return chips;
    }
}

/// <summary>A row's heading.</summary>
/// <param name="Weight">How demanding it is beside the most demanding passage, 0 to 1.</param>
public sealed record PassageView(
    int Number, string Start, long StartFrame, int FrameCount, string Question, IReadOnlyList<string> Chips, double Weight);

/// <summary>A column of results.</summary>
/// <param name="RunId">The run it shows, or null when nobody picked one and there is no complete bare one.</param>
/// <param name="BareId">The run it shows when nobody picks one.</param>
/// <param name="Runs">The newest runs that it can show, the two above among them; newest first.</param>
/// <param name="Cells">One a passage; empty without a run.</param>
public sealed record ColumnView(
    MachineView Machine,
    IReadOnlyList<RunOfColumn> Runs,
    long? RunId,
    long? BareId,
    RunEnding? Ending,
    DateTimeOffset? StartedAt,
    double? StartLagMs,
    IReadOnlyList<string> Notes,
    NextStepView? Next, IReadOnlyList<CellView> Cells)
{
    /// <summary>Why the run that it shows says nothing of the machine, and what to do, in words; null where it counts.</summary>
    public string? NotCounting { get; init; }

    /// <summary>The most runs that are offered; older ones are opened from the list of runs.</summary>
    private const int Offered = 20;

    public static ColumnView Of(SheetColumn column)
    {
        var (machine, runs, shown) = (MachineView.Of(column.Machine), column.Runs, column.Shown);
        var bare = RunOfColumn.Shown(runs, []);
        var offered = runs.Where((run, place) => place < Offered || run.Id == bare || run.Id == shown?.Id).ToList();
        return shown is null
            ? new ColumnView(machine, offered, null, bare, null, null, null, [], null, [])
            : new ColumnView(
                machine, offered, shown.Id, bare, shown.Ending, shown.StartedAt, shown.StartLag?.TotalMilliseconds, shown.Notes,
                NextStepView.Of(NextStep.After(shown.Ending, shown.Scale, shown.Passages, shown.NotCounting)),
                [.. shown.Passages.Select(CellView.Of)])
                {
                    NotCounting = shown.NotCounting,
                };
    }
}

/// <summary>What is sensible to do after the run, and why.</summary>
/// <param name="Scale">For a step down: the scale to play at.</param>
public sealed record NextStepView(NextAct Act, PreviewScale? Scale, string Words)
{
    public static NextStepView Of(NextStep next) => new(next.Act, next.Scale, AdviceWords.Of(next));
}

/// <summary>One result.</summary>
/// <param name="Comb">A tooth a frame: o on time, l late, d dropped.</param>
public sealed record CellView(
    Verdict? Verdict, double ShownRate, int Slots, int Shown, int StartUpDrops, int SteadyDrops, double LongestFreezeMs,
    Limiter? Limiter, Limiter? Second, double? Headroom, IReadOnlyList<string> DecodedOn, string Comb)
{
    /// <summary>Why it could not be played, in words; null where it was.</summary>
    public string? Failure { get; init; }

    public static CellView Of(PassageSummary passage) => new(
        passage.Verdict, passage.ShownRate, passage.Slots, passage.Shown, passage.StartUpDrops, passage.SteadyDrops,
        passage.LongestFreeze.TotalMilliseconds, passage.Limiter, passage.Second, passage.Headroom, passage.DecodedOn, passage.Teeth)
    {
        Failure = passage.Failure,
    };
}
