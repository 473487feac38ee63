using System.Diagnostics;
using System.Globalization;
using HardyBench.Core.Playback;
using HardyBench.Formats.Files;
using HardyBench.Media.Commands;

namespace HardyBench.Workbench.Playing;

/// <summary>How the player's own program is started: with limits, without privileges to gain, in a folder of its own, and able to open only
/// what it is handed.</summary>
/// <param name="folders">Folders and files that it may read, besides the system's own.</param>
/// <param name="homes">Below which each process of it has a folder of its own.</param>
/// <param name="folder">Where it is made; null for beside this program.</param>
public sealed class PlayerProgram(IReadOnlyList<string> folders, string homes, string? folder = null)
{
    /// <summary>What tells how a machine stands. Of other processes nothing is to be read but how long the threads of this one
    /// ran.</summary>
    private static readonly string[] State =
    [
        "/sys", "/run/udev", "/proc/self", "/proc/stat", "/proc/meminfo", "/proc/cpuinfo", "/proc/loadavg", "/proc/vmstat", "/proc/diskstats",
        "/proc/uptime", "/proc/filesystems", "/proc/version", "/proc/driver", "/proc/devices", "/proc/modules", "/proc/pressure", "/proc/sys",
    ];

    /// <summary>Devices are written to where they are asked to work.</summary>
    private static readonly string[] Devices =
        ["/dev/dri", "/dev/kfd", "/dev/nvidia0", "/dev/nvidia1", "/dev/nvidiactl", "/dev/nvidia-uvm", "/dev/nvidia-modeset"];

    /// <summary>Files that are open at once: clips of the most layers, and a few for each thread.</summary>
    private const int MaxOpen = 4096;

    /// <summary>The largest file that it may write: what graphics drivers keep compiled.</summary>
    private const long LargestFile = 64L << 20;

    /// <summary>The part of main memory that it may fill.</summary>
    private const double MaxMemory = 0.85;

    private readonly string folder = folder ?? Path.Combine(AppContext.BaseDirectory, "player");

    /// <summary>Those of some files that it could not open.</summary>
    public IReadOnlyList<string> Unreached(IEnumerable<string> files) => [.. files.Where(file => !folders.Any(one => IsWithin(file, one)))];

    /// <summary>The path of a new working folder, named after this process, so that what it leaves can be distinguished from what is in
    /// use.</summary>
    public string NewHome() => Path.Combine(homes, $"{Environment.ProcessId}-{Guid.NewGuid():n}");

    /// <summary>Deletes a working folder once its process is gone.</summary>
    public static void DeleteHome(string home)
    {
        try
        {
            Directory.Delete(home, recursive: true);
        }
        catch (Exception failure) when (failure is IOException or UnauthorizedAccessException)
        {
            // Nothing of worth is in it; the next start of the program tries again.
        }
    }

    /// <summary>Starts it with its standard streams in our hands.</summary>
    /// <param name="home">Its working folder, made here; it may write there and nowhere else.</param>
    /// <param name="more">More files that it may read.</param>
    /// <exception cref="PlayerUnavailableException">It is not there.</exception>
    public Process Start(string home, IReadOnlyList<string> more, params string[] arguments)
    {
        var program = Path.Combine(folder, "hardybench-player");
        var confine = Confinement.Program;
        if (!File.Exists(program) || !File.Exists(confine))
        {
            throw new PlayerUnavailableException(
                $"The player is missing from {folder}, so nothing can be played on this machine; stand-ins still can. Build the "
                    + "product again."
            );
        }

        Directory.CreateDirectory(home);
        var start = new ProcessStartInfo(confine)
        {
            WorkingDirectory = home,
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            UseShellExecute = false,
        };
        foreach (var argument in Confined(home, more).Concat(["--", program, .. arguments]))
        {
            start.ArgumentList.Add(argument);
        }

        foreach (var variable in new[] { "HOME", "TMPDIR", "XDG_CACHE_HOME" })
        {
            start.Environment[variable] = home;
        }

        start.Environment["HARDYBENCH_OWNER"] = Environment.ProcessId.ToString(CultureInfo.InvariantCulture);
        return Process.Start(start)!;
    }

    private IEnumerable<string> Confined(string home, IReadOnlyList<string> more) =>
    [
        "--data", ((long)(MaxMemory * GC.GetGCMemoryInfo().TotalAvailableMemoryBytes)).ToString(CultureInfo.InvariantCulture),
        "--file", LargestFile.ToString(CultureInfo.InvariantCulture),
        "--open", MaxOpen.ToString(CultureInfo.InvariantCulture),
        .. Confinement.System.Concat(State).Append($"/proc/{Environment.ProcessId}/task").Append(folder).Concat(folders).Concat(more)
            .SelectMany(path => new[] { "--read", path }),
        .. Devices.SelectMany(path => new[] { "--device", path }), "--device", "/dev/null", "--scratch", home,
    ];

    /// <summary>Whether a file really lies in a folder, or is it, whatever links lead to it.</summary>
    private static bool IsWithin(string file, string folder)
    {
        try
        {
            return RealPath.IsWithin(file, folder);
        }
        catch (Exception gone) when (gone is IOException or UnauthorizedAccessException)
        {
            return true;
        }
    }
}
