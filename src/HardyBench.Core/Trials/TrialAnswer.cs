using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Lags;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Trials;

/// <summary>What a trial has found so far.</summary>
/// <param name="Words">The answer in a sentence or two.</param>
/// <param name="Rows">One a passage of the timeline, in order.</param>
/// <param name="Lags">For scrub and start lag: each sort of gesture in each passage; else empty.</param>
public sealed record TrialAnswer(string Words, IReadOnlyList<PassageAnswer> Rows, IReadOnlyList<LagFinding> Lags)
{
    /// <summary>What the second side of a comparison changed; null for other trials, and before both sides were played.</summary>
    public ChangedSide? Changed { get; init; }

    /// <summary>What to do with the answer, a sentence; null where nothing counts yet.</summary>
    public string? NextStep { get; init; }

    /// <summary>Mean temperature at the end of each run, degrees Celsius, in the order played; empty where heat is not the
    /// question.</summary>
    public IReadOnlyList<double?> EndCelsius { get; init; } = [];

    /// <summary>Runs that do not count, and so are no part of it; null where all do.</summary>
    public ExcludedRuns? LeftOut { get; init; }
}

/// <summary>The two sides of a comparison.</summary>
/// <param name="WithoutEffect">The id of an effect that the second side leaves out; null for none.</param>
public sealed record ChangedSide(PlaybackSettings First, PlaybackSettings Second, string? WithoutEffect);

/// <summary>Runs that an answer leaves out.</summary>
/// <param name="First">Why the first of them does not count.</param>
/// <param name="All">Runs there are.</param>
public sealed record ExcludedRuns(Disturbance First, int Count, int All);

/// <summary>What a trial has found about one passage.</summary>
/// <param name="Words">Short; empty while nothing can be said.</param>
/// <param name="Cells">One a run, in the order played; null where the run did not play this passage.</param>
public sealed record PassageAnswer(int Index, string Question, string Words, IReadOnlyList<PassageFinding?> Cells);
