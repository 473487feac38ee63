using HardyBench.Workbench.Data;

namespace HardyBench.Server.Clips;

/// <summary>How much may come in, so that what others send never fills the drive that runs are kept on.</summary>
public static class UploadRoom
{
    /// <summary>The largest file, and the most bytes that may lie half sent at once.</summary>
    public const long LargestFile = 64L << 30, MaxInProgress = 128L << 30;

    /// <summary>Bytes after which room is looked at again: several files that come in at once share it.</summary>
    private const long LookEvery = 8 << 20;

    /// <summary>Half sent files are deleted after this long without a byte.</summary>
    public static readonly TimeSpan KeptFor = TimeSpan.FromHours(48);

    /// <summary>Copies at most what there is room for.</summary>
    /// <param name="promised">Bytes that others were promised room for.</param>
    /// <exception cref="DataFolderException">More came.</exception>
    public static async Task CopyAsync(Stream from, Stream into, DataFolder folder, Func<long> promised, CancellationToken stop)
    {
        var taken = await CopyAsync(from, into, LargestFile, stop, () => folder.Room > promised());
        if (taken > LargestFile)
        {
            throw new DataFolderException($"There is not enough room for the file in {folder.Path}. Nothing was saved.");
        }
    }

    /// <summary>Copies until the end or the limit.</summary>
    /// <param name="hasRoom">Whether there is room for more; null for always.</param>
    /// <returns>Bytes that came: one above the limit where more did than may, none of it written past the limit.</returns>
    public static async Task<long> CopyAsync(
        Stream from, Stream into, long most, CancellationToken stop, Func<bool>? hasRoom = null)
    {
        var (buffer, taken, looked) = (new byte[1 << 16], 0L, -LookEvery);
        while (await from.ReadAsync(buffer, stop) is > 0 and var read)
        {
            if (hasRoom is not null && taken - looked >= LookEvery)
            {
                looked = taken;
                if (!hasRoom())
                {
                    return most + 1;
                }
            }

            var wanted = (int)Math.Min(read, most - taken);
            await into.WriteAsync(buffer.AsMemory(0, wanted), stop);
            taken += wanted;
            if (wanted < read)
            {
                return most + 1;
            }
        }

        return taken;
    }
}
