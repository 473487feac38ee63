using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice.Parts;

/// <summary>Which parts make a machine that is there better, and what it is with them. Whether they go in is another question
/// (<see cref="UpgradeRules"/>).</summary>
public static class Upgrades
{
    /// <summary>What a person can exchange, by form. Common practice, no source.</summary>
    private static readonly Dictionary<MachineForm, Type[]> Open = new()
    {
        [MachineForm.Slate] = [],
        [MachineForm.Laptop] = [typeof(MemoryPart), typeof(DrivePart)],
        [MachineForm.AllInOne] = [typeof(MemoryPart), typeof(DrivePart)],
        [MachineForm.SmallDesktop] = Everything,
        [MachineForm.Tower] = Everything,
    };

    private static Type[] Everything =>
        [typeof(ProcessorPart), typeof(MemoryPart), typeof(DrivePart), typeof(GraphicsPart), typeof(SupplyPart), typeof(CoolerPart)];

    /// <summary>The most channels that sticks are shared among. Common practice, no source.</summary>
    private const int MaxChannels = 2;

    /// <summary>The order in which parts are put in, so that a rule sees what another part brings.</summary>
    private static readonly Type[] Order =
        [typeof(SupplyPart), typeof(CoolerPart), typeof(ProcessorPart), typeof(GraphicsPart), typeof(MemoryPart), typeof(DrivePart)];

    /// <summary>Whether a machine can be opened for a part and is better off with it: a stronger processor where its socket is stated, more
    /// memory, a faster drive for the footage, stronger graphics. Where nobody has said what form it has, it counts as a tower.</summary>
    public static bool IsBetter(Machine machine, Part part) => IsOpen(machine, part) && part switch
    {
        ProcessorPart processor => machine.Places?.Socket is not null && Strength(processor.Processor) > Strength(machine.Processor),
        MemoryPart memory => memory.Gigabytes > machine.Memory.Gigabytes,
        DrivePart drive => !(drive.ReadMegabytesPerSecond <= machine.DriveFor(DriveRole.Media)?.ReadMegabytesPerSecond),
        GraphicsPart graphics => !(graphics.Unit.PeakGigaflops <= machine.MainGraphics?.PeakGigaflops),
        _ => false,
    };

    /// <summary>Whether a part makes nothing faster and room for one that does: a larger supply, a larger cooler.</summary>
    public static bool MakesRoom(Machine machine, Part part) => IsOpen(machine, part) && part switch
    {
        SupplyPart supply => supply.Watts > machine.Places?.SupplyWatts,
        CoolerPart cooler => cooler.Watts > machine.Places?.CoolerWatts,
        _ => false,
    };

    /// <summary>Why parts do not go in together, a sentence each; none where they do.</summary>
    public static IReadOnlyList<string> Problems(Machine machine, IReadOnlyList<Part> parts)
    {
        var problems = new List<string>();
        foreach (var part in InOrder(parts))
        {
            problems.AddRange(UpgradeRules.Problems(machine, part));
            machine = With(machine, part);
        }

        if (UpgradeRules.Supply(machine, parts) is (false, var tooLittle))
        {
            problems.Add(tooLittle);
        }

        return problems;
    }

    /// <summary>Whether going in depends on what nobody has stated.</summary>
    public static bool IsUnsure(Machine machine, IReadOnlyList<Part> parts)
    {
        var unsure = false;
        foreach (var part in InOrder(parts))
        {
            unsure |= UpgradeRules.IsUnsure(machine, part);
            machine = With(machine, part);
        }

        return unsure || UpgradeRules.Supply(machine, parts).Holds is null;
    }

    /// <summary>The machine with parts in it: a processor with what is built into it, memory and graphics in place of what was there, a
    /// drive for the footage beside the others.</summary>
    public static Machine With(Machine machine, IReadOnlyList<Part> parts) => InOrder(parts).Aggregate(machine, With);

    private static IEnumerable<Part> InOrder(IReadOnlyList<Part> parts) => parts.OrderBy(part => Array.IndexOf(Order, part.GetType()));

    private static bool IsOpen(Machine machine, Part part) => Open[machine.Form ?? MachineForm.Tower].Contains(part.GetType());

    private static double Strength(Processor processor) => processor.InFastCores * processor.FastSpeed;

    private static bool IsOnBus(Graphics unit) => unit.BusGigabytesPerSecond is not null;

    /// <summary>Media engines that stay when graphics units go. Nobody states which unit an engine is part of: where units of both kinds
    /// are there it may be either, so it stays; where only such are there as go, it goes with them.</summary>
    private static IReadOnlyList<MediaEngine> Staying(Machine machine, Func<Graphics, bool> stays) =>
        machine.Graphics.Count == 0 || machine.Graphics.Any(stays) ? machine.MediaEngines : [];

    private static Machine With(Machine machine, Part part) => part switch
    {
        ProcessorPart processor => machine with
        {
            Processor = processor.Processor,
            Graphics =
            [
                .. machine.Graphics.Where(IsOnBus),
                .. processor.BuiltIn is { } own ? new[] { own } : [],
            ],
            MediaEngines = [.. Staying(machine, IsOnBus), .. processor.Engine is { } engine ? new[] { engine } : []],
            Cooling = machine.Cooling is { } cooling ? cooling with { FullWatts = cooling.IdleWatts + processor.Watts } : null,
        },
        MemoryPart memory => machine with
        {
            Memory = machine.Memory with
            {
                Gigabytes = memory.Gigabytes, Sticks = memory.Sticks, Channels = Math.Min(MaxChannels, memory.Sticks),
                MegatransfersPerSecond = memory.MegatransfersPerSecond,
            },
        },
        DrivePart drive => machine with
        {
            Drives =
            [
                new Drive(
                    [DriveRole.Media], drive.Words, drive.ReadMegabytesPerSecond, drive.WriteMegabytesPerSecond, drive.LatencyMilliseconds),
                .. machine.Drives
                    .Select(other => other with { Roles = [.. other.Roles.Where(role => role != DriveRole.Media)] })
                    .Where(other => other.Roles.Count > 0),
            ],
        },
        GraphicsPart graphics => machine with
        {
            Graphics = [graphics.Unit, .. machine.Graphics.Where(unit => !IsOnBus(unit))],
            MediaEngines = [.. Staying(machine, unit => !IsOnBus(unit)), .. graphics.Engine is { } engine ? new[] { engine } : []],
            Places = (machine.Places ?? new Places()) with { GraphicsWatts = graphics.Watts },
        },
        SupplyPart supply => machine with { Places = (machine.Places ?? new Places()) with { SupplyWatts = supply.Watts } },
        CoolerPart cooler => machine with
        {
            Places = (machine.Places ?? new Places()) with { CoolerWatts = cooler.Watts },
            Cooling = machine.Cooling is { } cooling
                ? cooling with { ResistanceKelvinPerWatt = Math.Min(cooling.ResistanceKelvinPerWatt, Build.ResistanceOf(cooler, cooling)) }
                : null,
        },
        _ => machine,
    };
}
