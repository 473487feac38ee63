using HardyBench.Server.Clips;
using HardyBench.Workbench;
using Microsoft.Extensions.Hosting;

namespace HardyBench.Server;

/// <summary>Sets out the demo as soon as the server runs: stand-ins play every timeline, missing clips are made.</summary>
internal sealed class DemoStart(Bench bench, ClipDesk clips) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        foreach (var timeline in await bench.TimelinesAsync())
        {
            await bench.AdviseAsync(timeline.Id);
        }

        if (bench.Clips.Missing.Count > 0)
        {
            clips.Start();
        }
    }
}
