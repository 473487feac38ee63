using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials;

namespace HardyBench.Store;

/// <summary>A run, its number and what people noted.</summary>
public sealed record StoredRun(long Id, Run Run)
{
    public IReadOnlyList<RunMark> Marks { get; init; } = [];

    /// <summary>The trial it belongs to and what it stands for in it, or null.</summary>
    public RunPlace? Place { get; init; }

    /// <summary>Why it does not count for its machine, and what to do, in words; null where it counts, and until it has ended.</summary>
    public string? NotCounting { get; init; }

    /// <summary>What to know before trusting it, a phrase each; empty until it has ended.</summary>
    public IReadOnlyList<string> Notes { get; init; } = [];
}

/// <summary>A run and what was found of it.</summary>
/// <param name="Notes">What to know before trusting it, a phrase each.</param>
/// <param name="Passages">One a passage, in order.</param>
public sealed record JudgedRun(
    long Id, RunEnding Ending, DateTimeOffset StartedAt, TimeSpan? StartLag, PreviewScale Scale, IReadOnlyList<string> Notes,
    IReadOnlyList<PassageSummary> Passages)
{
    /// <summary>Why it does not count for its machine, and what to do, in words; null where it counts.</summary>
    public string? NotCounting { get; init; }

    /// <summary>Whether its figures are wrong for that reason.</summary>
    public bool Disturbed { get; init; }
}

/// <summary>What a run was played under.</summary>
/// <param name="TimelineDigest">Of the timeline as it was played.</param>
/// <param name="ConditionsDigest">Alike for runs that are repeats of each other.</param>
public sealed record RunConditions(long Id, RunHeader Header, RunEnding Ending, string TimelineDigest, string ConditionsDigest);

/// <summary>Runs of a machine as it was once.</summary>
/// <param name="Machine">As it was described then.</param>
/// <param name="Runs">How many there are.</param>
/// <param name="Last">When the last of them started.</param>
public sealed record EarlierRuns(Machine Machine, int Runs, DateTimeOffset Last);

/// <summary>A run that is stored and damaged.</summary>
/// <param name="Why">A sentence for the person.</param>
public sealed record UnreadableRun(long Id, string Why);

/// <summary>A run's place in a trial.</summary>
public sealed record RunPlace(long TrialId, StepRole Role);

/// <summary>A run as a line of a list.</summary>
/// <param name="ConditionsDigest">Alike for runs that are repeats of each other.</param>
/// <param name="Differences">What differed from a bare run, a phrase each.</param>
/// <param name="NotCounting">Why it does not count for its machine, and what to do, in words; null where it counts.</param>
public sealed record RunLine(
    long Id, string TimelineId, string TimelineDigest, string MachineId, PreviewScale Scale, PlayingPolicy Policy, bool Pictures,
    DateTime StartedAtUtc, RunEnding Ending, bool ByHand, string ConditionsDigest, string Differences,
    long? TrialId, string? Label, int Marks, bool Deleted, string? NotCounting, IReadOnlyList<PassageLine> Passages)
{
    /// <summary>Between the phrases of <see cref="Differences"/>.</summary>
    public const string DifferenceMark = "; ";

    /// <summary>The timeline's title when it was played.</summary>
    public required string TimelineTitle { get; init; }

    /// <summary>The machine's name when it played.</summary>
    public required string MachineName { get; init; }
}

/// <summary>A passage of such a line.</summary>
public sealed record PassageLine(int Index, int Slots, int Shown, int SteadyDrops, Verdict? Verdict, Limiter? Limiter);
