using HardyBench.Core.Pacing;

namespace HardyBench.Core.Playback;

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
