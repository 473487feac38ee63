using System.Globalization;

namespace HardyBench.Store;

/// <summary>Names a running program so that another one can tell whether it still runs: its process number and the
/// kernel's tick at which it started, because numbers are used again.</summary>
public static class RunOwner
{
    /// <summary>This program.</summary>
    public static string Current { get; } = $"{Environment.ProcessId}@{StartTick(Environment.ProcessId)}";

    public static bool IsAlive(string owner)
    {
        var parts = owner.Split('@');
        return parts.Length == 2
            && int.TryParse(parts[0], NumberStyles.None, CultureInfo.InvariantCulture, out var process)
            && StartTick(process) is { Length: > 0 } tick
            && tick == parts[1];
    }

    /// <summary>The 22nd field of /proc/PID/stat, or nothing when there is no such process.</summary>
    private static string StartTick(int process)
    {
        try
        {
            var text = File.ReadAllText(string.Create(CultureInfo.InvariantCulture, $"/proc/{process}/stat"));
            var afterName = text[(text.LastIndexOf(')') + 2)..].Split(' ');
            return afterName[19];
        }
        catch (Exception gone) when (gone is IOException or UnauthorizedAccessException or IndexOutOfRangeException)
        {
            return string.Empty;
        }
    }
}
