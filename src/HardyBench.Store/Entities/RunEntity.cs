using HardyBench.Core.Findings;
using HardyBench.Core.Playback;

namespace HardyBench.Store.Entities;

/// <summary>A run. What is asked for in queries stands in columns of its own; the rest is JSON and one Parquet blob.</summary>
public sealed class RunEntity
{
    public long Id { get; set; }

    public required string TimelineId { get; set; }

    /// <summary>Digest of the timeline as it was played, so that results of an edited one are not mixed up with it.</summary>
    public required string TimelineDigest { get; set; }

    public required string MachineId { get; set; }

    public PreviewScale Scale { get; set; }

    public PlayingPolicy Policy { get; set; }

    public bool Pictures { get; set; }

    public DateTime StartedAtUtc { get; set; }

    public RunEnding Ending { get; set; }

    /// <summary>The program that plays it, as <see cref="RunOwner"/> writes it.</summary>
    public required string Owner { get; set; }

    public long? StartLagTicks { get; set; }

    public required string HeaderJson { get; set; }

    public required string FailuresJson { get; set; }

    /// <summary>Frames and loads as Parquet; null while the run is still in pieces.</summary>
    public byte[]? Columns { get; set; }

    public List<PassageEntity> Passages { get; } = [];
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

    public int SteadyDrops { get; set; }

    public Verdict? Verdict { get; set; }

    public Limiter? Limiter { get; set; }
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
}
