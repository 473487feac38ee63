using System.Diagnostics;
using System.Globalization;

namespace HardyBench.Benchmarks;

/// <summary>What a play is held to.</summary>
/// <param name="ReadBytesPerSecond">From the drive, swap with it.</param>
/// <param name="LookAhead">Treated frames that may wait.</param>
internal sealed record Squeeze(long? ReadBytesPerSecond = null, long? MemoryBytes = null, int LookAhead = 6);

/// <summary>Holds this process, and those that it starts meanwhile, to less than the machine has, by the first version of control groups.
/// Want of memory also needs somewhere to swap to, and gets a file for it.</summary>
internal sealed class ControlGroup : IDisposable
{
    private const string Root = "/sys/fs/cgroup", Name = "hardy-bench";
    private readonly List<string> folders = [];
    private readonly string? swap;

    private ControlGroup(Squeeze squeeze)
    {
        if (squeeze.ReadBytesPerSecond is { } read)
        {
            Hold("blkio", "blkio.throttle.read_bps_device", $"{DriveNumber()} {read.ToString(CultureInfo.InvariantCulture)}");
        }

        if (squeeze.MemoryBytes is { } memory)
        {
            Hold("memory", "memory.limit_in_bytes", memory.ToString(CultureInfo.InvariantCulture));
            swap = Path.GetFullPath($"hardy-bench-swap-{Environment.ProcessId}");
            Run("fallocate", "-l", "3G", swap);
            Run("chmod", "600", swap);
            Run("mkswap", swap);
            Run("swapon", swap);
        }
    }

    /// <summary>Null where this process may not make one, or the system has only the second version.</summary>
    public static ControlGroup? Make(Squeeze squeeze)
    {
        try
        {
            return new ControlGroup(squeeze);
        }
        catch (Exception cause) when (cause is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }

    public void Dispose()
    {
        foreach (var folder in folders)
        {
            Join(Path.GetDirectoryName(folder)!, File.ReadAllLines(Path.Combine(folder, "cgroup.procs")));
            Directory.Delete(folder);
        }

        if (swap is not null)
        {
            Run("swapoff", swap);
            File.Delete(swap);
        }
    }

    private void Hold(string controller, string file, string limit)
    {
        var folder = Path.Combine(Root, controller, Name);
        Directory.CreateDirectory(folder);
        folders.Add(folder);
        File.WriteAllText(Path.Combine(folder, file), limit);
        Join(folder, Own());
    }

    private static void Join(string folder, IEnumerable<string> processes)
    {
        foreach (var process in processes)
        {
            File.WriteAllText(Path.Combine(folder, "cgroup.procs"), process);
        }
    }

    /// <summary>This process and those that it started, such as a player that waits for its next run.</summary>
    private static IEnumerable<string> Own() =>
    [
        Environment.ProcessId.ToString(CultureInfo.InvariantCulture),
        .. Directory.EnumerateDirectories("/proc/self/task")
            .SelectMany(thread => File.ReadAllText($"{thread}/children").Split(' ', StringSplitOptions.RemoveEmptyEntries)),
    ];

    /// <summary>The whole drive on which this folder lies, as "major:minor".</summary>
    private static string DriveNumber() => File.ReadAllText("/proc/self/mountinfo").Split('\n')
        .Select(line => line.Split(' '))
        .First(fields => fields.Length > 4 && fields[4] == "/")[2];

    private static void Run(string command, params string[] arguments)
    {
        using var process = Process.Start(new ProcessStartInfo(command, arguments) { RedirectStandardOutput = true })!;
        process.WaitForExit();
        if (process.ExitCode != 0)
        {
            throw new IOException($"{command} ended with {process.ExitCode}.");
        }
    }
}
