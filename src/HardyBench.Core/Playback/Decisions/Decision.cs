using HardyBench.Core.Pacing;

namespace HardyBench.Core.Playback.Decisions;

/// <summary>What was decided of a frame, or happened to it.</summary>
public enum DecisionAct : byte
{
    /// <summary>Chosen to be begun next. The frame after the last one of a passage: nothing more of it is begun.</summary>
    Chosen,

    /// <summary>Its decoding began.</summary>
    Begun,

    /// <summary>All its layers were decoded.</summary>
    Decoded,

    /// <summary>Its effects were done: it can be shown.</summary>
    Finished,

    /// <summary>Work on it was ended, or its result was not needed any more.</summary>
    GivenUp,

    /// <summary>Shown.</summary>
    Shown,

    /// <summary>Settled without being shown.</summary>
    Dropped,
}

/// <summary>One entry of the decision log.</summary>
/// <param name="At">Since the key that started the run.</param>
/// <param name="Frame">Timeline frame, from 0.</param>
public sealed record Decision(TimeSpan At, DecisionAct Act, long Frame)
{
    /// <summary>Chosen: why the frames before it are left out, if there are any. Given up and dropped: why.</summary>
    public DropReason? Reason { get; init; }

    /// <summary>Shown and dropped.</summary>
    public FrameStatus? Status { get; init; }

    /// <summary>Chosen: the figures that it was based on.</summary>
    public ChoiceBasis? Basis { get; init; }
}

/// <summary>The figures that a choice was based on.</summary>
/// <param name="SlotStart">When the slot of the chosen frame begins; null before the first frame is shown, and without a clock.</param>
/// <param name="Expected">How long the next frame in order was expected to take from its beginning to its end.</param>
/// <param name="Decoding">Mean of recent decoding.</param>
/// <param name="Effects">Mean of recent effects.</param>
/// <param name="Undecoded">Frames that were being decoded or read.</param>
/// <param name="BeforeEffects">Frames that were begun and whose effects were not.</param>
public sealed record ChoiceBasis(
    TimeSpan? SlotStart,
    TimeSpan Expected,
    TimeSpan Decoding,
    TimeSpan Effects,
    int Undecoded,
    int BeforeEffects
);
