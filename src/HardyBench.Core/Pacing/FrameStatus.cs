namespace HardyBench.Core.Pacing;

/// <summary>What became of a slot.</summary>
public enum FrameStatus : byte
{
    /// <summary>Ready before the slot began.</summary>
    OnTime,

    /// <summary>Ready within the slot and shown for the rest of it.</summary>
    Late,

    /// <summary>Never shown.</summary>
    Dropped,

    /// <summary>Finished after its slot and shown in a later one that had no picture of its own yet. Its slot counts as missed.</summary>
    Overdue,
}

public static class FrameStatuses
{
    /// <summary>Whether the frame's slot went by without it.</summary>
    public static bool IsMissed(this FrameStatus status) => status is FrameStatus.Dropped or FrameStatus.Overdue;
}
