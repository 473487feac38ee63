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
}

/// <summary>What limits a passage and how that is known.</summary>
/// <param name="Evidence">Figures and seconds, one sentence.</param>
/// <param name="Helps">What would change the result.</param>
/// <param name="HelpsNot">What would not; null where nothing common comes to mind.</param>
public sealed record LimiterFinding(Limiter Limiter, string Evidence, string Helps, string? HelpsNot);
