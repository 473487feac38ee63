using HardyBench.Core.Playback.Decisions;
using HardyBench.Core.Playback.Gestures;

namespace HardyBench.Core.Playback;

/// <summary>Whatever plays a plan and leaves a run.</summary>
public interface IPlayback
{
    /// <summary>Plays the whole plan. Frames and loads reach <paramref name="observer"/> while it plays, in order,
    /// each once; the run that is returned holds the same.</summary>
    /// <param name="stop">Ends the run early; it is then <see cref="RunEnding.Stopped"/>, not an exception.</param>
    Task<Run> PlayAsync(PlaybackPlan plan, IRunObserver observer, CancellationToken stop);
}

/// <summary>Hears of a run while it plays. Calls come from one thread at a time.</summary>
public interface IRunObserver
{
    /// <summary>Before the first frame.</summary>
    void Started(RunHeader header)
    {
    }

    /// <summary>Several times a second: what has come since the last call.</summary>
    void Progressed(RunProgress progress)
    {
    }

    /// <summary>A small JPEG of the picture on screen; only when the settings ask for pictures.</summary>
    void Pictured(int frame, byte[] jpeg)
    {
    }
}

/// <summary>Where only the whole run is of interest.</summary>
public sealed class NoObserver : IRunObserver;

/// <summary>What a run has brought since it was last asked.</summary>
public sealed record RunProgress(
    IReadOnlyList<FrameRecord> Frames, IReadOnlyList<LoadReading> Loads, IReadOnlyList<PassageFailure> Failures)
{
    /// <summary>What was requested.</summary>
    public IReadOnlyList<LagReading> Lags { get; init; } = [];

    /// <summary>Decisions in the order in which they were reported; empty where none are logged. Nothing of it is stored.</summary>
    public IReadOnlyList<Decision> Decisions { get; init; } = [];

    /// <summary>What this and a later piece bring together.</summary>
    public RunProgress Then(RunProgress later) =>
        new([.. Frames, .. later.Frames], [.. Loads, .. later.Loads], [.. Failures, .. later.Failures])
        {
            Lags = [.. Lags, .. later.Lags],
            Decisions = [.. Decisions, .. later.Decisions],
        };
}
