using HardyBench.Core.Machines;

namespace HardyBench.Core.Calibration;

/// <summary>The stand-in of a real machine, made from what was measured on it.</summary>
public static class Twin
{
    /// <summary>Its id on the shelf.</summary>
    public const string Id = "twin";

    /// <param name="machine">As it describes itself.</param>
    /// <param name="cores">That the player may use.</param>
    /// <param name="readMegabytesPerSecond">Of the drive that holds the footage; null where it could not be measured.</param>
    public static Machine Of(Machine machine, CalibrationFit fit, int cores, double? readMegabytesPerSecond) => machine with
    {
        Id = Id,
        Name = "Twin of this machine",
        Kind = MachineKind.StandIn,
        Summary = $"{(cores == 1 ? "1 core" : $"{cores} cores")}, as measured; plays like it without taking its time",
        Processor = machine.Processor with { Cores = cores, Threads = Math.Max(cores, machine.Processor.Threads), RelativeCoreSpeed = fit.CoreSpeed },
        Drives = readMegabytesPerSecond is { } read ? [new Drive(Drive.AllRoles, "as measured", read, read, 0.1)] : [],
        Costs = fit.Costs,
        Price = null,
    };
}
