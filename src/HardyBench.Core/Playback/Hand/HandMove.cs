namespace HardyBench.Core.Playback.Hand;

/// <summary>What a hand does to a timeline other than letting it play.</summary>
public enum MoveKind
{
    /// <summary>Playing is started at a place, and stopped once the picture moves.</summary>
    Start,

    /// <summary>The hand drags along; places come at the hand's pace, whether the picture keeps up or not.</summary>
    Sweep,

    /// <summary>The hand goes to a place and waits for the picture.</summary>
    Jump,
}

/// <summary>One gesture: places asked for one after another.</summary>
/// <param name="Name">What sort of gesture: "8 times as fast", "near".</param>
/// <param name="Frames">Timeline frames in the order asked.</param>
/// <param name="Every">Time from one asking to the next; zero for as soon as the one before is on screen.</param>
public sealed record HandMove(MoveKind Kind, string Name, IReadOnlyList<long> Frames, TimeSpan Every);

/// <summary>How long one asking took.</summary>
/// <param name="Name">The gesture's.</param>
/// <param name="AskedAt">From the key that started the run.</param>
/// <param name="Lag">From asking to the picture on screen; null when the hand had moved on before it came, or it failed.</param>
public readonly record struct LagReading(MoveKind Kind, string Name, int Frame, TimeSpan AskedAt, TimeSpan? Lag);
