using HardyBench.Core.Footage;

namespace HardyBench.Core.Playback;

/// <summary>What a player does when it cannot keep up.</summary>
public enum PlayingPolicy
{
    /// <summary>Drop frames to stay with the clock.</summary>
    KeepTime,

    /// <summary>Show every frame and let the clock slip.</summary>
    KeepFrames,
}

/// <summary>Share of the timeline raster that is processed, on each axis. The value is the divisor.</summary>
public enum PreviewScale
{
    Full = 1,
    Half = 2,
    Quarter = 4,
    Eighth = 8,
}

/// <summary>How a timeline is to be played. The defaults are a bare run: every aid off.</summary>
/// <param name="LookAhead">Treated frames that may wait for their slots.</param>
/// <param name="Pictures">Whether small pictures go to the page while it plays, which costs some of what is measured.</param>
public sealed record PlaybackSettings(
    PreviewScale Scale = PreviewScale.Full,
    PlayingPolicy Policy = PlayingPolicy.KeepTime,
    int LookAhead = 6,
    bool Pictures = false)
{
    /// <summary>Decoded frames of each layer that may wait for their treatment.</summary>
    public const int DecodeAhead = 4;

    /// <summary>The raster that effects work on.</summary>
    public Raster ProcessedRaster(Raster timeline) => timeline.DividedBy((int)Scale);
}
