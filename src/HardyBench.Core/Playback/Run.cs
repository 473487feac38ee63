using HardyBench.Core.Machines;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Playback;

/// <summary>How a run came to its end.</summary>
public enum RunEnding
{
    /// <summary>It is still being played.</summary>
    Playing,

    /// <summary>Every passage was played or failed by itself.</summary>
    Finished,

    /// <summary>Somebody stopped it; what was played until then counts.</summary>
    Stopped,

    /// <summary>The program ended under it; kept up to its last second.</summary>
    CutShort,
}

/// <summary>What was played, on what, how, and under which conditions it arose.</summary>
/// <param name="ClipChecksums">SHA-256 of each clip's file by clip id. A stand-in reads no files but goes by what was measured
/// of them; a clip that was not made then is missing here, and its figures were those asked for.</param>
public sealed record RunHeader(
    Timeline Timeline,
    Machine Machine,
    PlaybackSettings Settings,
    Conditions Conditions,
    IReadOnlyDictionary<string, string> ClipChecksums,
    DateTimeOffset StartedAt);

/// <summary>Captured when the run starts; null where it could not be read.</summary>
/// <param name="Player">What played: the product's version and its decoding libraries, or the stand-in model.</param>
/// <param name="UsableCores">Numbers of the cores the player may run on, which can be fewer than the machine has.</param>
/// <param name="OtherLoad">Cores busy with other programs just before the start.</param>
/// <param name="PresenterPriority">Whether the presenter was allowed to run before other threads.</param>
public sealed record Conditions(
    string Player,
    string? Kernel,
    IReadOnlyList<int> UsableCores,
    double? OtherLoad,
    bool? PresenterPriority,
    int? Seed);

/// <summary>A passage that could not be played to its end.</summary>
public sealed record PassageFailure(int PassageIndex, string Message);

/// <summary>What playing a plan left: its conditions, every slot in order, every load, and what failed.</summary>
/// <param name="StartLag">From the key to the first frame shown; null when none was.</param>
public sealed record Run(
    RunHeader Header,
    RunEnding Ending,
    TimeSpan? StartLag,
    IReadOnlyList<FrameRecord> Frames,
    IReadOnlyList<LoadReading> Loads,
    IReadOnlyList<PassageFailure> Failures);
