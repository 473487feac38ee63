using HardyBench.Core.Timelines;
using HardyBench.Server.Clips;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using Microsoft.Extensions.Hosting;

namespace HardyBench.Server;

/// <summary>Sets out the demo as soon as the server runs: stand-ins play every timeline, missing clips are made.</summary>
internal sealed class DemoStart(Bench bench, ClipDesk clips, ThisMachineInUse inUse, LiveFeed live) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // Making is begun first, so that nobody can play this machine on clips that are not there yet.
        var making = bench.Clips.Missing().Count > 0 ? clips.Start(null) : Task.CompletedTask;
        await PlayStandInsAsync(stoppingToken);
        await making.WaitAsync(stoppingToken);
        using var turn = await inUse.TakeAsync(stoppingToken);
        await PlayStandInsAsync(stoppingToken);
    }

    private async Task PlayStandInsAsync(CancellationToken stop)
    {
        foreach (var timeline in await bench.Timelines.AllAsync())
        {
            if (TimelineCheck.Problems(timeline, bench.Clips.Clips).Count == 0)
            {
                await bench.Advice.PlayStandInsAsync(timeline.Id, stop);
            }
        }

        await live.Tell(page => page.RunsChanged());
    }
}
