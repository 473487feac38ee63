using HardyBench.Core.Findings.Statistics;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Timelines;
using static System.FormattableString;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>How long does an export take? In every format and by every encoder that the machine has, or only in the one that was
/// set; the answer ranks them.</summary>
public sealed class ExportTrial : Trial
{
    public override string? Problem(TrialPlan plan) => plan.Times is < 1 or > MaxTimes
        ? $"An export trial writes each format 1 to {MaxTimes} times, not {plan.Times}."
        : string.Join(' ', Written(plan.Start, Exports(plan)[0]).Settings.Problems()) is { Length: > 0 } problems ? problems
        : null;

    public override int? StepCount(TrialPlan plan) => Exports(plan).Count * plan.Times;

    /// <summary>The faster it is the shorter, and the other way round.</summary>
    public override TimeSpan? Length(TrialPlan plan) => null;

    /// <summary>All of them once, then all of them again, so that what drifts hits each alike.</summary>
    public override TrialStep? Next(TrialPlan plan, PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed)
    {
        var exports = Exports(plan);
        if (done.Count >= exports.Count * plan.Times)
        {
            return null;
        }

        var (round, export) = (done.Count / exports.Count, exports[done.Count % exports.Count]);
        return new TrialStep(
            new StepRole(plan.Times == 1 ? export.Name : $"{export.Name}, {round + 1} of {plan.Times}"),
            Written(start, export));
    }

    protected override string NextStep(IReadOnlyList<StepOutcome> done) =>
        "Take the fastest format that the delivery accepts; the advice weighs export time if a brief asks for it.";

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done)
    {
        var running = timeline.Rate.StartOf(timeline.FrameCount);
        var ranked = done.GroupBy(outcome => outcome.Header.Settings.Export!)
            .Select(group => (Export: group.Key, Times: group.Select(outcome => outcome.Wrote?.TotalSeconds).ToList()))
            .ToList();
        var whole = ranked.Where(one => one.Times.TrueForAll(time => time is not null))
            .Select(one => (one.Export, Spread: Spread.Of([.. one.Times.Select(time => time!.Value)])))
            .OrderBy(one => one.Spread.Mean).ToList();
        var broken = ranked.Where(one => one.Times.Exists(time => time is null)).Select(one => one.Export.Name).ToList();
        return blank with
        {
            Rows = Told(blank, OfPassage),
            Words = string.Join(' ', new[] { OfAll(whole, running), OfBroken(broken) }.OfType<string>()),
        };
    }

    private static string OfAll(List<(Export Export, Spread Spread)> ranked, TimeSpan running)
    {
        if (ranked.Count == 0)
        {
            return "No export was completed.";
        }

        var list = string.Join("\n", ranked.Select((one, place) => Invariant($"{place + 1}. {one.Export.Name}, {one.Spread.Mean:0.0}")
            + (one.Spread.Half is { } half ? Invariant($" ± {half:0.0}") : string.Empty)
            + Invariant($" s ({one.Spread.Mean / running.TotalSeconds:0.00} times the running time)")));
        var widest = ranked[^1].Spread.Mean / ranked[0].Spread.Mean;
        return ranked.Count == 1
            ? $"Written: {list[3..]}."
            : Invariant($"Fastest first:\n{list}\nThe slowest takes {widest:0.0} times as long as the fastest.");
    }

    private static string? OfBroken(List<string> broken) =>
        broken.Count == 0 ? null : $"Not completed, so without a time: {string.Join("; ", broken)}.";

    private static string OfPassage(PassageAnswer row)
    {
        var rates = Shown(row).Where(rate => rate > 0).ToList();
        return rates.Count == 0 ? "too few frames to tell"
            : rates.Count == 1 ? Invariant($"{rates[0]:0.0} frames a second")
            : Invariant($"{rates.Min():0.0} to {rates.Max():0.0} frames a second");
    }

    private static PlaybackPlan Written(PlaybackPlan start, Export export) => start with
    {
        Settings = start.Settings with { Policy = PlayingPolicy.Unpaced, Export = export },
    };

    private static IReadOnlyList<Export> Exports(TrialPlan plan) => plan.Start.Settings.Export is { } one
        ? [one]
        : Export.AllOn(plan.Start.Machine, plan.Start.Timeline.Raster, plan.Start.Timeline.Rate);

    private const int MaxTimes = 10;
}
