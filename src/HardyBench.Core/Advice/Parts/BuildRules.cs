using static System.FormattableString;

namespace HardyBench.Core.Advice.Parts;

/// <summary>What keeps parts from making a machine. One rule a row; a build that breaks none is offered.</summary>
public static class BuildRules
{
    /// <summary>What a machine draws beside processor and graphics, and by how much a supply should be larger. Common practice, no
    /// source.</summary>
    private const double OtherWatts = 60, SupplyReserve = 1.2;

    private static readonly (Func<Build, bool> Holds, Func<Build, string> Else)[] All =
    [
        (of => of.Processor.Socket == of.Board.Socket,
            of => $"{of.Processor.Name} has socket {of.Processor.Socket}, {of.Board.Name} has {of.Board.Socket}."),
        (of => of.Memory.MemoryKind == of.Board.MemoryKind,
            of => $"{of.Memory.Name} is {of.Memory.MemoryKind}, {of.Board.Name} needs {of.Board.MemoryKind}."),
        (of => of.Memory.Sticks <= of.Board.MemorySlots,
            of => $"{of.Memory.Name} is {of.Memory.Sticks} sticks, {of.Board.Name} has {of.Board.MemorySlots} slots."),
        (of => of.Memory.Gigabytes <= of.Board.MostGigabytes,
            of => Invariant($"{of.Memory.Name} is {of.Memory.Gigabytes} GB, {of.Board.Name} supports at most {of.Board.MostGigabytes} GB.")),
        (of => of.Units <= of.Board.GraphicsSlots,
            of => $"{of.Units} graphics units need as many long slots, {of.Board.Name} has {of.Board.GraphicsSlots}."),
        (of => of.Graphics is not null == of.Units > 0, _ => "A number of graphics units needs a graphics unit, and the reverse."),
        (of => of.Units > 0 || of.Processor.BuiltIn is not null,
            of => $"There is no graphics unit, and {of.Processor.Name} has no built-in graphics."),
        (of => (of.Drive.Interface == DriveInterface.Nvme ? of.Board.NvmeSlots : of.Board.SataPorts) > 0,
            of => $"{of.Board.Name} has no place for {of.Drive.Name}."),
        (of => of.Cooler.Watts >= of.Processor.Watts,
            of => Invariant($"{of.Cooler.Name} cools {of.Cooler.Watts} W, {of.Processor.Name} draws {of.Processor.Watts} W.")),
        (of => of.Supply.Watts >= WattsFor(of.Processor, of.Graphics, of.Units),
            of => Invariant($"{of.Supply.Name} gives {of.Supply.Watts} W, with a reserve of a fifth ")
                + Invariant($"{WattsFor(of.Processor, of.Graphics, of.Units):0} W are needed.")),
        (of => of.Board.Size <= of.Case.Largest, of => $"{of.Board.Name} is too large for {of.Case.Name}."),
        (of => of.Graphics is null || of.Graphics.Millimetres <= of.Case.GraphicsMillimetres,
            of => Invariant($"{of.Graphics!.Name} is {of.Graphics.Millimetres} mm long, ")
                + Invariant($"{of.Case.Name} has room for {of.Case.GraphicsMillimetres} mm.")),
        (of => of.Cooler.Millimetres <= of.Case.CoolerMillimetres,
            of => Invariant($"{of.Cooler.Name} is {of.Cooler.Millimetres} mm high, ")
                + Invariant($"{of.Case.Name} has room for {of.Case.CoolerMillimetres} mm.")),
    ];

    /// <summary>A sentence each; nothing for a build that fits.</summary>
    public static IReadOnlyList<string> Problems(Build build) =>
        [.. All.Where(rule => !rule.Holds(build)).Select(rule => rule.Else(build))];

    public static bool Fits(Build build)
    {
        foreach (var (holds, _) in All)
        {
            if (!holds(build))
            {
                return false;
            }
        }

        return true;
    }

    /// <summary>The supply that these need.</summary>
    public static double WattsFor(ProcessorPart processor, GraphicsPart? graphics, int units) =>
        SupplyFor(processor.Watts + units * (graphics?.Watts ?? 0));

    /// <summary>The supply for processor and graphics that draw so much together.</summary>
    internal static double SupplyFor(double watts) => (watts + OtherWatts) * SupplyReserve;
}
