namespace HardyBench.Core.Pacing;

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
