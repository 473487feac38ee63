using System.Diagnostics;
using System.Globalization;
using HardyBench.Core.Calibration;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Formats.Machines;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Media.Clips;
using HardyBench.Media.EffectFiles;
using HardyBench.Store;
using HardyBench.Telemetry;
using HardyBench.Workbench.Machines;
using HardyBench.Workbench.Playing;

namespace HardyBench.Workbench.Calibration;

/// <summary>Measures this machine and makes its twin.</summary>
/// <param name="pack">What it is measured with.</param>
/// <param name="clips">Where those clips lie.</param>
/// <param name="folder">The data folder.</param>
public sealed class CalibrationJobs(
    ShelfStore<MachineCalibration> kept, ShelfStore<Prediction> predictions, ShelfStore<Machine> shelf, RunReader runs,
    CalibrationPack pack, ClipFolder clips, Players players, EffectPlaces effects, HostJobs host, string folder)
{
    /// <summary>The share of the progress that making missing clips counts for.</summary>
    private const double Making = 0.4;

    private const int MaxPredictions = 200;

    private readonly ClipCreator maker = new(clips);

    /// <summary>How many pages of the product are open on this machine; null where nobody knows.</summary>
    public Func<int>? PagesHere { get; set; }

    /// <summary>The last one; null before the first.</summary>
    public async Task<MachineCalibration?> NewestAsync() => (await kept.LastAsync(1)) is [var last] ? last : null;

    /// <summary>The last one, where this machine has not changed since; else null.</summary>
    public async Task<MachineCalibration?> CurrentAsync() =>
        await NewestAsync() is { } newest && IsOf(newest, host.Machine) ? newest : null;

    /// <summary>Whether a machine still is what was calibrated.</summary>
    private static bool IsOf(MachineCalibration calibration, Machine machine) =>
        calibration.Twin.Id == Twin.IdOf(machine.Id)
        // Earlier versions did not keep the machine, so what they measured is taken for it.
        && (calibration.Measured is not { } measured || MachineDigest.Of(measured) == MachineDigest.Of(machine));

    /// <summary>What the twin made of the last runs of this machine that are not deleted, in the order in which they were played.</summary>
    public async Task<IReadOnlyList<Prediction>> PredictionsAsync()
    {
        var last = await predictions.LastAsync(MaxPredictions);
        var present = await runs.PresentAsync([.. last.Select(prediction => prediction.RunId)]);
        return [.. last.Where(prediction => present.Contains(prediction.RunId))];
    }

    /// <summary>Keeps what the twin makes of a plan that has just been played, where there is a twin and it can speak of it.</summary>
    /// <param name="plan">As it was played, aids with it.</param>
    public async Task PredictAsync(StoredRun run, PlaybackPlan plan)
    {
        if (Prediction.Speaks(run.Run) && await NewestAsync() is { } calibration && IsOf(calibration, run.Run.Header.Machine))
        {
            await predictions.ReplaceAsync(Prediction.Of(run.Id, run.Run, plan, calibration));
        }
    }

    /// <summary>Makes the clips that are missing, plays them without a clock in all the ways that tell what work takes, and sets the twin
    /// out in the list in place of the one before. Nothing is kept where it is stopped or fails, the clips excepted.</summary>
    /// <exception cref="CreationException">The clips cannot be made.</exception>
    /// <exception cref="PlayerUnavailableException">Nothing can be played here.</exception>
    /// <exception cref="CalibrationException">What was played tells nothing.</exception>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    public async Task<MachineCalibration> MeasureAsync(IProgress<CalibrationProgress>? progress, CancellationToken stop)
    {
        string[] ids = [.. clips.Recipes.Select(recipe => recipe.Id)];
        var from = clips.Missing(ids).Count > 0 ? Making : 0;
        await maker.MakeAsync(ids, new Direct<CreationProgress>(made =>
            progress?.Report(new CalibrationProgress("creating the clips for it", from * made.Share))), stop);

        await UntilIdleAsync(progress, from, stop);
        var began = Stopwatch.GetTimestamp();
        var (machine, cores) = (host.Machine, HostMachine.UsableCores(SystemFiles.Live).Count);
        var plans = new CalibrationPlan(
            clips.Clips, CalibrationPack.Plain, CalibrationPack.Scaled,
            kind => kind.TextLabel switch { null => null, "look" => Looks.WarmStage, var label => label }, pack.AtLeast)
            .For(machine, cores);
        var course = new CalibrationCourse(progress, from, plans.Sum(plan => plan.Plan.Timeline.FrameCount));
        var (measures, rejected) = (new List<Measure>(), 0);
        foreach (var (plan, asked) in plans)
        {
            course.Begin(asked);
            var (read, left) = await PlayAsync(plan, asked, course, stop);
            measures.AddRange(read);
            rejected += left;
        }

        CalibrationPlan.CheckDisturbed(measures, rejected);
        var rate = DriveRate.MegabytesPerSecond(
            [.. clips.Clips.Values.OrderByDescending(clip => clip.Format.DataRate.BitsPerSecond).Take(4).Select(clips.PathOf)], stop);
        var now = DateTimeOffset.UtcNow;
        var usable = ProcessorGroup.Limit(SystemFiles.Live) is { } limit ? Math.Min(limit, cores) : cores;
        var fit = CalibrationFit.Of(measures, usable, now).Checked();
        var calibration = new MachineCalibration(
            now.ToString("yyyyMMdd-HHmmss", CultureInfo.InvariantCulture), now,
            MachineLimits.Checked(Twin.Of(machine, fit, usable, rate)), fit.CoreSpeed, measures, fit.Decodes, rate,
            Stopwatch.GetElapsedTime(began))
        {
            Measured = machine,
        };
        await shelf.ReplaceAsync(calibration.Twin);
        await kept.ReplaceAsync(calibration);
        return calibration;
    }

    /// <summary>Plays a plan, and once more each passage beside which other programs were busy.</summary>
    /// <returns>What was measured, and how many passages were disturbed each time: those tell nothing.</returns>
    private async Task<(IReadOnlyList<Measure> Measures, int Rejected)> PlayAsync(
        PlaybackPlan plan, IReadOnlyList<Measure> asked, CalibrationCourse course, CancellationToken stop)
    {
        var (measures, left) = (asked.ToArray(), Enumerable.Range(0, asked.Count).ToList());
        for (var time = 0; time <= MaxRepeats && left.Count > 0; time++)
        {
            var part = plan with { Timeline = plan.Timeline with { Passages = [.. left.Select(place => plan.Timeline.Passages[place])] } };
            if (time > 0)
            {
                course.Repeat(left.Count, part.Timeline.FrameCount);
            }

            var run = await new HostPlayback(players, clips, effects, folder, PagesHere?.Invoke()).PlayAsync(part, course, stop);
            stop.ThrowIfCancellationRequested();
            var read = CalibrationPlan.Read(run, [.. left.Select(place => asked[place])]);
            var disturbed = CalibrationPlan.Disturbed(run);
            foreach (var (index, place) in left.Index().Where(one => !disturbed.Contains(one.Index)))
            {
                measures[place] = read[index];
            }

            left = [.. disturbed.Select(index => left[index])];
        }

        return (measures, left.Count);
    }

    /// <summary>Times that a disturbed passage is played again, and how long other programs are waited for.</summary>
    private const int MaxRepeats = 2;

    private static readonly TimeSpan LongestWait = TimeSpan.FromMinutes(1);

    /// <exception cref="CalibrationException">It does not become idle.</exception>
    private static async Task UntilIdleAsync(IProgress<CalibrationProgress>? progress, double share, CancellationToken stop)
    {
        var began = Stopwatch.GetTimestamp();
        while (true)
        {
            var others = (await Quiet.WaitAsync(SystemFiles.Live, Quiet.Longest, null, stop)).Others ?? 0;
            stop.ThrowIfCancellationRequested();
            if (others <= CalibrationPlan.MaxOtherLoad)
            {
                return;
            }

            var busy = string.Create(CultureInfo.InvariantCulture, $"other programs keep {others:0.0} cores busy");
            if (Stopwatch.GetElapsedTime(began) > LongestWait)
            {
                throw new CalibrationException(
                    $"This machine is not idle: {busy}. Nothing was changed. Close them and calibrate again.");
            }

            progress?.Report(new CalibrationProgress($"waiting until this machine is idle: {busy}", share));
        }
    }
}
