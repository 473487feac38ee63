namespace HardyBench.Core.Playback;

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

/// <summary>Why a frame was dropped.</summary>
public enum DropReason : byte
{
    /// <summary>It was shown.</summary>
    None,

    /// <summary>Given up with all up to the next frame that stands alone, where decoding started afresh.</summary>
    DecodeSkipped,

    /// <summary>Decoded, but too late to be worth any effects.</summary>
    EffectsSkipped,

    /// <summary>Not ready in its slot, nor later before a newer frame was shown, the passage ended or a second had passed.</summary>
    NotReady,

    /// <summary>Ready in its slot, but the presenter itself woke after it: the tool's fault, counted anyway. An overdue frame has
    /// this reason too.</summary>
    PresenterLate,

    /// <summary>The passage could not be played.</summary>
    PassageFailed,

    /// <summary>Passed over before any work: it was not expected to be ready in its slot.</summary>
    PassedOver,
}

/// <summary>One slot of a run. Times count from the key that started it.</summary>
/// <param name="Frame">Timeline frame, from 0.</param>
/// <param name="SlotStart">When the slot begins; under keep frames, on the slipped clock.</param>
/// <param name="Ready">When the treated frame was ready; null when it was not ready before it was settled.</param>
/// <param name="Shown">When it was shown; null when dropped.</param>
/// <param name="Read">Time spent reading its data, summed over layers.</param>
/// <param name="Decode">Time its decoders took, summed over layers; with frame threads this is time between outputs.</param>
/// <param name="Effects">Time its effects took.</param>
/// <param name="Wait">Time it waited, treated, for its slot.</param>
/// <param name="QueueDepth">Treated frames waiting when its slot came.</param>
/// <param name="Scale">The preview scale that it was, or would have been, treated at.</param>
public readonly record struct FrameRecord(
    int Frame,
    TimeSpan SlotStart,
    TimeSpan? Ready,
    TimeSpan? Shown,
    FrameStatus Status,
    DropReason Reason,
    TimeSpan Read,
    TimeSpan Decode,
    TimeSpan Effects,
    TimeSpan Wait,
    int QueueDepth,
    PreviewScale Scale = PreviewScale.Full);
