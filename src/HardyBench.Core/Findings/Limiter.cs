namespace HardyBench.Core.Findings;

/// <summary>The one resource that holds a passage back.</summary>
public enum Limiter
{
    Memory,
    MediaEngine,
    GraphicsEffects,
    ProcessorDecode,
    ProcessorEffects,
    SingleThread,
    Drive,
    Heat,
    Bus,

    /// <summary>Something else takes the processor from the player.</summary>
    OtherPrograms,

    /// <summary>Nothing measured is at its ceiling: the software, or something that cannot be read here.</summary>
    Unknown,

    /// <summary>The passage could not be played at all.</summary>
    Clip,

    /// <summary>Writing the film takes the processor.</summary>
    ProcessorEncode,

    /// <summary>Writing the film takes all that a media engine encodes with.</summary>
    EncodingEngine,

    /// <summary>The machine may not draw the power that the work takes, so the clock is low; not for heat.</summary>
    Power,

    /// <summary>What does not fit into the graphics unit's memory goes over the bus again and again.</summary>
    GraphicsMemory,
}

/// <summary>What limits a passage and how that is known.</summary>
/// <param name="Before">Before how much of what was judged it is the limit; null where loads were not judged piece by piece.</param>
/// <param name="Second">What is at its ceiling besides, and would hold the passage back next; null where there is nothing.</param>
public sealed record LimiterFinding(Limiter Limiter, Evidence Evidence, ShareOfWindows? Before = null, LimiterFinding? Second = null);

/// <summary>Before how many of the moments that were judged a limiter was found.</summary>
/// <param name="Share">0 to 1.</param>
/// <param name="AreMisses">Whether the moments are missed slots; else the frames that were begun.</param>
public sealed record ShareOfWindows(double Share, bool AreMisses);
