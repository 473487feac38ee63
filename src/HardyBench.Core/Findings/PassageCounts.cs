using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>What a passage's slots add up to. Slots = on time + late + overdue + start-up drops + steady drops.</summary>
/// <param name="Slots">Slots that were settled; fewer than the passage has when the run ended early.</param>
/// <param name="Overdue">Frames shown after their slots, which count as missed.</param>
/// <param name="StartUpDrops">Drops of slots that begin in the first second after the first frame shown.</param>
/// <param name="Length">What the slots take by the clock: slots ÷ rate.</param>
/// <param name="ShownRate">Frames shown a second, over the length and any slip; in a finding of a run without a clock the <see
/// cref="SustainedRate"/>.</param>
/// <param name="Slip">Keep frames: how much longer the passage took than its length. Keep time: zero.</param>
/// <param name="LongestFreeze">The longest time that one picture stayed on screen, start-up left out.</param>
/// <param name="GapDeviation">Standard deviation of the gaps between shown frames: a full counter with uneven gaps is
/// still a stutter. Zero with fewer than two gaps.</param>
/// <param name="Lateness">Of the late frames, how long after the slot began they were shown: median; zero without any.</param>
/// <param name="ToolLateness">Of the on-time frames, the same, 99th percentile: what the presenter itself cost.</param>
/// <param name="OverdueBy">Of the overdue frames, how long after their slot began they were shown: median and longest; zero without
/// any. By so much the picture is behind the sound.</param>
/// <param name="SteadyMisses">Steady drops, and overdue frames whose slots begin after start-up.</param>
/// <param name="Recovery">From the cut, the beginning of the first slot, to the slot from which half a second passes without a
/// miss; zero when nothing was missed there; null when it never comes to that.</param>
public sealed record PassageCounts(
    int Slots,
    int OnTime,
    int Late,
    int Overdue,
    int StartUpDrops,
    int SteadyDrops,
    TimeSpan Length,
    double ShownRate,
    TimeSpan Slip,
    TimeSpan LongestFreeze,
    TimeSpan GapDeviation,
    TimeSpan Lateness,
    TimeSpan ToolLateness,
    (TimeSpan Median, TimeSpan Longest) OverdueBy,
    int SteadyMisses,
    IReadOnlyDictionary<DropReason, int> DropsByReason,
    TimeSpan? Recovery)
{
    public int Shown => OnTime + Late + Overdue;

    /// <summary>Share of what should have been seen in its slot that was not, after start-up, 0 to 1: steady misses ÷ slots, or
    /// under keep frames slip ÷ (length + slip), which is the share a player that keeps time would have dropped.</summary>
    public double SteadyLoss =>
        Slip > TimeSpan.Zero ? Slip / (Length + Slip)
        : Slots > 0 ? (double)SteadyMisses / Slots
        : 0;
}
