using HardyBench.Core.Machines;
using static System.FormattableString;

namespace HardyBench.Core.Advice.Parts;

/// <summary>What keeps a part out of a machine that is there. A rule that depends on what nobody has stated keeps none out.</summary>
public static class UpgradeRules
{
    /// <summary>Why it does not go in, a sentence each.</summary>
    public static IReadOnlyList<string> Problems(Machine machine, Part part) =>
        [.. Rules(machine, part).Where(rule => rule.Holds == false).Select(rule => rule.Else)];

    /// <summary>Whether a rule depends on what nobody has stated.</summary>
    public static bool IsUnsure(Machine machine, Part part) => Rules(machine, part).Any(rule => rule.Holds is null);

    /// <summary>Each rule: whether it holds, null where that is not known, and what is wrong where it does not.</summary>
    private static IEnumerable<(bool? Holds, string Else)> Rules(Machine machine, Part part)
    {
        var places = machine.Places ?? new Places();
        return part switch
        {
            ProcessorPart processor =>
            [
                (Same(places.Socket, processor.Socket), $"{processor.Name} has socket {processor.Socket}, {machine.Name} has {places.Socket}."),
                (AtMost(processor.Watts, places.CoolerWatts),
                    Invariant($"The cooler of {machine.Name} cools {places.CoolerWatts} W, {processor.Name} draws {processor.Watts} W.")),
            ],
            MemoryPart memory =>
            [
                (Same(places.MemoryKind, memory.MemoryKind), $"{memory.Name} is {memory.MemoryKind}, {machine.Name} needs {places.MemoryKind}."),
                (AtMost(memory.Sticks, places.MemorySlots), $"{memory.Name} is {memory.Sticks} sticks, {machine.Name} has {places.MemorySlots} slots."),
                (AtMost(memory.Gigabytes, places.MostGigabytes),
                    Invariant($"{memory.Name} is {memory.Gigabytes} GB, {machine.Name} supports at most {places.MostGigabytes} GB.")),
            ],
            DrivePart { Interface: DriveInterface.Nvme } drive => [(AtMost(1, places.FreeNvme), $"{machine.Name} has no free place for {drive.Name}.")],
            DrivePart drive => [(AtMost(1, places.FreeSata), $"{machine.Name} has no free port for {drive.Name}.")],
            GraphicsPart graphics =>
            [
                (AtMost(graphics.Millimetres, places.GraphicsMillimetres),
                    Invariant($"{graphics.Name} is {graphics.Millimetres} mm long, {machine.Name} has room for {places.GraphicsMillimetres} mm.")),
            ],
            _ => [],
        };
    }

    /// <summary>Whether the supply carries what draws from it, null where that is not known, and what is wrong where it does not.</summary>
    /// <param name="with">The machine with all of the parts in it: a new processor and a new card draw together.</param>
    public static (bool? Holds, string Else) Supply(Machine with, IReadOnlyList<Part> parts)
    {
        if (!parts.Any(part => part is ProcessorPart or GraphicsPart))
        {
            return (true, string.Empty);
        }

        // What is drawn idle is counted among everything else that draws.
        var processor = parts.OfType<ProcessorPart>().LastOrDefault()?.Watts ?? with.Cooling?.FullWatts - with.Cooling?.IdleWatts;
        var needed = processor + OnBus(with) is { } drawn ? BuildRules.SupplyFor(drawn) : (double?)null;
        var supply = with.Places?.SupplyWatts;
        return (needed is { } watts ? AtMost(watts, supply) : null, Invariant($"The supply of {with.Name} gives {supply} W, with a reserve ")
            + Invariant($"of a fifth {needed:0} W are needed for {string.Join(" and ", parts.Select(part => part.Name))}."));
    }

    /// <summary>What its graphics units on the bus draw; nothing without any, null where nobody has stated it.</summary>
    private static double? OnBus(Machine machine) =>
        machine.Graphics.Any(unit => unit.BusGigabytesPerSecond is not null) ? machine.Places?.GraphicsWatts : 0;

    private static bool? Same(string? its, string other) => its is null ? null : its == other;

    private static bool? AtMost(double value, double? most) => most is null ? null : value <= most;
}
