using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using MathNet.Numerics.Statistics;

namespace HardyBench.Core.Findings;

/// <summary>Adds slots up.</summary>
public static class DropAccounting
{
    /// <summary>Drops of slots that begin within this time of the first frame shown are start-up drops.</summary>
    public static readonly TimeSpan StartUp = TimeSpan.FromSeconds(1);

    /// <param name="frames">The settled slots of one passage, in order.</param>
    /// <param name="startLag">When the first frame of the whole run was shown; null when none was yet.</param>
    public static PassageCounts Count(
        IReadOnlyList<FrameRecord> frames, FrameRate rate, PlayingPolicy policy, TimeSpan? startLag)
    {
        var startUpEnds = startLag is { } shownFirst ? shownFirst + StartUp : TimeSpan.Zero;
        var onTime = frames.Count(frame => frame.Status == FrameStatus.OnTime);
        var late = frames.Where(frame => frame.Status == FrameStatus.Late).Select(Lateness).ToList();
        var overdue = frames.Where(frame => frame.Status == FrameStatus.Overdue).Select(Lateness).ToList();
        var dropped = frames.Where(frame => frame.Status == FrameStatus.Dropped);
        var startUpDrops = dropped.Count(frame => frame.SlotStart < startUpEnds);
        var length = rate.StartOf(frames.Count);
        var slip = policy == PlayingPolicy.KeepFrames
            ? late.Aggregate(TimeSpan.Zero, (sum, lateness) => sum + lateness)
            : TimeSpan.Zero;
        var shown = frames.Where(frame => frame.Shown is not null).Select(frame => frame.Shown!.Value).ToList();

        return new PassageCounts(
            frames.Count,
            onTime,
            late.Count,
            overdue.Count,
            startUpDrops,
            dropped.Count() - startUpDrops,
            length,
            frames.Count == 0 ? 0 : shown.Count / (length + slip).TotalSeconds,
            slip,
            LongestFreeze(frames, shown, rate, startUpEnds),
            GapDeviation(shown),
            Percentile(late, 50),
            Percentile([.. frames.Where(frame => frame.Status == FrameStatus.OnTime).Select(Lateness)], 99),
            (Percentile(overdue, 50), Percentile(overdue, 100)),
            frames.Count(frame => frame.Status.IsMissed() && frame.SlotStart >= startUpEnds),
            dropped.CountBy(frame => frame.Reason).ToDictionary(),
            Recovery(frames, rate));
    }

    private static TimeSpan Lateness(FrameRecord frame) =>
        frame.Shown is { } shown && shown > frame.SlotStart ? shown - frame.SlotStart : TimeSpan.Zero;

    /// <summary>So long a stretch without a miss counts as recovered. Our own choice.</summary>
    private static readonly TimeSpan Recovered = TimeSpan.FromSeconds(0.5);

    private static TimeSpan? Recovery(IReadOnlyList<FrameRecord> frames, FrameRate rate)
    {
        var wanted = Math.Min(frames.Count, (int)Math.Ceiling(Recovered.TotalSeconds * rate.FramesPerSecond));
        var unbroken = 0;
        for (var place = 0; place < frames.Count; place++)
        {
            unbroken = frames[place].Status.IsMissed() ? 0 : unbroken + 1;
            if (unbroken == wanted)
            {
                return rate.StartOf(place + 1 - wanted);
            }
        }

        return null;
    }

    /// <summary>Counts from the passage's first slot, on which the picture before it may still stand, to the end of its
    /// last slot. What stands during start-up is start-up's.</summary>
    private static TimeSpan LongestFreeze(
        IReadOnlyList<FrameRecord> frames, List<TimeSpan> shown, FrameRate rate, TimeSpan startUpEnds)
    {
        if (frames.Count == 0)
        {
            return TimeSpan.Zero;
        }

        var (longest, since) = (TimeSpan.Zero, frames[0].SlotStart);
        foreach (var moment in shown.Append(frames[^1].SlotStart + rate.FrameDuration))
        {
            var freeze = moment - (since < startUpEnds ? Earlier(startUpEnds, moment) : since);
            longest = freeze > longest ? freeze : longest;
            since = moment;
        }

        return longest;
    }

    private static TimeSpan Earlier(TimeSpan one, TimeSpan other) => one < other ? one : other;

    private static TimeSpan GapDeviation(List<TimeSpan> shown) =>
        shown.Count < 3
            ? TimeSpan.Zero
            : TimeSpan.FromSeconds(shown.Zip(shown.Skip(1), (a, b) => (b - a).TotalSeconds).StandardDeviation());

    private static TimeSpan Percentile(List<TimeSpan> times, int percent) =>
        times.Count == 0 ? TimeSpan.Zero : TimeSpan.FromSeconds(times.Select(time => time.TotalSeconds).Percentile(percent));
}
