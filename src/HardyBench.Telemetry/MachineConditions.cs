using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>How the machine stands, from the kernel's files.</summary>
public static class MachineConditions
{
    private const string FirstCore = "sys/devices/system/cpu/cpu0/cpufreq";

    /// <param name="dataFolder">Whose free space counts, or null.</param>
    /// <param name="threads">Threads that a run will use.</param>
    public static MachineState Read(SystemFiles files, string? dataFolder, int threads)
    {
        var loads = new List<LoadReading>();
        new ClockAndHeat(files).Read(TimeSpan.Zero, TimeSpan.Zero, loads);
        new MemoryLoads(files).Read(TimeSpan.Zero, TimeSpan.Zero, loads);
        var power = new PowerSupplies(files);
        return new MachineState(
            files.ReadText($"{FirstCore}/scaling_governor")?.Trim(),
            power.OnMains,
            power.BatteryShare,
            Of(LoadKind.Clock) / Of(LoadKind.RatedClock),
            Of(LoadKind.Temperature),
            Of(LoadKind.MemoryFitted) - Of(LoadKind.MemoryUsed),
            dataFolder is null ? null : new DriveInfo(dataFolder).AvailableFreeSpace,
            threads,
            files.ReadText($"{FirstCore}/scaling_driver")?.Trim());

        double? Of(LoadKind kind) => loads.Where(load => load.Kind == kind).Select(load => (double?)load.Value).FirstOrDefault();
    }
}
