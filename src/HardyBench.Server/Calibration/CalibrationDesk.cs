using HardyBench.Core.Calibration;
using HardyBench.Core.Playback;
using HardyBench.Media.Clips;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Store;
using HardyBench.Workbench;
using HardyBench.Workbench.Calibration;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Calibration;

/// <summary>Measures this machine in the background, one calibration at a time, when nothing else plays on it.</summary>
public sealed class CalibrationDesk(
    Bench bench, ThisMachineInUse inUse, LiveFeed live, IHostApplicationLifetime lifetime, ILogger<CalibrationDesk> log, TimeProvider time)
{
    /// <summary>Seldom: pages that receive it draw it, on the machine that is measured.</summary>
    private static readonly TimeSpan TellEvery = TimeSpan.FromSeconds(1);

    private static readonly CreationView Nothing = new(false, null, 0, 1, 0, null, null);
    private readonly Lock gate = new();
    private CancellationTokenSource? cancel;
    private DateTimeOffset told, began;

    /// <summary>How it stands now.</summary>
    public CreationView Now { get; private set; } = Nothing;

    /// <summary>Starts one, unless one is under way.</summary>
    public CreationView Start()
    {
        lock (gate)
        {
            if (!Now.Running)
            {
                cancel = CancellationTokenSource.CreateLinkedTokenSource(lifetime.ApplicationStopping);
                Now = Nothing with { Running = true, Clip = inUse.IsTaken ? "when what works on this machine has ended" : null };
                _ = Task.Run(() => MeasureAsync(cancel.Token));
            }

            return Now;
        }
    }

    /// <summary>Stops; nothing of it is kept but the clips that were made.</summary>
    public void Cancel()
    {
        lock (gate)
        {
            cancel?.Cancel();
        }
    }

    private async Task MeasureAsync(CancellationToken stop)
    {
        string? problem = null;
        try
        {
            using var turn = await inUse.TakeAsync("this machine is being calibrated", stop, isMeasured: true, () => Now.SecondsLeft);
            began = time.GetUtcNow();
            await bench.Calibrations.MeasureAsync(new Direct<CalibrationProgress>(Report), stop);
        }
        catch (OperationCanceledException)
        {
            problem = "Cancelled. An existing twin is unchanged.";
        }
        catch (Exception failure) when (failure is CreationException or PlayerUnavailableException or CalibrationException
            or PlanRefusedException or Core.Footage.MediaException || BenchDatabaseFactory.IsStorageFailure(failure))
        {
            problem = failure.Message;
            log.LogWarning("{Problem}", problem);
        }

        Now = Nothing with { Problem = problem, Done = problem is null ? 1 : 0, Share = problem is null ? 1 : 0 };
        await live.Tell(page => page.Calibrating(Now));
        await live.Tell(page => page.RunsChanged());
    }

    private void Report(CalibrationProgress progress)
    {
        var left = CreationView.Left(time.GetUtcNow() - began, progress.Share);
        Now = Nothing with { Running = true, Clip = progress.What, Share = progress.Share, SecondsLeft = left };
        if (time.GetUtcNow() - told > TellEvery)
        {
            told = time.GetUtcNow();
            _ = live.Tell(page => page.Calibrating(Now));
        }
    }
}
