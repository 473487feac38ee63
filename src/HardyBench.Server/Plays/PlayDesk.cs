using System.Text;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Server.Clips;
using HardyBench.Server.Live;
using HardyBench.Server.Runs;
using HardyBench.Workbench;
using HardyBench.Workbench.Jobs;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Plays;

/// <summary>Plays in the background, one play at a time, and tells open pages about it.</summary>
public sealed class PlayDesk(
    Bench bench, ClipDesk clips, LiveFeed live, IHostApplicationLifetime lifetime, ILogger<PlayDesk> log) : IRunListener
{
    private readonly Lock gate = new();
    private readonly StringBuilder teeth = new();
    private CancellationTokenSource? stop;
    private PlayView? now;

    /// <summary>The play in progress or the last one, or null before the first.</summary>
    public PlayView? Now
    {
        get
        {
            lock (gate)
            {
                return now is null ? null : now with { Teeth = teeth.ToString(), Frames = teeth.Length };
            }
        }
    }

    /// <summary>Starts a play.</summary>
    /// <exception cref="BusyException">Something plays already, or clips are being made, which would spoil the figures.</exception>
    public async Task<PlayView> StartAsync(PlayRequest request)
    {
        var plan = await bench.PlanAsync(
            request.TimelineId, request.MachineId, new PlaybackSettings(request.Scale, request.Policy, Pictures: request.Pictures));
        if (plan.Machine.Kind == MachineKind.This && clips.Now.Running)
        {
            throw new BusyException("Clips are being made, which would spoil the figures. Wait until they are done; stand-ins can play now.");
        }

        lock (gate)
        {
            if (now is { Running: true })
            {
                throw new BusyException($"{now.MachineName} is playing. Wait for it or stop it first.");
            }

            teeth.Clear();
            stop = CancellationTokenSource.CreateLinkedTokenSource(lifetime.ApplicationStopping);
            now = new PlayView(
                0, plan.Timeline.Id, plan.Machine.Id, plan.Machine.Name, request.Scale, request.Pictures, true, 0,
                plan.Timeline.FrameCount, string.Empty, null);
            _ = Task.Run(() => PlayAsync(plan, stop.Token));
        }

        return Now!;
    }

    /// <summary>Stops the play; what was played is kept.</summary>
    public void Stop()
    {
        lock (gate)
        {
            stop?.Cancel();
        }
    }

    public void Started(long id, RunHeader header)
    {
        Change(play => play with { RunId = id });
        _ = live.Pages.Play(Now);
    }

    public void Progressed(long id, RunProgress progress)
    {
        lock (gate)
        {
            teeth.Append(CombTeeth.Of(progress.Frames));
        }

        _ = live.Pages.News(PlayNews.Of(id, progress));
    }

    public void Pictured(long id, int frame, byte[] jpeg) =>
        _ = live.Pages.Picture(new PlayPicture(id, frame, Convert.ToBase64String(jpeg)));

    private async Task PlayAsync(PlaybackPlan plan, CancellationToken stopping)
    {
        string? problem = null;
        try
        {
            await bench.PlayAsync(plan, this, stopping);
        }
        catch (Exception failure)
        {
            problem = failure is OperationCanceledException ? "Stopped before it began." : failure.Message;
            log.LogError(failure, "Playing {Timeline} on {Machine} failed", plan.Timeline.Id, plan.Machine.Id);
        }

        Change(play => play with { Running = false, Problem = problem });
        await live.Pages.Play(Now);
    }

    private void Change(Func<PlayView, PlayView> change)
    {
        lock (gate)
        {
            now = change(now!);
        }
    }
}
