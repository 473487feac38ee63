using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>How many frames a second a machine gets through when no clock holds it back.</summary>
public static class SustainedRate
{
    private const int MinGaps = 4;

    /// <summary>Frames a second between the first and the last frame that had the machine to themselves; over GOPs that are not whole it is
    /// a little off. 0 where there are too few to tell.</summary>
    /// <param name="shown">When the frames of one passage were shown, in order; without a clock that is when they were done.</param>
    /// <param name="settings">How many may be under way at once at a cut: those of a passage's beginning may have been done while the one
    /// before it still played, and at its end work goes to the next one already.</param>
    public static double Of(IReadOnlyList<TimeSpan> shown, PlaybackSettings settings)
    {
        var (first, last) = Between(shown, settings);
        return last - first >= MinGaps && shown[last] > shown[first] ? (last - first) / (shown[last] - shown[first]).TotalSeconds : 0;
    }

    /// <summary>The frames that <see cref="Of"/> counts.</summary>
    public static IReadOnlyList<FrameRecord> Counted(IReadOnlyList<FrameRecord> done, PlaybackSettings settings)
    {
        var (first, last) = Between([.. done.Select(frame => frame.Shown!.Value)], settings);
        return [.. done.Skip(first + 1).Take(last - first)];
    }

    /// <summary>The places of the first and the last frame that had the machine to themselves.</summary>
    /// <inheritdoc cref="Of"/>
    public static (int First, int Last) Between(IReadOnlyList<TimeSpan> shown, PlaybackSettings settings)
    {
        var aside = Math.Min(settings.LookAhead + PlaybackSettings.DecodeAhead, shown.Count / 4);
        return (aside, shown.Count - 1 - aside);
    }
}
