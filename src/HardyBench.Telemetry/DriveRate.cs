using System.Diagnostics;
using System.Runtime.InteropServices;
using Microsoft.Win32.SafeHandles;

namespace HardyBench.Telemetry;

/// <summary>How fast files come from their drive.</summary>
public static partial class DriveRate
{
    /// <summary>posix_fadvise(2): what is in the file cache of a file is not needed any more.</summary>
    private const int NotNeeded = 4;

    private const int Piece = 1 << 20;

    /// <summary>Reads files from end to end that lie in no cache of this system; the drive's own caches, and those of a host,
    /// stay.</summary>
    /// <returns>Megabytes a second; null where they cannot be read or put out of the cache.</returns>
    public static double? MegabytesPerSecond(IReadOnlyList<string> files, CancellationToken stop)
    {
        try
        {
            var (bytes, buffer, spent) = (0L, new byte[Piece], TimeSpan.Zero);
            foreach (var path in files)
            {
                using var file = File.OpenHandle(path, options: FileOptions.SequentialScan);
                if (Advise(file, 0, 0, NotNeeded) != 0)
                {
                    return null;
                }

                var began = Stopwatch.GetTimestamp();
                var at = 0L;
                for (int read; (read = RandomAccess.Read(file, buffer, at)) > 0; at += read)
                {
                    stop.ThrowIfCancellationRequested();
                }

                (bytes, spent) = (bytes + at, spent + Stopwatch.GetElapsedTime(began));
            }

            return bytes > 0 && spent > TimeSpan.Zero ? bytes / 1e6 / spent.TotalSeconds : null;
        }
        catch (Exception gone) when (gone is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }

    [LibraryImport("libc", EntryPoint = "posix_fadvise64")]
    private static partial int Advise(SafeFileHandle file, long from, long length, int advice);
}
