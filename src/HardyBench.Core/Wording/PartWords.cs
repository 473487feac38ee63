using HardyBench.Core.Advice.Parts;
using static System.FormattableString;

namespace HardyBench.Core.Wording;

/// <summary>Parts in words.</summary>
public static class PartWords
{
    /// <summary>As parts are kept in files.</summary>
    public static string KindOf(Part part) => part switch
    {
        ProcessorPart => "processor",
        BoardPart => "board",
        MemoryPart => "memory",
        GraphicsPart => "graphics",
        DrivePart => "drive",
        SupplyPart => "supply",
        CoolerPart => "cooler",
        _ => "case",
    };

    /// <summary>What matters of a part, a phrase.</summary>
    public static string Of(Part part) => part switch
    {
        ProcessorPart processor => Invariant($"{processor.Socket}, {processor.Processor.Cores} cores of {processor.Processor.FastSpeed:0.##}, ")
            + Invariant($"{processor.Watts:0} W, {(processor.BuiltIn is null ? "no graphics" : "built-in graphics")}"),
        BoardPart board => Invariant($"{board.Socket}, {board.MemorySlots} × {board.MemoryKind} up to {board.MostGigabytes:0} GB, ")
            + Invariant($"{board.GraphicsSlots} long slots, {board.NvmeSlots} NVMe, {board.SataPorts} SATA, {board.Size.ToString().ToLowerInvariant()}"),
        MemoryPart memory => Invariant($"{memory.MemoryKind}-{memory.MegatransfersPerSecond}, {memory.Sticks} × {memory.GigabytesEach:0.#} GB"),
        GraphicsPart graphics => Invariant($"{graphics.Unit.PeakGigaflops / 1000:0.#} Tflop/s, {graphics.Unit.MemoryGigabytes:0} GB, {graphics.Watts:0} W, ")
            + Invariant($"{graphics.Millimetres:0} mm{(graphics.Engine is null ? string.Empty : ", media engine")}"),
        DrivePart drive => Invariant($"{drive.Words}, reads {drive.ReadMegabytesPerSecond:0} MB/s"),
        SupplyPart supply => Invariant($"{supply.Watts:0} W"),
        CoolerPart cooler => Invariant($"{cooler.Watts:0} W, {cooler.Millimetres:0} mm, {cooler.Decibels:0} dB(A)"),
        CasePart housing => Invariant($"{housing.Form switch { Machines.MachineForm.SmallDesktop => "small desktop", _ => "tower" }}, ")
            + Invariant($"graphics to {housing.GraphicsMillimetres:0} mm, coolers to {housing.CoolerMillimetres:0} mm"),
        _ => string.Empty,
    };
}
