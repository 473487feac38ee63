using HardyBench.Core.Playback;
using HardyBench.Media.Clips;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Clips;

/// <summary>Makes clips in the background, one making at a time, when nothing plays on this machine.</summary>
public sealed class ClipDesk(Bench bench, ThisMachineInUse inUse, LiveFeed live, IHostApplicationLifetime lifetime, ILogger<ClipDesk> log)
{
    private static readonly TimeSpan TellEvery = TimeSpan.FromMilliseconds(250);
    private readonly Lock gate = new();
    private CancellationTokenSource? cancel;
    private DateTime began;
    private DateTime told;

    /// <summary>How it stands now.</summary>
    public CreationView Now { get; private set; } = new(false, null, 0, 0, 0, null, null);

    private Task making = Task.CompletedTask;

    /// <summary>Starts making what is missing, unless it is being made already.</summary>
    /// <param name="ids">The recipes wanted; null for those of the demo.</param>
    /// <returns>Ends with the making, however it ends.</returns>
    public Task Start(IReadOnlyList<string>? ids)
    {
        lock (gate)
        {
            if (Now.Running)
            {
                return making;
            }

            cancel = CancellationTokenSource.CreateLinkedTokenSource(lifetime.ApplicationStopping);
            Now = new CreationView(true, inUse.IsTaken ? "when the play is over" : null, 0, bench.Clips.Missing(ids).Count, 0, null, null);
            return making = Task.Run(() => MakeAsync(ids, cancel.Token));
        }
    }

    /// <summary>Cancels; finished clips stay.</summary>
    public void Cancel()
    {
        lock (gate)
        {
            cancel?.Cancel();
        }
    }

    private async Task MakeAsync(IReadOnlyList<string>? ids, CancellationToken stop)
    {
        var (problem, cancelled) = ((string?)null, false);
        try
        {
            using var turn = await inUse.TakeAsync("clips are being created", stop, secondsLeft: () => Now.SecondsLeft);
            began = DateTime.UtcNow;
            await bench.ClipCreator.MakeAsync(ids, new Direct<CreationProgress>(Report), stop);
        }
        catch (OperationCanceledException)
        {
            cancelled = true;
        }
        catch (Exception failure) when (failure is CreationException or PlayerUnavailableException)
        {
            problem = failure.Message;
            log.LogWarning("{Problem}", problem);
        }

        Now = Now with { Running = false, Clip = null, SecondsLeft = null, Problem = problem, WasCancelled = cancelled };
        await live.Tell(page => page.Making(Now));
    }

    private void Report(CreationProgress progress)
    {
        var now = DateTime.UtcNow;
        var left = CreationView.Left(now - began, progress.Share);
        Now = new CreationView(true, progress.Clip, progress.Done, progress.Of, progress.Share, left, null);
        if (now - told > TellEvery)
        {
            told = now;
            _ = live.Tell(page => page.Making(Now));
        }
    }
}
