using System.Diagnostics;
using System.Globalization;
using HardyBench.Core.Calibration;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Media.Clips;
using HardyBench.Media.EffectFiles;
using HardyBench.Store;
using HardyBench.Telemetry;
using HardyBench.Workbench.Playing;

namespace HardyBench.Workbench.Calibration;

/// <summary>How far a calibration has come.</summary>
/// <param name="What">In words.</param>
/// <param name="Share">0 to 1.</param>
public sealed record CalibrationProgress(string What, double Share);

/// <summary>Measures this machine and makes its twin.</summary>
/// <param name="pack">What it is measured with.</param>
/// <param name="clips">Where those clips lie.</param>
/// <param name="folder">The data folder.</param>
public sealed class CalibrationJobs(
    ShelfStore<MachineCalibration> kept, ShelfStore<Prediction> predictions, ShelfStore<Machine> shelf, RunStore runs,
    CalibrationPack pack, ClipFolder clips, Players players, EffectPlaces effects, string folder)
{
    /// <summary>The share of the whole that making the clips is said to be, where some are missing.</summary>
    private const double Making = 0.4;

    private const int MostPredictions = 200;

    private readonly ClipMaker maker = new(clips);

    /// <summary>How many pages of the product are open on this machine; null where nobody knows.</summary>
    public Func<int>? PagesHere { get; set; }

    /// <summary>The last one; null before the first.</summary>
    public async Task<MachineCalibration?> NewestAsync() => (await kept.LastAsync(1)) is [var last] ? last : null;

    /// <summary>What the twin made of the last runs of this machine that are not deleted, in the order in which they were played.</summary>
    public async Task<IReadOnlyList<Prediction>> PredictionsAsync()
    {
        var last = await predictions.LastAsync(MostPredictions);
        var present = await runs.PresentAsync([.. last.Select(prediction => prediction.RunId)]);
        return [.. last.Where(prediction => present.Contains(prediction.RunId))];
    }

    /// <summary>Keeps what the twin makes of a plan that has just been played, where there is a twin and it can speak of it.</summary>
    /// <param name="plan">As it was played, aids with it.</param>
    public async Task ForetellAsync(StoredRun run, PlaybackPlan plan)
    {
        if (Prediction.Speaks(run.Run) && await NewestAsync() is { } calibration)
        {
            await predictions.ReplaceAsync(Prediction.Of(run.Id, run.Run, plan, calibration));
        }
    }

    /// <summary>Makes the clips that are missing, plays them without a clock in all the ways that tell what work takes, and sets the twin
    /// out on the shelf in place of the one before. Nothing is kept where it is stopped or fails, the clips excepted.</summary>
    /// <exception cref="MakingException">The clips cannot be made.</exception>
    /// <exception cref="PlayerUnavailableException">Nothing can be played here.</exception>
    /// <exception cref="CalibrationException">What was played tells nothing.</exception>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    public async Task<MachineCalibration> MeasureAsync(IProgress<CalibrationProgress>? progress, CancellationToken stop)
    {
        string[] ids = [.. clips.Recipes.Select(recipe => recipe.Id)];
        var from = clips.Missing(ids).Count > 0 ? Making : 0;
        await maker.MakeAsync(ids, new Direct<MakingProgress>(made =>
            progress?.Report(new CalibrationProgress("making the clips it is measured with", from * made.Share))), stop);

        var began = Stopwatch.GetTimestamp();
        var (machine, cores) = (ThisMachine.Describe(SystemFiles.Live), ThisMachine.UsableCores(SystemFiles.Live).Count);
        var plans = new CalibrationPlan(
            clips.Clips, CalibrationPack.Plain, CalibrationPack.Scaled,
            kind => kind.TextLabel switch { null => null, "look" => Looks.WarmStage, var label => label }, pack.AtLeast)
            .For(machine, cores);
        var (frames, played, measures) = (plans.Sum(plan => plan.Plan.Timeline.FrameCount), 0L, new List<Measure>());
        foreach (var (plan, asked) in plans)
        {
            var what = asked[0].Kind switch
            {
                MeasureKind.OneThread => "decoding on one thread",
                MeasureKind.AllThreads => "decoding on every core",
                _ => "effects",
            };
            var listener = new Listener(done =>
                progress?.Report(new CalibrationProgress(what, from + (1 - from) * (played + done) / frames)));
            var run = await new HostPlayback(players, clips, effects, folder, PagesHere?.Invoke()).PlayAsync(plan, listener, stop);
            stop.ThrowIfCancellationRequested();
            measures.AddRange(CalibrationPlan.Read(run, asked));
            played += plan.Timeline.FrameCount;
        }

        var rate = DriveRate.MegabytesPerSecond(
            [.. clips.Clips.Values.OrderByDescending(clip => clip.Format.DataRate.BitsPerSecond).Take(4).Select(clips.PathOf)], stop);
        var now = DateTimeOffset.UtcNow;
        var usable = ProcessorGroup.Limit(SystemFiles.Live) is { } limit ? Math.Min(limit, cores) : cores;
        var fit = CalibrationFit.Of(measures, usable, now);
        var calibration = new MachineCalibration(
            now.ToString("yyyyMMdd-HHmmss", CultureInfo.InvariantCulture), now,
            MachineLimits.Checked(Twin.Of(machine, fit, usable, rate)), fit.CoreSpeed, measures, fit.Decodes, rate,
            Stopwatch.GetElapsedTime(began));
        await shelf.ReplaceAsync(calibration.Twin);
        await kept.ReplaceAsync(calibration);
        return calibration;
    }

    private sealed class Listener(Action<long> shown) : IRunObserver
    {
        private long frames;

        public void Progressed(RunProgress progress) => shown(frames += progress.Frames.Count);
    }
}
