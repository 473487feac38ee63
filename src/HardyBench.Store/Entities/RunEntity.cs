using HardyBench.Core.Findings;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Trials;

namespace HardyBench.Store.Entities;

/// <summary>A run. What queries need has its own columns; the rest is JSON and one Parquet blob.</summary>
public sealed class RunEntity
{
    public long Id { get; set; }

    public required string TimelineId { get; set; }

    /// <summary>Digest of the timeline as it was played, so that results of an edited one are not mixed up with it.</summary>
    public required string TimelineDigest { get; set; }

    public required string MachineId { get; set; }

    /// <summary>Digest of the machine as it was described, so that results of a changed one are not mixed up with it.</summary>
    public required string MachineDigest { get; set; }

    public PreviewScale Scale { get; set; }

    public PlayingPolicy Policy { get; set; }

    public bool Pictures { get; set; }

    public DateTime StartedAtUtc { get; set; }

    public RunEnding Ending { get; set; }

    /// <summary>The program that plays it, as <see cref="RunOwner"/> writes it.</summary>
    public required string Owner { get; set; }

    public long? StartLagTicks { get; set; }

    /// <summary>The trial it belongs to, or null.</summary>
    public long? TrialId { get; set; }

    /// <summary>What it stands for within the trial.</summary>
    public string? Label { get; set; }

    /// <summary>The one passage of the trial's timeline that it plays, from 0; null for all.</summary>
    public int? Passage { get; set; }

    /// <summary>Of a comparison.</summary>
    public Side? Side { get; set; }

    /// <summary>Whether it was scrubbed instead of played through.</summary>
    public bool ByHand { get; set; }

    /// <summary>Whether every aid was off and nothing else differed from the defaults.</summary>
    public bool Bare { get; set; }

    /// <summary>Digest of everything that has to be alike for two runs to be repeats of each other.</summary>
    public required string ConditionsDigest { get; set; }

    /// <summary>What differed from the defaults, in words.</summary>
    public required string Differences { get; set; }

    /// <summary>The version of the rules by which its passages were judged; 0 while they were not.</summary>
    public int Rules { get; set; }

    /// <summary>What to know before trusting it, a phrase each, by the same rules.</summary>
    public string NotesJson { get; set; } = "[]";

    /// <summary>Why it does not count for its machine, and what to do, in words, by the same rules; null where it counts.</summary>
    public string? NotCounting { get; set; }

    /// <summary>Whether its figures are wrong for that reason.</summary>
    public bool Disturbed { get; set; }

    /// <summary>When it was deleted; it can be restored until it is removed.</summary>
    public DateTime? DeletedAtUtc { get; set; }

    public required string HeaderJson { get; set; }

    public required string LagsJson { get; set; }

    public required string FailuresJson { get; set; }

    /// <summary>Frames and loads as Parquet; null while the run is still in pieces.</summary>
    public byte[]? Columns { get; set; }

    /// <summary>What it is found and put in order by in a list.</summary>
    public RunLineEntity? Line { get; set; }

    public List<PassageEntity> Passages { get; } = [];

    public List<MarkEntity> Marks { get; } = [];
}

/// <summary>A run's line of the list: short, in a table of its own, so that a list reads no results.</summary>
public sealed class RunLineEntity
{
    public long RunId { get; set; }

    /// <summary>Whether it was deleted.</summary>
    public bool Deleted { get; set; }

    /// <summary>The timeline's title as it was played.</summary>
    public required string Timeline { get; set; }

    /// <summary>The machine's name as it was played.</summary>
    public required string Machine { get; set; }

    /// <summary>All that is looked through for words, in lower case.</summary>
    public required string Words { get; set; }

    public PreviewScale Scale { get; set; }

    public RunEnding Ending { get; set; }

    public int Holds { get; set; }

    public int Wavers { get; set; }

    public int Breaks { get; set; }

    public int Slots { get; set; }

    public int Shown { get; set; }
}

/// <summary>An observation pinned to a moment of a run.</summary>
public sealed class MarkEntity
{
    public long Id { get; set; }

    public long RunId { get; set; }

    public long AtTicks { get; set; }

    public int? Frame { get; set; }

    public MarkKind Kind { get; set; }

    public required string Text { get; set; }
}

/// <summary>A trial: asked for, under way or ended.</summary>
public sealed class TrialEntity
{
    public long Id { get; set; }

    public TrialKind Kind { get; set; }

    public required string TimelineId { get; set; }

    public required string MachineId { get; set; }

    public TrialState State { get; set; }

    public DateTime AskedAtUtc { get; set; }

    /// <summary>The program that plays it, as <see cref="RunOwner"/> writes it; null while none does.</summary>
    public string? Owner { get; set; }

    /// <summary>As it was asked, with the whole timeline.</summary>
    public required string Json { get; set; }

    public string? Problem { get; set; }

    /// <summary>The answer in one sentence, as far as it is known.</summary>
    public string? Answer { get; set; }
}

/// <summary>A second of a run that is still playing.</summary>
public sealed class RunPieceEntity
{
    public long RunId { get; set; }

    public int Sequence { get; set; }

    public required byte[] Columns { get; set; }
}

/// <summary>The summary of one passage of an ended run.</summary>
public sealed class PassageEntity
{
    public long RunId { get; set; }

    public int Index { get; set; }

    public int Slots { get; set; }

    public int Shown { get; set; }

    public int StartUpDrops { get; set; }

    public int SteadyDrops { get; set; }

    public double ShownRate { get; set; }

    public long LongestFreezeTicks { get; set; }

    public double? Headroom { get; set; }

    /// <summary>Why it could not be played, or null.</summary>
    public string? Failure { get; set; }

    /// <summary>A letter a slot: o on time, l late, d dropped.</summary>
    public string Teeth { get; set; } = string.Empty;

    public Verdict? Verdict { get; set; }

    public Limiter? Limiter { get; set; }

    /// <summary>What would limit it next, or null.</summary>
    public Limiter? SecondLimiter { get; set; }

    /// <summary>Devices, one a line; empty where it is unknown.</summary>
    public string DecodedOn { get; set; } = string.Empty;
}

/// <summary>A timeline or a machine, as JSON under its id.</summary>
public sealed class DocumentEntity
{
    public required string Kind { get; set; }

    public required string Id { get; set; }

    public int Order { get; set; }

    /// <summary>Rises with every change, so that two who edit at once do not overwrite each other.</summary>
    public int Version { get; set; }

    public required string Json { get; set; }

    /// <summary>When it was deleted; one that ships is not set out again while it is.</summary>
    public DateTime? DeletedAtUtc { get; set; }
}
