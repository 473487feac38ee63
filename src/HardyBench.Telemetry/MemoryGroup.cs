using System.Globalization;

namespace HardyBench.Telemetry;

/// <summary>The control group that holds this process to less memory than the machine has, by either version of them
/// (cgroups(7)).</summary>
/// <param name="folder">Below the root of the files.</param>
/// <param name="limit">The name of the file with its limit.</param>
/// <param name="use">The name of the file with its use.</param>
internal sealed class MemoryGroup(SystemFiles files, string folder, string limit, string use)
{
    /// <summary>Bytes that it may hold; null where it is not limited.</summary>
    private double? Limit => files.ReadNumber($"{folder}/{limit}");

    /// <summary>The closest of the groups that this process is in, its own and those around it; null where none limits it.</summary>
    public static MemoryGroup? Of(SystemFiles files) =>
        ControlGroups.Around(files, "memory")
            .Select(place => place.IsFirstVersion
                ? new MemoryGroup(files, place.Folder, "memory.limit_in_bytes", "memory.usage_in_bytes")
                : new MemoryGroup(files, place.Folder, "memory.max", "memory.current"))
            .Where(group => group.Limit is not null)
            .MinBy(group => group.Limit);

    /// <summary>Bytes in use and bytes that may be; null where it is not known any more. What only lies in the file cache and has not been
    /// used recently can go at once and does not count.</summary>
    public (double Used, double Fitted)? Read()
    {
        if (Limit is not { } fitted || files.ReadNumber($"{folder}/{use}") is not { } used)
        {
            return null;
        }

        var idle = (files.ReadText($"{folder}/memory.stat") ?? string.Empty).Split('\n')
            .Select(line => line.Split(' '))
            .FirstOrDefault(fields => fields is ["inactive_file", _])?[1];
        return (used - (double.TryParse(idle, NumberStyles.None, CultureInfo.InvariantCulture, out var bytes) ? bytes : 0), fitted);
    }
}
