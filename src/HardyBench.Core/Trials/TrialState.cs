namespace HardyBench.Core.Trials;

/// <summary>Where a trial stands.</summary>
public enum TrialState
{
    /// <summary>It waits for its turn.</summary>
    Waiting,

    Playing,

    /// <summary>Its question is answered.</summary>
    Finished,

    /// <summary>Somebody stopped it; its runs are kept.</summary>
    Stopped,

    /// <summary>It could not go on; its runs are kept.</summary>
    Failed,
}
