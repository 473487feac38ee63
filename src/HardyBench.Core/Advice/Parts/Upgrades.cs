using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice.Parts;

/// <summary>Which parts go into a machine that is there, and what it is with them. Its board, its supply and the room in its case are not
/// in its description, so what its form lets be opened decides; a processor, which hangs on the socket, is never among them.</summary>
public static class Upgrades
{
    /// <summary>What a person can exchange, by form. Common practice, no source.</summary>
    private static readonly Dictionary<MachineForm, Type[]> Open = new()
    {
        [MachineForm.Slate] = [],
        [MachineForm.Laptop] = [typeof(MemoryPart), typeof(DrivePart)],
        [MachineForm.AllInOne] = [typeof(MemoryPart), typeof(DrivePart)],
        [MachineForm.SmallDesktop] = [typeof(MemoryPart), typeof(DrivePart), typeof(GraphicsPart)],
        [MachineForm.Tower] = [typeof(MemoryPart), typeof(DrivePart), typeof(GraphicsPart)],
    };

    /// <summary>The most channels that sticks are shared among. Common practice, no source.</summary>
    private const int MostChannels = 2;

    /// <summary>Whether a machine can be opened for a part and is better off with it: more memory, a faster drive for the footage, stronger
    /// graphics. Where nobody has said what form it has, it counts as a tower.</summary>
    public static bool Fits(Machine machine, Part part) =>
        Open[machine.Form ?? MachineForm.Tower].Contains(part.GetType()) && part switch
        {
            MemoryPart memory => memory.Gigabytes > machine.Memory.Gigabytes,
            DrivePart drive => !(drive.ReadMegabytesPerSecond <= machine.DriveFor(DriveRole.Media)?.ReadMegabytesPerSecond),
            GraphicsPart graphics => !(graphics.Unit.PeakGigaflops <= machine.MainGraphics?.PeakGigaflops),
            _ => false,
        };

    /// <summary>The machine with a part in it: memory in place of what was there, a drive for the footage beside the others, graphics in
    /// place of discrete ones. Media engines that were there stay.</summary>
    public static Machine With(Machine machine, Part part) => part switch
    {
        MemoryPart memory => machine with
        {
            Memory = machine.Memory with
            {
                Gigabytes = memory.Gigabytes, Sticks = memory.Sticks, Channels = Math.Min(MostChannels, memory.Sticks),
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
            Graphics = [graphics.Unit, .. machine.Graphics.Where(unit => unit.BusGigabytesPerSecond is null)],
            MediaEngines = [.. machine.MediaEngines, .. graphics.Engine is { } engine ? new[] { engine } : []],
        },
        _ => machine,
    };
}
