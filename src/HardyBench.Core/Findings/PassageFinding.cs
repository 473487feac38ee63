using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using static HardyBench.Core.Pacing.TimeSpans;

namespace HardyBench.Core.Findings;

/// <summary>What a run says about one passage.</summary>
/// <param name="Index">Place in the timeline, from 0.</param>
/// <param name="Verdict">Null while too little of it was played, where it could not be played, and where there was no clock to
/// keep.</param>
/// <param name="Limiter">Null when it holds, or when nothing of it was played. Without a clock: what sets the pace.</param>
/// <param name="Headroom">The rate that the machine sustains ÷ the rate that the passage requires: by its tightest part, or measured where
/// there was no clock. Null where it is not known: no load could be read, or frames of a GOP were left out.</param>
/// <param name="Failure">Why it could not be played, or null.</param>
/// <param name="Wasted">Work on frames that were not shown.</param>
public sealed record PassageFinding(
    int Index,
    Passage Passage,
    PassageCounts Counts,
    Verdict? Verdict,
    LimiterFinding? Limiter,
    double? Headroom,
    string? Failure,
    WastedWork Wasted = default)
{
    /// <summary>Every part of the machine that could be read, the tightest first; empty where the passage has no verdict.</summary>
    public IReadOnlyList<PartHeadroom> Parts { get; init; } = [];

    /// <summary>From when on the rest of the passage was given up, from the key; null where it was worked on up to its end.</summary>
    public TimeSpan? GivenUpFrom { get; init; }

    /// <summary>It was judged and does not hold.</summary>
    public bool Fails => Verdict is Findings.Verdict.Wavers or Findings.Verdict.Breaks;

    /// <summary>It was played to its end and is too short for a verdict.</summary>
    public bool IsTooShort => Verdict is null && Failure is null && Counts.Slots == Passage.FrameCount;
}

/// <summary>Draws findings from a run.</summary>
public static class RunFindings
{
    /// <summary>Loads follow work by up to this much, because work is done ahead of its slot.</summary>
    private static readonly TimeSpan LoadLag = TimeSpan.FromMilliseconds(200);

    public static IReadOnlyList<PassageFinding> Of(Run run) => Of(run, VerdictLimits.Default);

    /// <summary>One finding a passage, in order; a passage that was not reached has no slots.</summary>
    public static IReadOnlyList<PassageFinding> Of(Run run, VerdictLimits limits)
    {
        var loads = new LoadsInOrder(run.Loads);
        return [.. run.Header.Timeline.Passages.Select((_, index) => Of(run, loads, limits, index))];
    }

    /// <summary>The finding of one passage alone, the same as among those of all.</summary>
    /// <param name="passage">Place in the timeline, from 0.</param>
    public static PassageFinding Of(Run run, int passage) => Of(run, new LoadsInOrder(run.Loads), VerdictLimits.Default, passage);

    private static PassageFinding Of(Run run, LoadsInOrder all, VerdictLimits limits, int index)
    {
        var rate = run.Header.Timeline.Rate;
        var frames = run.FramesOf(index);
        var loads = frames.Count == 0 ? [] : all.Between(frames[0].SlotStart, frames[^1].SlotStart + rate.FrameDuration);
        var failure = run.Failures.FirstOrDefault(failure => !failure.Overcome && failure.PassageIndex == index)?.Message;
        return Of(run, loads, limits, index, run.Header.Timeline.Passages[index], frames, failure) with
        {
            Wasted = WastedWork.Of(frames, loads, rate),
        };
    }

    /// <param name="loads">From the start of the first slot to the end of the last.</param>
    private static PassageFinding Of(
        Run run, IReadOnlyList<LoadReading> loads, VerdictLimits limits, int index, Passage passage, IReadOnlyList<FrameRecord> frames,
        string? failure)
    {
        var header = run.Header;
        var counts = DropAccounting.Count(frames, header.Timeline.Rate, header.Settings.Policy, run.StartLag);
        if (failure is not null)
        {
            var clip = new LimiterFinding(Limiter.Clip, new NotPlayed(failure));
            // A missing or damaged clip says nothing of the machine.
            return new PassageFinding(index, passage, counts, null, clip, null, failure);
        }

        var rate = header.Timeline.Rate;
        var isPaced = header.Settings.Policy != PlayingPolicy.Unpaced;
        if (!isPaced)
        {
            counts = counts with
            {
                ShownRate = SustainedRate.Of([.. frames.Select(frame => frame.Shown).OfType<TimeSpan>()], header.Settings),
            };
        }

        var verdict = isPaced ? limits.Of(counts) : null;
        if (verdict is null && (isPaced || counts.ShownRate == 0))
        {
            return new PassageFinding(index, passage, counts, null, null, null, null);
        }

        // Without a clock a passage can be over in less than loads lag behind.
        var lag = isPaced ? LoadLag : Shorter(LoadLag, (frames[^1].SlotStart - frames[0].SlotStart) / 10);
        var end = frames[^1].SlotStart + rate.FrameDuration;
        var whole = LoadMeans.Over(loads, frames[0].SlotStart + lag, end);
        if (!isPaced)
        {
            // Without a clock something is always at its ceiling, and every moment in which a frame was done says what.
            var moments = MissWindows.Of(frames.Select(frame => frame.Ready).OfType<TimeSpan>(), loads, whole);
            var limiter = LimiterRules.Find(moments, false, whole, header.Conditions);
            if (limiter is { Limiter: Limiter.ProcessorDecode or Limiter.MediaEngine })
            {
                var done = frames.Where(frame => frame.Shown is not null).ToList();
                var cost = WorkWindow.CostOf(SustainedRate.Counted(done, header.Settings), done, WorkWindow.GopOf(header, passage));
                counts = counts with { ShownRate = counts.ShownRate * cost };
            }

            var throughput = counts.ShownRate / rate.FramesPerSecond;
            return new PassageFinding(
                index,
                passage,
                counts,
                null,
                limiter,
                throughput,
                null
            )
            {
                Parts = Headrooms.Of(whole, header.Conditions, throughput),
            };
        }

        // After the rest of a passage was given up the machine does nothing, which says nothing of what limits it.
        var givenUp = GivenUp(frames, loads, rate);
        var worked = givenUp is null ? frames : [.. frames.Where(frame => frame.SlotStart < givenUp)];
        var ofWork = givenUp is { } from ? LoadMeans.Over(loads, whole.From, Longer(from, whole.From)) : whole;
        var (misses, areMisses) = Judged(worked, rate);
        // What a passage could still take is a matter of all of it, not of the moments in which a frame was late.
        var gop = WorkWindow.GopOf(header, passage);
        var window = WorkWindow.Of(frames, loads, gop);
        var parts = Headrooms.Of(
            window is null ? whole : LoadMeans.Over(loads, window.From, window.To),
            header.Conditions,
            window is null ? FinishedShare(frames, counts) : window.Rate / rate.FramesPerSecond,
            window?.DecodeCost ?? 1);
        if (verdict != Verdict.Holds && gop > 1 && counts.Shown < counts.Slots)
        {
            parts = Headrooms.WithoutFigure(parts);
        }

        var limitedBy = verdict == Verdict.Holds
            ? null
            : LimiterRules.Find(MissWindows.Of(misses, loads, ofWork), areMisses, ofWork, header.Conditions);
        return new PassageFinding(index, passage, counts, verdict, limitedBy, Headrooms.Least(parts), null)
        {
            Parts = parts,
            GivenUpFrom = givenUp,
        };
    }

    /// <summary>A rest so long is reported: a chart shows it as an idle machine while frames are missed. Our own choice.</summary>
    private static readonly TimeSpan ToldRest = TimeSpan.FromSeconds(0.5);

    /// <summary>Cores that the player keeps busy below which it does nothing but show what it has. Our own choice.</summary>
    private const double AtRest = 0.1;

    /// <summary>When the last work was done, where what comes after it was passed over without any. Frames that were begun and came to
    /// nothing are seen by the player's load.</summary>
    private static TimeSpan? GivenUp(IReadOnlyList<FrameRecord> frames, IReadOnlyList<LoadReading> loads, FrameRate rate)
    {
        var rest = frames.Reverse().TakeWhile(frame => frame.Reason is DropReason.DecodeSkipped or DropReason.PassedOver).Count();
        if (rest == 0 || rest == frames.Count)
        {
            return null;
        }

        var done = frames.Take(frames.Count - rest).Max(frame => Longer(frame.Ready ?? TimeSpan.Zero, frame.SlotStart));
        var worked = loads.Where(load => load is { Kind: LoadKind.OwnProcess, Value: >= (float)AtRest }).Select(load => load.At);
        var from = Longer(done, worked.DefaultIfEmpty().Max());
        return frames[^1].SlotStart + rate.FrameDuration - from >= ToldRest ? from : null;
    }

    /// <summary>Share of the demand that was met, where too few frames were finished to tell a rate.</summary>
    private static double FinishedShare(IReadOnlyList<FrameRecord> frames, PassageCounts counts) =>
        (double)frames.Count(frame => frame.Ready is not null) / frames.Count * (counts.Length / (counts.Length + counts.Slip));

    /// <summary>By when work was wanted and not there: where slots were missed, or began with a late frame. Those given up in a row may
    /// pass while the look-ahead is full and nothing is busy, so where they are most, the moments count in which frames became ready,
    /// besides the misses of frames that were begun.</summary>
    /// <returns>The moments, and whether they are those of misses only.</returns>
    private static (List<TimeSpan> Moments, bool AreMisses) Judged(IReadOnlyList<FrameRecord> frames, FrameRate rate)
    {
        var missed = frames.Where(frame => frame.Status != FrameStatus.OnTime).ToLookup(
            frame => frame.Reason == DropReason.DecodeSkipped,
            frame => frame.Status == FrameStatus.Late ? frame.SlotStart : frame.SlotStart + rate.FrameDuration);
        return missed[true].Count() >= missed[false].Count()
            ? ([.. frames.Select(frame => frame.Ready).OfType<TimeSpan>(), .. missed[false]], false)
            : ([.. missed[false]], true);
    }
}
