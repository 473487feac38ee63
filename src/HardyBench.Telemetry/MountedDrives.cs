namespace HardyBench.Telemetry;

/// <summary>On which drive a file lies, from the kernel's mount table.</summary>
public sealed class MountedDrives(SystemFiles files)
{
    private static readonly string[] InMemory = ["tmpfs", "ramfs"];
    private static readonly string[] OverNetwork = ["nfs", "nfs4", "cifs", "smb3", "9p", "fuse.sshfs"];

    private readonly IReadOnlyList<(string Point, string Type, string Source)> mounts = Read(files);

    /// <summary>The drive's name in /sys/block and its kind; null where they are unknown, as within some containers.</summary>
    public (string? Drive, string? Kind) Of(string path)
    {
        var full = Path.GetFullPath(path);
        var (point, type, source) = mounts.Where(mount => Holds(mount.Point, full)).MaxBy(mount => mount.Point.Length);
        if (point is null)
        {
            return (null, null);
        }

        if (InMemory.Contains(type) || OverNetwork.Contains(type))
        {
            return (source, InMemory.Contains(type) ? "memory" : "network");
        }

        var drive = WholeDrive(Path.GetFileName(source));
        return (drive, drive is null ? null : files.ReadNumber($"sys/block/{drive}/queue/rotational") switch
        {
            0 => "solid state",
            1 => "rotating",
            _ => null,
        });
    }

    /// <summary>A partition belongs to the drive whose name it begins with.</summary>
    private string? WholeDrive(string device) => files.Names("sys/block")
        .Where(drive => device.StartsWith(drive, StringComparison.Ordinal)).MaxBy(drive => drive.Length);

    private static bool Holds(string point, string path) =>
        point == "/" || path == point || path.StartsWith(point + "/", StringComparison.Ordinal);

    /// <summary>/proc/self/mountinfo: after its fourth field the mount point, after a lone dash the type and the source.</summary>
    private static List<(string Point, string Type, string Source)> Read(SystemFiles files) =>
    [
        .. (files.ReadText("proc/self/mountinfo") ?? string.Empty).Split('\n')
            .Select(line => (Left: line.Split(' '), Right: line.Split(" - ").ElementAtOrDefault(1)?.Split(' ')))
            .Where(parts => parts.Left.Length > 4 && parts.Right is { Length: >= 2 })
            .Select(parts => (parts.Left[4].Replace("\\040", " ", StringComparison.Ordinal), parts.Right![0], parts.Right[1])),
    ];
}
