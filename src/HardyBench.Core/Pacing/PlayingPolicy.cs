namespace HardyBench.Core.Pacing;

/// <summary>What a player does when it cannot keep up.</summary>
public enum PlayingPolicy
{
    /// <summary>Drop frames to stay with the clock.</summary>
    KeepTime,

    /// <summary>Show every frame and let the clock slip.</summary>
    KeepFrames,

    /// <summary>No clock: show every frame as soon as it is ready, to see what the machine gets through.</summary>
    Unpaced,
}
