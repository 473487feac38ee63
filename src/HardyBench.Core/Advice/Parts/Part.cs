using System.Text.Json.Serialization;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice.Parts;

/// <summary>Something that can be bought and put into a machine.</summary>
/// <param name="Price">In <see cref="Machine.Currency"/>.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(ProcessorPart), "processor")]
[JsonDerivedType(typeof(BoardPart), "board")]
[JsonDerivedType(typeof(MemoryPart), "memory")]
[JsonDerivedType(typeof(GraphicsPart), "graphics")]
[JsonDerivedType(typeof(DrivePart), "drive")]
[JsonDerivedType(typeof(SupplyPart), "supply")]
[JsonDerivedType(typeof(CoolerPart), "cooler")]
[JsonDerivedType(typeof(CasePart), "case")]
public abstract record Part(string Id, string Name, decimal Price)
{
    /// <summary>The day the price was read.</summary>
    public DateOnly? PricedOn { get; init; }
}

/// <param name="Socket">What it is plugged into, by name.</param>
/// <param name="Watts">At full load.</param>
/// <param name="BuiltIn">Its built-in graphics unit; null without.</param>
/// <param name="Engine">Its built-in media engine; null without.</param>
public sealed record ProcessorPart(
    string Id, string Name, decimal Price, string Socket, Processor Processor, double Watts, Graphics? BuiltIn = null,
    MediaEngine? Engine = null) : Part(Id, Name, Price);

/// <summary>A main board.</summary>
/// <param name="MemoryKind">By name, such as DDR5.</param>
/// <param name="MemorySlots">Places for sticks.</param>
/// <param name="MostGigabytes">Of memory.</param>
/// <param name="GraphicsSlots">Long slots with sixteen lanes.</param>
/// <param name="NvmeSlots">Places for drives on the bus.</param>
/// <param name="SataPorts">For other drives.</param>
public sealed record BoardPart(
    string Id, string Name, decimal Price, string Socket, string MemoryKind, int MemorySlots, double MostGigabytes, int GraphicsSlots,
    int NvmeSlots, int SataPorts, BoardSize Size) : Part(Id, Name, Price);

/// <summary>Sticks that are sold together.</summary>
public sealed record MemoryPart(
    string Id, string Name, decimal Price, string MemoryKind, int Sticks, double GigabytesEach, int MegatransfersPerSecond)
    : Part(Id, Name, Price)
{
    public double Gigabytes => Sticks * GigabytesEach;
}

/// <param name="Watts">At full load.</param>
/// <param name="Millimetres">Its length.</param>
public sealed record GraphicsPart(
    string Id, string Name, decimal Price, Graphics Unit, double Watts, double Millimetres, MediaEngine? Engine = null)
    : Part(Id, Name, Price);

/// <param name="Words">What a machine's description calls it: "NVMe".</param>
public sealed record DrivePart(
    string Id, string Name, decimal Price, DriveInterface Interface, string Words, double ReadMegabytesPerSecond,
    double WriteMegabytesPerSecond, double LatencyMilliseconds) : Part(Id, Name, Price);

/// <summary>A power supply.</summary>
public sealed record SupplyPart(string Id, string Name, decimal Price, double Watts) : Part(Id, Name, Price);

/// <param name="Watts">That it carries away for good.</param>
/// <param name="Millimetres">Its height.</param>
/// <param name="Decibels">At full load, dB(A).</param>
public sealed record CoolerPart(string Id, string Name, decimal Price, double Watts, double Millimetres, double Decibels)
    : Part(Id, Name, Price);

/// <param name="Largest">Board that goes in.</param>
/// <param name="GraphicsMillimetres">The longest graphics unit that goes in.</param>
/// <param name="CoolerMillimetres">The highest cooler.</param>
public sealed record CasePart(
    string Id, string Name, decimal Price, MachineForm Form, BoardSize Largest, double GraphicsMillimetres, double CoolerMillimetres)
    : Part(Id, Name, Price);

/// <summary>The smaller first.</summary>
public enum BoardSize
{
    Small,
    Middle,
    Large,
}

public enum DriveInterface
{
    Nvme,
    Sata,
}
