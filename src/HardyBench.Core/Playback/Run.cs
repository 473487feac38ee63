using System.Text.Json.Serialization;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Playback.Subjects;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Playback;

/// <summary>How a run came to its end.</summary>
public enum RunEnding
{
    /// <summary>It is still being played.</summary>
    Playing,

    /// <summary>Every passage was played or failed alone.</summary>
    Finished,

    /// <summary>Somebody stopped it; what was played until then counts.</summary>
    Stopped,

    /// <summary>The program ended under it; kept up to its last second.</summary>
    CutShort,

    /// <summary>What is stored of it is damaged; it was left as it is and counts nowhere.</summary>
    Unreadable,
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
    DateTimeOffset StartedAt)
{
    /// <summary>What was measured.</summary>
    public Subject Subject { get; init; } = Subject.Play;

    /// <summary>Whether it was scrubbed instead of played through; the run then has lags and no slots.</summary>
    [JsonIgnore]
    public bool IsByHand => Subject is ByHand;
}

/// <summary>Captured when the run starts; null where it could not be read.</summary>
/// <param name="Player">What played: the product's version and its decoding libraries, or the stand-in model.</param>
/// <param name="UsableCores">Numbers of the cores the player may run on, which can be fewer than the machine has.</param>
/// <param name="OtherLoad">Cores busy with other programs just before the start.</param>
/// <param name="PresenterPriority">Whether the presenter was allowed to run before other threads.</param>
/// <param name="Machine">How the machine stood; null for a stand-in.</param>
/// <param name="Footage">Where each clip's file lay and how it was decoded in fact, by clip id; empty for a stand-in.</param>
/// <param name="PreRendered">Passages, from 0, that were played from their renders.</param>
/// <param name="Effects">Where each effect ran in fact, by effect id.</param>
/// <param name="Sources">Which device each load reading is of; null where there was nothing to tell apart.</param>
public sealed record Conditions(
    string Player,
    string? Kernel,
    IReadOnlyList<int> UsableCores,
    double? OtherLoad,
    bool? PresenterPriority,
    int? Seed,
    MachineState? Machine = null,
    IReadOnlyDictionary<string, FootageState>? Footage = null,
    IReadOnlyList<int>? PreRendered = null,
    IReadOnlyDictionary<string, EffectState>? Effects = null,
    IReadOnlyList<LoadSource>? Sources = null)
{
    /// <summary>Pages of the product that were open on the machine itself; null where that was not known.</summary>
    public int? PagesHere { get; init; }

    /// <summary>Whether a drive reading is of a drive that the footage lay on. Where that is unknown, every drive may be.</summary>
    public bool IsMediaDrive(int index)
    {
        var drives = Footage?.Values.Select(state => state.Drive).OfType<string>().ToHashSet() ?? [];
        return drives.Count == 0 || Name(LoadKind.DriveBusy, index) is not { } name || drives.Contains(name);
    }

    /// <summary>What a reading is of, by the kernel's or the driver's name; its number where none was kept.</summary>
    public string NameOf(LoadKind kind, int index) =>
        Name(kind, index) ?? index.ToString(System.Globalization.CultureInfo.InvariantCulture);

    private string? Name(LoadKind kind, int index) => Sources?.FirstOrDefault(source => source.Kind == kind && source.Index == index)?.Name;
}

/// <summary>What the readings of one kind and index are of.</summary>
/// <param name="Name">The device's name, as the kernel or its driver gives it.</param>
public sealed record LoadSource(LoadKind Kind, int Index, string Name);

/// <summary>How a machine stood before a run; null where it could not be read.</summary>
/// <param name="Governor">The kernel's clock governor.</param>
/// <param name="OnMains">Whether it ran from the mains; null also where there is no battery to run from.</param>
/// <param name="BatteryShare">Charge of the battery, 0 to 1.</param>
/// <param name="ClockShare">Clock beside the rated one, before anything was played. An idle processor lowers its clock, so a low
/// one says nothing here.</param>
/// <param name="Celsius">Temperature of the processor.</param>
/// <param name="FreeMemoryBytes">Main memory that could be had.</param>
/// <param name="FreeDataBytes">Room on the drive that keeps the run.</param>
/// <param name="Threads">Threads for each decoder and for effects.</param>
/// <param name="ClockDriver">The kernel's driver for the clock, whose governors it takes to read <paramref name="Governor"/>.</param>
public sealed record MachineState(
    string? Governor, bool? OnMains, double? BatteryShare, double? ClockShare, double? Celsius,
    double? FreeMemoryBytes, double? FreeDataBytes, int Threads, string? ClockDriver = null);

/// <summary>Where a clip's file lay and how it was decoded.</summary>
/// <param name="Drive">The kernel's name of the drive; null where it is unknown.</param>
/// <param name="Kind">"solid state", "rotating", "memory" or "network"; null where it is unknown.</param>
/// <param name="CachedShare">Share of the file that lay in the system's file cache before the first frame, 0 to 1.</param>
/// <param name="DecodedOn">Where it was decoded in fact.</param>
/// <param name="Refusal">Why the device asked for did not decode it, or null.</param>
/// <param name="Bytes">Size of the file; null where it was not kept.</param>
/// <param name="KeySeconds">Time of the footage from one frame that stands alone to the next; null where every frame does, and where it was
/// not kept.</param>
/// <param name="Lacks">What the media engines lack for it; null where one took it, or there are none.</param>
public sealed record FootageState(
    string? Drive,
    string? Kind,
    double? CachedShare,
    string DecodedOn,
    string? Refusal,
    long? Bytes = null,
    EngineRefusal? Lacks = null,
    double? KeySeconds = null
);

/// <summary>Where an effect ran.</summary>
/// <param name="RanOn">The device, by FFmpeg's name of it, or a <see cref="WorkPlace"/>.</param>
/// <param name="Refusal">Why the device asked for did not do it, or null.</param>
public sealed record EffectState(string RanOn, string? Refusal);

/// <summary>Something that went wrong in a passage.</summary>
/// <param name="Overcome">Whether it was played to its end anyway.</param>
public sealed record PassageFailure(int PassageIndex, string Message, bool Overcome = false);

/// <summary>What playing a plan left: its conditions, every slot in order, every load, and what failed.</summary>
/// <param name="StartLag">From the key to the first frame shown; null when none was.</param>
public sealed record Run(
    RunHeader Header,
    RunEnding Ending,
    TimeSpan? StartLag,
    IReadOnlyList<FrameRecord> Frames,
    IReadOnlyList<LoadReading> Loads,
    IReadOnlyList<PassageFailure> Failures)
{
    /// <summary>An array, so that a passage is a part of it and not a copy.</summary>
    public IReadOnlyList<FrameRecord> Frames { get; init => field = AsArray(value); } = AsArray(Frames);

    /// <inheritdoc cref="Frames"/>
    public IReadOnlyList<LoadReading> Loads { get; init => field = AsArray(value); } = AsArray(Loads);

    /// <summary>What was requested, in order; empty for a run that played through.</summary>
    public IReadOnlyList<LagReading> Lags { get; init; } = [];

    private static T[] AsArray<T>(IReadOnlyList<T> rows) => rows as T[] ?? rows.ToArray();
}
