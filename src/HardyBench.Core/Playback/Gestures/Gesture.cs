namespace HardyBench.Core.Playback.Gestures;

/// <summary>How a timeline is scrubbed or started.</summary>
public enum GestureKind
{
    /// <summary>Playing is started at a place, and stopped once the picture moves.</summary>
    Start,

    /// <summary>Dragging: requests come at their own pace, whether the picture keeps up or not.</summary>
    Sweep,

    /// <summary>A jump to a place, then a wait for the picture.</summary>
    Jump,
}

/// <summary>One gesture: places asked for one after another.</summary>
/// <param name="Name">What sort of gesture: "8 times as fast", "near".</param>
/// <param name="Frames">Timeline frames in the order asked.</param>
/// <param name="Every">Time from one asking to the next; zero for as soon as the one before is on screen.</param>
public sealed record Gesture(GestureKind Kind, string Name, IReadOnlyList<long> Frames, TimeSpan Every);

/// <summary>How long one asking took.</summary>
/// <param name="Name">The gesture's.</param>
/// <param name="AskedAt">From the key that started the run.</param>
/// <param name="Lag">From asking to the picture on screen; null when a later request replaced it, or it failed.</param>
public readonly record struct LagReading(GestureKind Kind, string Name, int Frame, TimeSpan AskedAt, TimeSpan? Lag);
