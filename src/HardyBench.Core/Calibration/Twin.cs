using HardyBench.Core.Machines;

namespace HardyBench.Core.Calibration;

/// <summary>The stand-in of a real machine, made from what was measured on it.</summary>
public static class Twin
{
    /// <summary>Its id in the list of machines, which no other machine is given.</summary>
    /// <param name="machine">The id of the machine it stands for.</param>
    public static string IdOf(string machine) => machine + "-twin";

    /// <param name="machine">The name of the machine it stands for.</param>
    public static string NameOf(string machine) => $"Twin of {char.ToLowerInvariant(machine[0])}{machine[1..]}";

    /// <param name="machine">As it describes itself.</param>
    /// <param name="cores">That the player may use; a part of one where a control group leaves no whole one.</param>
    /// <param name="readMegabytesPerSecond">Of the drive that holds the footage; null where it could not be measured.</param>
    public static Machine Of(Machine machine, CalibrationFit fit, double cores, double? readMegabytesPerSecond)
    {
        // A part of a core is a slow one.
        var (whole, part) = ((int)Math.Floor(cores), cores - Math.Floor(cores));
        var all = Math.Max(1, part > 0 ? whole + 1 : whole);
        return machine with
        {
            Id = IdOf(machine.Id),
            Name = NameOf(machine.Name),
            Kind = MachineKind.StandIn,
            Summary = FormattableString.Invariant($"{cores:0.##} {(cores == 1 ? "core" : "cores")}, as measured"),
            Processor = machine.Processor with
            {
                Cores = all,
                Threads = Math.Max(all, machine.Processor.Threads),
                RelativeCoreSpeed = whole == 0 ? cores * fit.CoreSpeed : fit.CoreSpeed,
                SlowCores = whole > 0 && part > 0 ? 1 : 0,
                RelativeSlowSpeed = whole > 0 && part > 0 ? part * fit.CoreSpeed : null,
            },
            Drives = readMegabytesPerSecond is { } read ? [new Drive(Drive.AllRoles, "as measured", read, read, 0.1)] : [],
            Costs = fit.Costs,
            Price = null,
        };
    }
}
