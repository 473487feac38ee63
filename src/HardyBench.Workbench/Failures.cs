using HardyBench.Core;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Calibration;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Programs;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Building;
using HardyBench.Formats.Interchange;
using HardyBench.Formats.Machines;
using HardyBench.Media.Clips;
using HardyBench.Store;
using HardyBench.Workbench.Comparing;
using HardyBench.Workbench.Data;
using HardyBench.Workbench.Packs;
using HardyBench.Workbench.Playing;
using HardyBench.Workbench.Plays;

namespace HardyBench.Workbench;

/// <summary>What a foreseen failure is about. The server answers each with one HTTP status, the command line with one exit code.</summary>
public enum FailureKind
{
    /// <summary>There is no such timeline, machine or run.</summary>
    UnknownThing,

    /// <summary>Somebody else changed it meanwhile.</summary>
    Conflict,

    /// <summary>What was given cannot be worked with; nothing was changed.</summary>
    Input,

    /// <summary>A clip is missing or damaged, or the plan cannot be played; the rest was kept.</summary>
    NotPlayable,

    /// <summary>Clips or copies of them could not be created.</summary>
    NotCreated,

    /// <summary>The data folder cannot be used or is full.</summary>
    Storage,

    /// <summary>Something stored is damaged; it was not changed.</summary>
    Damaged,

    /// <summary>Nothing can be played on this machine.</summary>
    NoPlayer,
}

/// <summary>The one table of foreseen failures. Each one's message says what was kept and what to do.</summary>
public static class Failures
{
    /// <returns>Null for a failure that nobody foresaw.</returns>
    public static FailureKind? KindOf(Exception failure) => failure switch
    {
        UnknownThingException => FailureKind.UnknownThing,
        VersionConflictException => FailureKind.Conflict,
        MachineRefusedException or ProgramRefusedException or BriefRefusedException or PartRefusedException or ShelfException
            or ComparisonRefusedException or InterchangeException or PackException or SeriesException or FormatException =>
            FailureKind.Input,
        PlanRefusedException or TimelineRefusedException or MediaException or CalibrationException or PlayerEndedException =>
            FailureKind.NotPlayable,
        CreationException => FailureKind.NotCreated,
        DataFolderException or RunNotSavedException or NewerDataException => FailureKind.Storage,
        InvalidDataException => FailureKind.Damaged,
        PlayerUnavailableException => FailureKind.NoPlayer,
        _ => BenchDatabaseFactory.IsDriveFailure(failure) ? FailureKind.Storage : null,
    };

    /// <summary>What happened, what was kept and what to do. The message of a drive's failure says only the first.</summary>
    public static string WordsOf(Exception failure) => BenchDatabaseFactory.IsDriveFailure(failure)
        ? $"The drive with the data cannot be written: {failure.GetBaseException().Message} What was saved before is kept. Free some space, then "
            + "try again."
        : failure.Message;
}
