using HardyBench.Workbench;
using HardyBench.Workbench.Data;
using Microsoft.Extensions.Hosting;

namespace HardyBench.Server.Clips;

/// <summary>Deletes what was half sent or half made and never finished: at the start, and every hour.</summary>
public sealed class UploadSweep(Bench bench, TimeProvider time) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromHours(1);

    /// <summary>What is being made is written to all the time; what nobody wrote to for so long was left by a program that ended.</summary>
    private static readonly TimeSpan StillMade = TimeSpan.FromHours(1);

    /// <summary>Deletes what nothing was added to for long.</summary>
    public static void Sweep(DataFolder folder, DateTimeOffset now)
    {
        var sent = new DirectoryInfo(folder.Incoming).EnumerateFileSystemInfos()
            .Where(one => now - one.LastWriteTimeUtc > UploadRoom.KeptFor);
        var made = folder.Unfinished().Where(one => now - one.LastWriteTimeUtc > StillMade);
        foreach (var old in sent.Concat(made))
        {
            DataFolder.Discard(old);
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            while (true)
            {
                Sweep(bench.Folder, time.GetUtcNow());
                await Task.Delay(Every, time, stoppingToken);
            }
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
        {
            // The program ends.
        }
    }
}
