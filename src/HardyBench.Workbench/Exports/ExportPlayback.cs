using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Media.Exports;
using HardyBench.Telemetry;
using HardyBench.Workbench.Playing;

namespace HardyBench.Workbench.Exports;

/// <summary>Writes a timeline to a file on this machine: one process makes the very pictures that playing shows, another encodes them. What
/// is left is a run like any other, of which the last frame is there when the file is whole. The file is looked at and then thrown
/// away.</summary>
/// <param name="folder">The data folder.</param>
public sealed class ExportPlayback(PlayerProgram program, IClipFiles files, EffectPlaces effects, string folder) : IPlayback
{
    /// <summary>Left free on the drive.</summary>
    private const long Reserve = 256L << 20;

    private static readonly TimeSpan TellEvery = TimeSpan.FromMilliseconds(200);

    /// <exception cref="PlanRefusedException">It cannot be written: the timeline, or the room on the drive.</exception>
    /// <exception cref="MediaException">A clip could not be read, or the encoder failed.</exception>
    public async Task<Run> PlayAsync(PlaybackPlan plan, IRunObserver observer, CancellationToken stop)
    {
        var export = plan.Checked().Export ?? throw new ArgumentException("It is not an export.", nameof(plan));
        var raster = plan.Settings.ProcessedRaster(plan.Timeline.Raster);
        var home = program.NewHome();
        Directory.CreateDirectory(home);
        try
        {
            CheckRoom(plan, export, raster);
            var header = await HeaderAsync(plan, stop);
            observer.Started(header);
            var run = new Course(plan, observer, new HostWorkers(program, files, effects));
            var target = Path.Combine(home, "export" + ExportFile.Extension(export));
            try
            {
                await run.WriteAsync(export, raster, target, stop);
                if (await ExportFile.WrongAsync(target, export, raster, plan.Timeline.Rate, plan.Timeline.FrameCount, stop) is { } wrong)
                {
                    run.Fail(wrong);
                }

                return run.End(header, RunEnding.Finished);
            }
            catch (OperationCanceledException) when (stop.IsCancellationRequested)
            {
                return run.End(header, RunEnding.Stopped);
            }
        }
        finally
        {
            PlayerProgram.DeleteHome(home);
        }
    }

    private void CheckRoom(PlaybackPlan plan, Export export, Raster raster)
    {
        var needed = export.Written(raster, plan.Timeline.Rate).DataRate.BitsPerSecond / 8
            * plan.Timeline.Rate.StartOf(plan.Timeline.FrameCount).TotalSeconds;
        var room = new DriveInfo(folder).AvailableFreeSpace - Reserve;
        if (needed > room)
        {
            throw new PlanRefusedException(
                $"The export would take about {needed / 1e9:0.0} GB, and {Math.Max(0, room) / 1e9:0.0} GB are left in {folder}. Nothing was "
                    + "written. Make room, or export a shorter timeline.");
        }
    }

    private async Task<RunHeader> HeaderAsync(PlaybackPlan plan, CancellationToken stop)
    {
        var system = SystemFiles.Live;
        var cores = HostMachine.UsableCores(system);
        var quiet = await Quiet.WaitAsync(system, Quiet.Longest, null, stop);
        var conditions = new Conditions(
            $"Hardy Bench {typeof(RunHeader).Assembly.GetName().Version?.ToString(3)}, exporting", system.ReadText("proc/sys/kernel/osrelease")?.Trim(),
            cores, quiet.Others, null, Seed: null, MachineConditions.Read(system, folder, plan.Settings.Threads ?? cores.Count),
            PreRendered: plan.Rendered is { } rendered ? [.. rendered.Keys.Order()] : null, Sources: LoadSampler.SourcesOf(system));
        return new RunHeader(plan.Timeline, plan.Machine, plan.Settings, conditions, plan.ClipChecksums, DateTimeOffset.UtcNow)
        {
            Subject = plan.Subject,
        };
    }

    /// <summary>The processes at work: the one that makes pictures, of which every passage has its own, and the encoder.</summary>
    private sealed class HostWorkers(PlayerProgram program, IClipFiles files, EffectPlaces effects)
    {
        private volatile Worker? renderer;
        private volatile Worker? encoder;

        public void Encodes(int process) => encoder = new Worker(process, LoadKind.OwnEncode);

        public IEnumerable<ReadOnlyMemory<byte>> PicturesOf(PlaybackPlan plan, int passage, CancellationToken stop) =>
            new HostPictures(program, files, effects, process => renderer = new Worker(process, null)).Of(plan, passage, stop);

        public IEnumerable<Worker> Now() => new[] { renderer, encoder }.OfType<Worker>();
    }

    /// <summary>One export under way.</summary>
    private sealed class Course(PlaybackPlan plan, IRunObserver observer, HostWorkers workers)
    {
        private readonly RunClock clock = new();
        private readonly RunJournal journal = new();
        private FrameRecord? last;
        private TimeSpan told;

        public async Task WriteAsync(Export export, Raster raster, string target, CancellationToken stop)
        {
            using var over = new CancellationTokenSource();
            using var loads = new LoadSampler(SystemFiles.Live, TimeProvider.System, workers: workers.Now);
            var sampling = Task.Factory.StartNew(
                () => loads.Sample(clock, journal, over.Token), CancellationToken.None, TaskCreationOptions.LongRunning,
                TaskScheduler.Default);
            try
            {
                await ExportFile.WriteAsync(
                    export, raster, plan.Timeline.Rate, plan.IsDeep(plan.Played(0)), Pictures(stop), target, workers.Encodes, stop);
                Settle();
            }
            finally
            {
                await over.CancelAsync();
                await sampling;
                observer.Progressed(journal.TakeNews());
            }
        }

        public void Fail(string wrong)
        {
            journal.Fail(new PassageFailure(plan.Timeline.Passages.Count - 1, wrong));
            observer.Progressed(journal.TakeNews());
        }

        public Run End(RunHeader header, RunEnding ending) => journal.ToRun(header, ending);

        /// <summary>Every picture of the film. One is settled when the encoder has taken it, the last when the file is whole.</summary>
        private IEnumerable<ReadOnlyMemory<byte>> Pictures(CancellationToken stop)
        {
            var frame = 0;
            for (var passage = 0; passage < plan.Timeline.Passages.Count; passage++)
            {
                var asked = clock.Now;
                foreach (var picture in workers.PicturesOf(plan, passage, stop))
                {
                    var ready = clock.Now;
                    last = new FrameRecord(
                        frame++, ready, ready, null, FrameStatus.OnTime, DropReason.None, TimeSpan.Zero, TimeSpan.Zero, ready - asked,
                        TimeSpan.Zero, 0);
                    yield return picture;
                    asked = clock.Now;
                    if (frame < plan.Timeline.FrameCount)
                    {
                        Settle();
                    }
                }
            }
        }

        private void Settle()
        {
            if (last is not { } done)
            {
                return;
            }

            var now = clock.Now;
            journal.Settled(done with { SlotStart = now, Shown = now, Wait = now - done.Ready!.Value });
            last = null;
            if (now - told >= TellEvery)
            {
                told = now;
                observer.Progressed(journal.TakeNews());
            }
        }
    }
}
