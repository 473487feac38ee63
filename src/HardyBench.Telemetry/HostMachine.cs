using System.Globalization;
using HardyBench.Core.Machines;

namespace HardyBench.Telemetry;

/// <summary>Describes the machine the product runs on, as far as the kernel tells.</summary>
public static class HostMachine
{
    /// <param name="id">Its id as a machine.</param>
    /// <param name="name">Its name as a machine.</param>
    public static Machine Describe(SystemFiles files, string id, string name)
    {
        var cores = CoreCount(files);
        var usable = UsableCores(files).Count;
        var (fitted, used) = Memory(files);
        return new Machine(
            id,
            name,
            MachineKind.Real,
            usable < cores ? $"{usable} of {cores} cores usable, really played" : $"{cores} cores, really played",
            new Processor(ProcessorName(files), PhysicalCores(files) ?? cores, cores, null, RatedGigahertz(files)),
            Graphics: [],
            MediaEngines: [],
            new Memory(fitted, used, null, null),
            Drives: [],
            Cooling: null,
            Price: null);
    }

    /// <summary>Numbers of the cores that this process may run on.</summary>
    public static IReadOnlyList<int> UsableCores(SystemFiles files)
    {
        var list = Field(files, "proc/self/status", "Cpus_allowed_list");
        return list is null ? [.. Enumerable.Range(0, Environment.ProcessorCount)] : ParseList(list);
    }

    /// <summary>"0-1,4" as numbers.</summary>
    public static IReadOnlyList<int> ParseList(string list) =>
    [
        .. list.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).SelectMany(part =>
        {
            var ends = part.Split('-').Select(end => int.Parse(end, CultureInfo.InvariantCulture)).ToArray();
            return Enumerable.Range(ends[0], ends[^1] - ends[0] + 1);
        }),
    ];

    private static int CoreCount(SystemFiles files) =>
        Math.Max(1, (files.ReadText("proc/stat") ?? string.Empty).Split('\n')
            .Count(line => line.StartsWith("cpu", StringComparison.Ordinal) && line.Length > 3 && char.IsAsciiDigit(line[3])));

    private static int? PhysicalCores(SystemFiles files) =>
        int.TryParse(Field(files, "proc/cpuinfo", "cpu cores"), NumberStyles.None, CultureInfo.InvariantCulture, out var cores)
            ? cores
            : null;

    private static string ProcessorName(SystemFiles files) => Field(files, "proc/cpuinfo", "model name") ?? "unknown processor";

    private static double? RatedGigahertz(SystemFiles files) =>
        files.ReadNumber("sys/devices/system/cpu/cpu0/cpufreq/base_frequency") is { } kilohertz ? kilohertz / 1e6 : null;

    private static (double Fitted, double Used) Memory(SystemFiles files)
    {
        var (fitted, available) = (Kibibytes("MemTotal"), Kibibytes("MemAvailable"));
        return MemoryGroup.Of(files)?.Read() is { } limited && limited.Fitted / 1e9 < fitted
            ? (Math.Round(limited.Fitted / 1e9, 1), Math.Max(0, Math.Round(limited.Used / 1e9, 1)))
            : (fitted, Math.Max(0, Math.Round(fitted - available, 1)));

        double Kibibytes(string name) =>
            Field(files, "proc/meminfo", name)?.Split(' ')[0] is { } text
            && double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
                ? Math.Round(number * 1024 / 1e9, 1)
                : 0;
    }

    private static string? Field(SystemFiles files, string path, string name) =>
        (files.ReadText(path) ?? string.Empty).Split('\n')
            .Select(line => line.Split(':', 2))
            .FirstOrDefault(parts => parts.Length == 2 && parts[0].Trim() == name)?[1].Trim();
}
