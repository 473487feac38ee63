using System.Text.Json.Serialization;
using HardyBench.Core.Footage;

namespace HardyBench.Core.Machines;

/// <summary>A workstation as its tester describes it. What is null or empty has not been stated.</summary>
/// <param name="Id">A short name.</param>
/// <param name="Graphics">Every graphics unit, the one that composes pictures first.</param>
/// <param name="MediaEngines">Every fixed-function decoder; alike ones are listed once each.</param>
/// <param name="Drives">Each with what lies on it.</param>
/// <param name="Price">Whole price in <see cref="Currency"/>, or null when nobody has stated it.</param>
public sealed record Machine(
    string Id,
    string Name,
    MachineKind Kind,
    string Summary,
    Processor Processor,
    IReadOnlyList<Graphics> Graphics,
    IReadOnlyList<MediaEngine> MediaEngines,
    Memory Memory,
    IReadOnlyList<Drive> Drives,
    Cooling? Cooling,
    decimal? Price)
{
    /// <summary>The one currency of all prices.</summary>
    public const string Currency = "EUR";

    /// <summary>The day the price was read.</summary>
    public DateOnly? PricedOn { get; init; }

    public MachineForm? Form { get; init; }

    /// <summary>Whether it runs from its battery.</summary>
    public bool OnBattery { get; init; }

    /// <summary>At full load, at the operator's seat, dB(A).</summary>
    public double? NoiseDecibels { get; init; }

    /// <summary>What parts have to go by that are put into it; null where nothing of that is stated.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Places? Places { get; init; }

    public string? OperatingSystem { get; init; }

    /// <summary>The day of the graphics driver.</summary>
    public DateOnly? DriverDate { get; init; }

    /// <summary>What work takes on it, where that was measured; null for what all stand-ins have in common.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public MachineCosts? Costs { get; init; }

    /// <summary>As it is compared with other descriptions. What the kernel reports of a machine's memory differs a little after each
    /// update, so from 8 GB on it counts in whole gigabytes; what is in use just now is no part of the machine.</summary>
    [JsonIgnore]
    public Machine AsCompared => Kind == MachineKind.Real
        ? this with { Memory = Memory with { Gigabytes = Math.Round(Memory.Gigabytes, Memory.Gigabytes < 8 ? 1 : 0), InUseGigabytes = 0 } }
        : this;

    /// <summary>Whether it stands for a real machine on which its figures were measured.</summary>
    [JsonIgnore]
    public bool IsTwin => Kind == MachineKind.StandIn && Costs is not null;

    /// <summary>Whether it can work on a battery, and what it may draw then is known.</summary>
    [JsonIgnore]
    public bool HasBattery => Cooling?.BatteryWatts is not null;

    /// <summary>The drive on which something lies; the first one where none has that role, null without drives.</summary>
    public Drive? DriveFor(DriveRole role) =>
        Drives.FirstOrDefault(drive => drive.Roles.Contains(role)) ?? (Drives is [var first, ..] ? first : null);

    /// <summary>The graphics unit that composes pictures, or null.</summary>
    public Graphics? MainGraphics => Graphics is [var first, ..] ? first : null;

    /// <summary>The graphics units that compose pictures together: the first, and those alike.</summary>
    [JsonIgnore]
    public IReadOnlyList<Graphics> Composing => [.. Graphics.Where(unit => unit == Graphics[0])];

    /// <summary>The engines that take a format.</summary>
    public IReadOnlyList<MediaEngine> EnginesFor(ClipFormat format) => [.. MediaEngines.Where(engine => engine.RefusalOf(format) is null)];

    /// <summary>The engines that encode a format.</summary>
    public IReadOnlyList<MediaEngine> EncodersOf(ClipFormat format) =>
        [.. MediaEngines.Where(engine => engine.Encodes?.Any(row => row.Covers(format)) == true)];

    /// <summary>Why no media engine takes a format, by the one that comes nearest.</summary>
    /// <returns>Null when one does, or when there is none at all.</returns>
    public EngineRefusal? RefusalOf(ClipFormat format) => EnginesFor(format).Count > 0 ? null
        : MediaEngines.Select(engine => engine.RefusalOf(format)!).MaxBy(refusal => refusal.Lack);

    /// <summary>The most power it may draw for long as it is powered; null for no such limit.</summary>
    public double? PowerLimit => OnBattery ? Cooling?.BatteryWatts : Cooling?.MainsWatts;
}

public enum MachineKind
{
    /// <summary>Timelines are really played on it.</summary>
    Real,

    /// <summary>A simulated machine.</summary>
    StandIn,
}

public enum MachineForm
{
    Slate,
    Laptop,
    SmallDesktop,
    AllInOne,
    Tower,
}
