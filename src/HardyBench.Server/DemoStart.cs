using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Server.Clips;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using HardyBench.Workbench.Demo;
using Microsoft.Extensions.Hosting;

namespace HardyBench.Server;

/// <summary>Sets out the demo as soon as the server runs: stand-ins play every timeline, missing clips are made.</summary>
internal sealed class DemoStart(Bench bench, ClipDesk clips, ThisMachineInUse inUse, LiveFeed live) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // Making is begun first, so that nobody can play this machine on clips that are not there yet.
        var making = bench.Clips.Missing().Count > 0 ? clips.Start(null) : Task.CompletedTask;
        using (inUse.TryCompute())
        {
            await PlayStandInsAsync(stoppingToken);
        }

        await making.WaitAsync(stoppingToken);
        using var turn = await inUse.TakeAsync("stand-ins are being simulated", stoppingToken);
        await PlayStandInsAsync(stoppingToken);
        await PlayProgramsAsync(stoppingToken);
    }

    /// <summary>One machine plays the first timeline as every editing program would, so that there is a comparison of them.</summary>
    private async Task PlayProgramsAsync(CancellationToken stop)
    {
        var machine = DemoMachines.FirstShown[1];
        if (await bench.Timelines.AllAsync() is not [var timeline, ..]
            || TimelineCheck.Problems(timeline, bench.Clips.Clips).Count > 0
            || !(await bench.Machines.AllAsync()).Any(one => one.Id == machine)
            || (await bench.Grids.FamiliesAsync(timeline.Id)).Any(family => family.What == Condition.Program))
        {
            return;
        }

        foreach (var program in await bench.Programs.AllAsync())
        {
            stop.ThrowIfCancellationRequested();
            var plan = await bench.Plays.PlanAsync(timeline.Id, machine, new PlaybackSettings { Program = program.Thing });
            await bench.Plays.PlayAsync(plan, null, CancellationToken.None);
        }

        await live.Tell(page => page.RunsChanged());
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
