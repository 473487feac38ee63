namespace HardyBench.Core.Trials;

/// <summary>Which side of a comparison a run is.</summary>
public enum Side
{
    /// <summary>As the trial was set.</summary>
    First,

    /// <summary>With the one change.</summary>
    Second,
}

/// <summary>What a run stands for in its trial.</summary>
/// <param name="Label">"half scale", "2 of 3", "passage 4".</param>
/// <param name="Passage">The one passage that it plays, from 0; null for all.</param>
/// <param name="Side">Of a comparison; null for other trials.</param>
public sealed record StepRole(string Label, int? Passage = null, Side? Side = null)
{
    /// <summary>The only run of a trial.</summary>
    public static StepRole Only { get; } = new("1 of 1");
}
