using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Media.Clips;
using HardyBench.Server.Clips;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Aids;

/// <summary>Renders passages in the background, one timeline at a time, when nothing plays on this machine.</summary>
public sealed class AidDesk(Bench bench, ThisMachineInUse inUse, LiveFeed live, IHostApplicationLifetime lifetime, ILogger<AidDesk> log)
{
    private static readonly PlaybackSettings WithRenders = new(PreRenders: true);
    private readonly Lock gate = new();

    /// <summary>How it stands now.</summary>
    public CreationView Now { get; private set; } = new(false, null, 0, 0, 0, null, null);

    /// <summary>Starts rendering every passage that has no render yet, unless rendering goes on already.</summary>
    public async Task<CreationView> StartAsync(string timelineId)
    {
        var plan = await bench.Plays.PlanAsync(timelineId, Machine.ThisId, WithRenders);
        lock (gate)
        {
            if (!Now.Running)
            {
                Now = new CreationView(true, inUse.IsTaken ? "when the play is over" : null, 0, plan.Timeline.Passages.Count, 0, null, null);
                _ = Task.Run(() => RenderAsync(plan));
            }

            return Now;
        }
    }

    /// <summary>What is rendered of a timeline as it stands now.</summary>
    public async Task<IReadOnlyList<RenderView>> RendersAsync(string timelineId)
    {
        var plan = await bench.Plays.PlanAsync(timelineId, Machine.ThisId, WithRenders);
        return [.. bench.Aids.Renders(plan).Select((note, index) => new RenderView(index + 1, note?.Took.TotalSeconds, note?.Bytes / 1e6))];
    }

    private async Task RenderAsync(PlaybackPlan plan)
    {
        string? problem = null;
        try
        {
            using var turn = await inUse.TakeAsync("passages are being rendered", lifetime.ApplicationStopping);
            await bench.Aids.MakeAsync(plan, null, new Direct<CreationProgress>(Report), lifetime.ApplicationStopping);
        }
        catch (Exception failure)
        {
            problem = failure is OperationCanceledException ? "Cancelled. The renders that were finished stay." : failure.Message;
            log.LogWarning("{Problem}", problem);
        }

        Now = Now with { Running = false, Clip = null, Problem = problem };
        await live.Tell(page => page.Aids(Now));
    }

    private void Report(CreationProgress progress)
    {
        Now = new CreationView(true, progress.Clip, progress.Done, progress.Of, progress.Share, null, null);
        _ = live.Tell(page => page.Aids(Now));
    }
}

/// <summary>The render of a passage; both figures null when there is none for it as it stands.</summary>
/// <param name="Seconds">How long rendering it took.</param>
public sealed record RenderView(int Number, double? Seconds, double? Megabytes);
