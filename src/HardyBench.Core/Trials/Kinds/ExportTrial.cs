using HardyBench.Core.Findings.Statistics;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Timelines;
using static System.FormattableString;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>How long does an export take? In every format and by every encoder that the machine has, or only in the one that was
/// set; the answer ranks them.</summary>
/// <param name="Times">How often each format is written.</param>
/// <param name="Format">Null for every format by every encoder.</param>
public sealed record ExportTrial(int Times = 3, ExportFormat? Format = null, EncoderPlace Encoder = EncoderPlace.Processor)
    : Trial(TrialKind.Export)
{
    public override string? Problem(PlaybackPlan start) => Times is < 1 or > MostTimes
        ? $"An export trial writes each format 1 to {MostTimes} times, not {Times}."
        : string.Join(' ', Exports(start)[0].Problems(Written(start, Exports(start)[0]))) is { Length: > 0 } problems ? problems
        : null;

    public override int? StepCount(PlaybackPlan start) => Exports(start).Count * Times;

    /// <summary>The faster it is the shorter, and the other way round.</summary>
    public override TimeSpan? Length(PlaybackPlan start) => null;

    /// <summary>All of them once, then all of them again, so that what drifts hits each alike.</summary>
    public override TrialStep? Next(PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed)
    {
        var exports = Exports(start);
        if (done.Count >= exports.Count * Times)
        {
            return null;
        }

        var (round, export) = (done.Count / exports.Count, exports[done.Count % exports.Count]);
        return new TrialStep(
            new StepRole(Times == 1 ? export.Name : $"{export.Name}, {round + 1} of {Times}"),
            Written(start, export));
    }

    protected override string NextStep(IReadOnlyList<StepOutcome> done) =>
        "Take the fastest format that the delivery accepts; the advice weighs export time if a brief asks for it.";

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done)
    {
        var running = timeline.Rate.StartOf(timeline.FrameCount);
        var ranked = done.GroupBy(outcome => (Export)outcome.Header.Subject)
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
        Settings = start.Settings with { Policy = PlayingPolicy.Unpaced },
        Subject = export,
    };

    private IReadOnlyList<Export> Exports(PlaybackPlan start) => Format is { } one
        ? [new Export(one, Encoder)]
        : Export.AllOn(start.Machine, start.Timeline.Raster, start.Timeline.Rate);

    private const int MostTimes = 10;
}
