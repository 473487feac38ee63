namespace HardyBench.Workbench.Data;

/// <summary>Where everything is kept: bench.db, clips/, own/, incoming/, looks/, aids/, player/.</summary>
public sealed class DataFolder
{
    /// <summary>Opens a folder, making it if needed.</summary>
    /// <exception cref="DataFolderException">It cannot be made or written.</exception>
    public DataFolder(string path)
    {
        Path = System.IO.Path.GetFullPath(path);
        var probe = System.IO.Path.Combine(Path, $".write-{Environment.ProcessId}");
        try
        {
            // Its owner's alone when it is made here; a folder that was there keeps the rights that somebody gave it.
            Directory.CreateDirectory(Path, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
            Directory.CreateDirectory(Incoming);
            File.WriteAllText(probe, "probe");
            File.Delete(probe);
        }
        catch (Exception failure) when (failure is IOException or UnauthorizedAccessException)
        {
            throw new DataFolderException(
                $"The data folder {Path} cannot be written: {failure.Message} Nothing was changed. "
                + "Free some space, change its permissions, or choose another folder with --data.",
                failure);
        }
    }

    public string Path { get; }

    /// <summary>Left free on the drive, whatever comes in.</summary>
    private const long Reserve = 256L << 20;

    /// <summary>Bytes that may still be taken in.</summary>
    public long Room => Math.Max(0, new DriveInfo(Path).AvailableFreeSpace - Reserve);

    public string Database => System.IO.Path.Combine(Path, "bench.db");

    public string Clips => System.IO.Path.Combine(Path, "clips");

    /// <summary>Clips that people brought.</summary>
    public string Own => System.IO.Path.Combine(Path, "own");

    /// <summary>Files on their way in.</summary>
    public string Incoming => System.IO.Path.Combine(Path, "incoming");

    public string Looks => System.IO.Path.Combine(Path, "looks");

    /// <summary>Proxies and pre-renders.</summary>
    public string Aids => System.IO.Path.Combine(Path, "aids");

    /// <summary>Working folders of processes that play, each named after the process that started it.</summary>
    public string Players => System.IO.Path.Combine(Path, "player");

    /// <summary>Clips and renders that are being made, or were left half made by a program that ended.</summary>
    public IEnumerable<FileInfo> Unfinished() => new[] { Clips, Aids }.Select(path => new DirectoryInfo(path)).Where(one => one.Exists)
        .SelectMany(one => one.EnumerateFiles("*.part.*"));

    /// <summary>Makes the folders that players are handed, and clears away what those of programs that are gone left.</summary>
    public void MakeReady()
    {
        Array.ForEach([Clips, Own, Aids, Players], folder => Directory.CreateDirectory(folder));
        foreach (
            var left in Directory
                .GetDirectories(Players)
                .Where(folder => !Directory.Exists($"/proc/{System.IO.Path.GetFileName(folder).Split('-')[0]}"))
        )
        {
            Discard(new DirectoryInfo(left));
        }
    }

    /// <summary>Deletes a file or a folder that was left, where that is possible.</summary>
    public static void Discard(FileSystemInfo left)
    {
        try
        {
            if (left is DirectoryInfo directory)
            {
                directory.Delete(recursive: true);
            }
            else
            {
                left.Delete();
            }
        }
        catch (Exception failure) when (failure is IOException or UnauthorizedAccessException)
        {
            // In use, gone meanwhile, or somebody else's: whoever looks next tries again.
        }
    }

    /// <summary>The folder used unless another is named: $HARDYBENCH_DATA, or .hardybench below the present one.</summary>
    public static string Default =>
        Environment.GetEnvironmentVariable("HARDYBENCH_DATA") is { Length: > 0 } named ? named : ".hardybench";
}

/// <summary>The data folder cannot be used; the message says why and what to do.</summary>
public sealed class DataFolderException(string message, Exception? cause = null) : Exception(message, cause);
