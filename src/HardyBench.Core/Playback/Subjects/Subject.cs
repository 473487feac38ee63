using System.Text.Json.Serialization;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Playback.Gestures;

namespace HardyBench.Core.Playback.Subjects;

/// <summary>What a run measures. Each kind has the parameters and the limits that are its own; how frames are decoded and treated is set by
/// <see cref="PlaybackSettings"/> for all of them.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(PlayedThrough), "play")]
[JsonDerivedType(typeof(ByHand), "byHand")]
[JsonDerivedType(typeof(Export), "export")]
public abstract record Subject
{
    /// <summary>The timeline from its first frame to its last.</summary>
    public static readonly Subject Play = new PlayedThrough();

    /// <summary>What in the rest of the plan contradicts it: sentences.</summary>
    public virtual IEnumerable<string> Problems(PlaybackPlan plan) => [];
}

/// <summary>The timeline is played from its first frame to its last.</summary>
public sealed record PlayedThrough : Subject;

/// <summary>Places are requested instead, as by scrubbing. The run has lags and no slots.</summary>
/// <param name="Moves">In this order; none where they were not stored.</param>
public sealed record ByHand(IReadOnlyList<Gesture> Moves) : Subject;
