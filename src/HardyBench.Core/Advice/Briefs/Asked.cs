using HardyBench.Core.Playback.Gestures;

namespace HardyBench.Core.Advice.Briefs;

/// <summary>What a brief asks of every passage besides that it holds.</summary>
/// <param name="Headroom">Times what it needs; 1 for no more than that.</param>
/// <param name="MostStartSeconds">From the key to the first picture, wherever playing begins; null for any.</param>
/// <param name="MostScrubSeconds">From asking for a frame to its picture, wherever one scrubs to; null for any.</param>
public sealed record Asked(double Headroom = 1, double? MostStartSeconds = null, double? MostScrubSeconds = null)
{
    /// <summary>How long and on what power it has to hold.</summary>
    public WorkingDay Day { get; init; } = WorkingDay.Usual;

    /// <summary>Nothing besides.</summary>
    public static Asked Nothing { get; } = new();

    /// <summary>What comes later than is asked; null where nothing does, or where it is not known.</summary>
    /// <param name="longest">The longest wait for a picture, calculated only where it is limited; null where that is not
    /// known.</param>
    public ExceededLimit? Late(Func<GestureWait?> longest)
    {
        if ((MostStartSeconds ?? MostScrubSeconds) is null)
        {
            return null;
        }

        return longest() is not { } wait ? ExceededLimit.WaitUnknown
            : wait.Start.TotalSeconds > MostStartSeconds ? ExceededLimit.Start
            : wait.Scrub.TotalSeconds > MostScrubSeconds ? ExceededLimit.Scrub
            : null;
    }
}
