namespace HardyBench.Core.Pacing;

/// <summary>Before the first frame is shown, a few treated frames are let gather, so that the first slots do not all
/// depend on the slowest part of the start. What it takes is part of the start lag.</summary>
public static class PreRoll
{
    /// <summary>The longest that a ready first frame is held back.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromMilliseconds(250);

    /// <param name="waiting">Treated frames that wait.</param>
    /// <param name="lookAhead">Treated frames that may wait.</param>
    /// <param name="left">Frames of the whole timeline.</param>
    /// <param name="heldBack">How long the first frame has been ready.</param>
    public static bool IsDone(int waiting, int lookAhead, long left, TimeSpan heldBack) =>
        waiting >= Math.Min(Math.Max(1, lookAhead / 2), left) || heldBack >= Longest;
}
