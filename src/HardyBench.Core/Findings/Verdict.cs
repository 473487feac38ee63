using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using static HardyBench.Core.Pacing.TimeSpans;

namespace HardyBench.Core.Findings;

/// <summary>Whether a passage plays in real time.</summary>
public enum Verdict
{
    Holds,
    Wavers,
    Breaks,
}

/// <summary>The limits between the verdicts.</summary>
/// <param name="HoldsLoss">Steady loss up to which a passage holds, 0 to 1.</param>
/// <param name="HoldsFreeze">Freeze up to which it holds; at low rates one and a half slots, since a picture stands for its slot.</param>
/// <param name="BreaksLoss">Steady loss above which it breaks.</param>
/// <param name="BreaksFreeze">Freeze above which it breaks; at low rates two and a half slots.</param>
/// <param name="ShortestJudged">A passage with fewer slots than this time gets counts, but no verdict.</param>
public sealed record VerdictLimits(
    double HoldsLoss, TimeSpan HoldsFreeze, double BreaksLoss, TimeSpan BreaksFreeze, TimeSpan ShortestJudged)
{
    public static VerdictLimits Default { get; } = new(
        0.005, TimeSpan.FromMilliseconds(100), 0.25, TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(2));

    /// <summary>Whether a passage of so many frames gets a verdict.</summary>
    public bool Judges(int frames, FrameRate rate) => rate.StartOf(frames) >= ShortestJudged;

    /// <summary>The verdict, or null when the passage is too short for one.</summary>
    public Verdict? Of(PassageCounts counts)
    {
        if (counts.Length < ShortestJudged)
        {
            return null;
        }

        var slot = counts.Length / counts.Slots;
        return counts.SteadyLoss > BreaksLoss || counts.LongestFreeze > Longer(BreaksFreeze, 2.5 * slot) || counts.Shown == 0
                ? Verdict.Breaks
            : counts.SteadyLoss <= HoldsLoss && counts.LongestFreeze <= Longer(HoldsFreeze, 1.5 * slot) ? Verdict.Holds
            : Verdict.Wavers;
    }
}
