using HardyBench.Workbench.Data;

namespace HardyBench.Server.Clips;

/// <summary>How much may come in, so that what others send never fills the drive that runs are kept on.</summary>
public static class UploadRoom
{
    /// <summary>The largest file, and the most bytes that may lie half sent at once.</summary>
    public const long LargestFile = 64L << 30, MostUnderWay = 128L << 30;

    /// <summary>Half sent files are let go after this long without a byte.</summary>
    public static readonly TimeSpan KeptFor = TimeSpan.FromHours(48);

    /// <summary>Copies at most what there is room for.</summary>
    /// <exception cref="DataFolderException">More came.</exception>
    public static async Task CopyAsync(Stream from, Stream into, DataFolder folder, CancellationToken stop)
    {
        var most = Math.Min(LargestFile, folder.Room);
        if (await CopyAsync(from, into, most, stop) > most)
        {
            throw new DataFolderException(
                $"The file is larger than the {most / 1e6:0} MB that there is room for in {folder.Path}. Nothing was taken in."
            );
        }
    }

    /// <summary>Copies until the end or the limit.</summary>
    /// <returns>Bytes that came: one above the limit where more did than may, none of it written past the limit.</returns>
    public static async Task<long> CopyAsync(Stream from, Stream into, long most, CancellationToken stop)
    {
        var (buffer, taken) = (new byte[1 << 16], 0L);
        while (await from.ReadAsync(buffer, stop) is > 0 and var read)
        {
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
