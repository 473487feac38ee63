using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Programs;

namespace HardyBench.Core.Advice.Briefs;

/// <summary>What somebody needs a machine for, and what it may cost and be. All but the name and the work has a sensible default.</summary>
/// <param name="Timelines">Ids of the timelines that stand for the work: every passage of them has to hold.</param>
public sealed record Brief(string Id, string Name, IReadOnlyList<string> Timelines)
{
    /// <summary>Hours of such footage that come in a week, by timeline; null or lacking where nobody has said. It decides nothing, but
    /// tells what a way of working costs.</summary>
    public IReadOnlyDictionary<string, double>? HoursAWeek { get; init; }

    /// <summary>Hours of such footage that are stored at once; null where nobody has said. It decides nothing, but tells what disk
    /// space it takes.</summary>
    public double? StoredHours { get; init; }

    /// <summary>The id of the editing program that the work is done in; null for the product's own player.</summary>
    public string? Program { get; init; }

    /// <summary>The preview scale at which it is good enough.</summary>
    public PreviewScale Scale { get; init; } = PreviewScale.Full;

    /// <summary>How much the work may grow: every passage must have so much headroom. 1 for none.</summary>
    public double Growth { get; init; } = 1;

    /// <summary>The longest that playing may take to begin, in seconds; null for any time.</summary>
    public double? MostStartSeconds { get; init; }

    /// <summary>The longest that a frame may take to show while scrubbing, in seconds; null for any time.</summary>
    public double? MostScrubSeconds { get; init; }

    /// <summary>How long somebody works at a stretch, in minutes: every passage has to hold at its end too, when the machine is warm.
    /// </summary>
    public double SessionMinutes { get; init; } = WorkingDay.Usual.Session.TotalMinutes;

    /// <summary>Whether the work has to be done on battery.</summary>
    public bool OnBattery { get; init; }

    /// <summary>What stays open beside it; null for nothing.</summary>
    public OtherPrograms? Others { get; init; }

    /// <summary>Forms that will do; null or empty for any.</summary>
    public IReadOnlyList<MachineForm>? Forms { get; init; }

    /// <summary>The most noise at the operator's seat in dB(A); null for any. A machine whose noise is not known
    /// does not satisfy it.</summary>
    public double? MostDecibels { get; init; }

    /// <summary>The most it may cost, in <see cref="Machine.Currency"/>; null for any sum.</summary>
    public decimal? Budget { get; init; }

    /// <summary>The id of a machine that is there already; null for none.</summary>
    public string? Owned { get; init; }

    /// <summary>Whether machines put together from parts are offered too.</summary>
    public bool Builds { get; init; } = true;

    /// <summary>Ways of working that are acceptable instead of a new machine; null or empty for none.</summary>
    public IReadOnlyList<RemedyKind>? MayUse { get; init; }

    /// <summary>Why a machine is none for it, by what it is; null where it may be. What is not known of it satisfies no limit.</summary>
    public ExceededLimit? Outside(Traits traits) =>
        Forms is { Count: > 0 } forms && traits.Form is { } its && !forms.Contains(its) ? ExceededLimit.Form
        : traits.Decibels > MostDecibels ? ExceededLimit.Noise
        : OnBattery && !traits.HasBattery ? ExceededLimit.Battery
        : Unknown(traits) is [var first, ..] ? first
        : null;

    /// <summary>What has to be found out of a machine before it can satisfy the brief; empty where nothing has.</summary>
    public IReadOnlyList<ExceededLimit> Unknown(Traits traits) =>
    [
        .. Forms is { Count: > 0 } && traits.Form is null ? [ExceededLimit.FormUnknown] : Array.Empty<ExceededLimit>(),
        .. MostDecibels is not null && traits.Decibels is null ? [ExceededLimit.NoiseUnknown] : Array.Empty<ExceededLimit>(),
    ];

    /// <summary>How long and on what power somebody works.</summary>
    public WorkingDay Day() => new(TimeSpan.FromMinutes(SessionMinutes), OnBattery);

    /// <summary>What is required of every passage besides that it holds.</summary>
    public Asked Asked() => new(Growth, MostStartSeconds, MostScrubSeconds) { Day = Day() };

    /// <summary>How everything is played for it.</summary>
    /// <param name="program">The one that it names; null where it names none.</param>
    public PlaybackSettings SettingsIn(EditingProgram? program) => new(Scale) { Others = Others, Program = program };
}

/// <summary>What a brief asks of a machine besides that it plays the work; null where it is not known.</summary>
/// <param name="HasBattery">Whether it can work on a battery, and what it may draw then is known.</param>
public readonly record struct Traits(MachineForm? Form, double? Decibels, bool HasBattery)
{
    public static Traits Of(Machine machine) => new(machine.Form, machine.NoiseDecibels, machine.HasBattery);
}

public static class ExceededLimits
{
    /// <summary>Whether neither another way of working nor a part changes it.</summary>
    public static bool IsOfMachine(this ExceededLimit limit) =>
        limit is not (ExceededLimit.Room or ExceededLimit.Start or ExceededLimit.Scrub);
}

/// <summary>What keeps a machine from answering a brief though it plays the work.</summary>
public enum ExceededLimit
{
    Form,
    Noise,

    /// <summary>It has no battery, or what it may draw from it is not known.</summary>
    Battery,

    /// <summary>Its form is not known, and certain forms are wanted.</summary>
    FormUnknown,

    /// <summary>Its noise is not known, and there is a limit to it.</summary>
    NoiseUnknown,

    /// <summary>Headroom for the work to grow.</summary>
    Room,

    /// <summary>The wait for a picture is not known, and there is a limit to it.</summary>
    WaitUnknown,

    /// <summary>Playing begins too late.</summary>
    Start,

    /// <summary>A frame shows too late while scrubbing.</summary>
    Scrub,
}
