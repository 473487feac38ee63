using HardyBench.Core.Calibration;
using HardyBench.Media.Clips;
using HardyBench.Server.Background;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Calibration;

/// <summary>Measures this machine in the background, one calibration at a time.</summary>
public sealed class CalibrationDesk(
    Bench bench, ThisMachineInUse inUse, LiveFeed live, IHostApplicationLifetime lifetime, ILogger<CalibrationDesk> log, TimeProvider time)
{
    private static readonly WorkKind Measuring = new(
        "this machine is being calibrated", IsMeasured: true, "Cancelled. An existing twin is unchanged.",
        TimeSpan.FromSeconds(1), (page, now) => page.Calibrating(now));

    private readonly Lock gate = new();
    private readonly BackgroundWork work = new(Measuring, inUse, live, lifetime, log, time);

    /// <summary>How it stands now.</summary>
    public CreationView Now => work.Now;

    /// <summary>Starts one, unless one is in progress: a second one would measure the same.</summary>
    public CreationView Start()
    {
        lock (gate)
        {
            if (!work.Now.Running)
            {
                _ = work.Add(1, MeasureAsync);
            }

            return Now;
        }
    }

    /// <summary>Stops; only clips that were created for it are kept.</summary>
    public void Cancel() => work.Cancel();

    private async Task MeasureAsync(IProgress<CreationProgress> progress, CancellationToken stop)
    {
        try
        {
            await bench.Calibrations.MeasureAsync(
                new Direct<CalibrationProgress>(now => progress.Report(new CreationProgress(now.What, 0, 1, now.Share))), stop);
        }
        finally
        {
            await live.Tell(page => page.RunsChanged());
        }
    }
}
