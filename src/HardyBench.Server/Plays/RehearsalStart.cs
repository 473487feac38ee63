using HardyBench.Workbench;
using HardyBench.Workbench.Plays;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Plays;

/// <summary>Rehearses soon after the start, when the first page has come up and nothing is measured.</summary>
internal sealed class RehearsalStart(Bench bench, ThisMachineInUse inUse, TimeProvider time, ILogger<RehearsalStart> log)
    : BackgroundService
{
    private static readonly TimeSpan AfterStart = TimeSpan.FromSeconds(3);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Delay(AfterStart, time, stoppingToken);
        using var turn = await inUse.TakeAsync("the player is being warmed up", stoppingToken);
        try
        {
            await Rehearsal.PlayAsync(bench.Folder, stoppingToken);
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            // Nothing depends on it: the first play is a little less quiet.
            log.LogWarning("Warm-up failed: {Problem}", failure.Message);
        }
    }
}
