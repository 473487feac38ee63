using HardyBench.Core.Machines;

namespace HardyBench.Core.Findings.Comparing;

/// <summary>What two runs can differ in.</summary>
public enum Condition
{
    Timeline,
    TimelineRaster,
    TimelineRate,
    Footage,
    PreviewScale,
    AutomaticScale,
    Policy,
    WrittenAs,
    LookAhead,
    PreviewPictures,
    Proxies,
    PreRenders,
    FileCache,
    DecodeAskedOn,
    EffectsAskedOn,
    Threads,
    Player,
    Program,
    ProgramSetting,
    Kernel,
    UsableCores,
    OtherLoad,
    Power,
    Governor,
    DecodedOn,
    Cached,
    EffectRanOn,
    PresenterPriority,
    PagesOpen,

    Processor,
    Cores,

    /// <summary>A number of the machine; <see cref="ConditionDifference.Of"/> is the path of its <see cref="MachineFigure"/>.</summary>
    Figure,
    MemoryInUse,
    Graphics,
    MediaEngine,
    MediaDrive,
    OtherDrives,
    Cooling,
    PowerLimit,
    MeasuredCosts,
    OperatingSystem,
    DriverDate,
}

/// <summary>What decides a condition.</summary>
public static class ConditionCauses
{
    /// <summary>Playing without a clock, which no editing program decides.</summary>
    public const string NoClock = "no clock";

    /// <summary>Whether an editing program decides it.</summary>
    /// <param name="value">As it was.</param>
    public static bool IsOfProgram(this Condition what, string? value) =>
        what is Condition.LookAhead or Condition.DecodedOn or Condition.EffectRanOn or Condition.ProgramSetting
            || (what == Condition.Policy && value != NoClock);

    /// <summary>Conditions of which each decides this one, so that where one of them differs this says nothing more.</summary>
    public static IReadOnlyList<Condition> Causes(this ConditionDifference difference) =>
    [
        .. difference.What switch
        {
            Condition.DecodedOn => [Condition.DecodeAskedOn, Condition.MediaEngine],
            Condition.EffectRanOn => [Condition.EffectsAskedOn, Condition.Graphics],
            // Where only one of them has slow cores at all.
            Condition.Figure when difference.Of == MachineFigures.SlowSpeed && (difference.Base is null || difference.Other is null) =>
                [Condition.Cores],
            _ => Array.Empty<Condition>(),
        },
        .. difference.What.IsOfProgram(difference.Base) && difference.What.IsOfProgram(difference.Other)
            ? [Condition.Program]
            : Array.Empty<Condition>(),
    ];
}

/// <summary>One thing in which two runs differ.</summary>
/// <param name="Of">Which clip, effect, setting or number it is about; null for the run as a whole.</param>
/// <param name="Base">As the base had it, in figures; null where it was not stated.</param>
/// <param name="Other">As the other had it.</param>
public sealed record ConditionDifference(Condition What, string? Of, string? Base, string? Other)
{
    /// <summary>Whether it is a part of the machine: another machine differs in many of them.</summary>
    public bool IsOfMachine => What >= Condition.Processor;
}
