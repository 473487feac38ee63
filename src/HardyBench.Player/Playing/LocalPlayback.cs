using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;
using HardyBench.Player.Native;
using HardyBench.Telemetry;

namespace HardyBench.Player.Playing;

/// <summary>Really plays a plan on this machine.</summary>
/// <param name="dataFolder">Where the run will be kept, whose free space is one of its conditions; null for none.</param>
/// <param name="screen">Where frames end; null for the plain one.</param>
/// <param name="pagesHere">Pages of the product that are open on this machine, which cost some of what is measured; null where nobody
/// knows.</param>
/// <param name="owner">The process that asked for the run, whose work counts as the tool's own; null where it is this one.</param>
/// <param name="rest">How long at most a run waits for this program itself to be idle; null for the usual time.</param>
public sealed class LocalPlayback(
    IClipFiles files, EffectFilters filters, SystemFiles system, TimeProvider time, string? dataFolder = null,
    IScreen? screen = null, TimeSpan? rest = null, int? pagesHere = null, int? owner = null) : IPlayback
{
    private static readonly TimeSpan TellEvery = TimeSpan.FromMilliseconds(200);

    /// <summary>How long a stopped run waits for the frame that is being worked on. What takes longer ends without help, and the next run
    /// waits for it.</summary>
    private static readonly TimeSpan Grace = TimeSpan.FromMilliseconds(400);

    /// <exception cref="PlayerUnavailableException">The decoding libraries are missing.</exception>
    /// <exception cref="PlanRefusedException">The timeline cannot be played as it stands.</exception>
    public async Task<Run> PlayAsync(PlaybackPlan plan, IRunObserver observer, CancellationToken stop)
    {
        var (header, effectsOn) = await HeaderAsync(plan.Checked(), stop);
        observer.Started(header);
        plan = plan with
        {
            Settings = plan.Settings with { EffectsOn = effectsOn },
            Decoders = header.Conditions.Footage!
                .Where(clip => clip.Value.DecodedOn != WorkPlace.Processor)
                .ToDictionary(clip => clip.Key, clip => clip.Value.DecodedOn),
        };
        var isAlone = await Leftovers.OfProgram.EndedAsync(stop);
        await RestAsync(stop);
        var (clock, journal) = (new RunClock(), new RunJournal { Decisions = plan.LogsDecisions ? new DecisionLog() : null });
        if (!isAlone)
        {
            journal.Fail(new PassageFailure(0, Leftovers.Words, Overcome: true));
        }

        var over = CancellationTokenSource.CreateLinkedTokenSource(stop);
        var sampler = OwnThread.Start(ThreadRoles.Sample, () =>
        {
            using var loads = new LoadSampler(system, time, owner, FootageReads.OfProgram);
            loads.Sample(clock, journal, over.Token);
        });
        var tell = OwnThread.Start(ThreadRoles.Record, () => Tell(journal, observer, over.Token));
        var pictures = plan.Settings.Pictures ? new PreviewPictures(clock, observer) : null;
        IScreen shownOn = pictures ?? screen ?? new BlankScreen();
        try
        {
            await (plan.Moves is { } moves
                ? EndingSoonAsync(
                    OwnThread.Start(ThreadRoles.Effects, () =>
                    {
                        using var hand = Hand(plan, clock, shownOn, ThreadsOf(header), journal);
                        hand.Carry(moves, over.Token);
                    }),
                    over.Token)
                : PlayThroughAsync(plan, clock, shownOn, ThreadsOf(header), journal, over.Token));
        }
        finally
        {
            pictures?.Dispose();
            await over.CancelAsync();
            await Task.WhenAll(sampler, tell);
        }

        if (pictures?.Failure is { } words)
        {
            journal.Fail(new PassageFailure(0, words, Overcome: true));
        }

        observer.Progressed(journal.TakeNews());
        return journal.ToRun(header, stop.IsCancellationRequested ? RunEnding.Stopped : RunEnding.Finished);
    }

    private static int ThreadsOf(RunHeader header) => header.Conditions.Machine!.Threads;

    private async Task PlayThroughAsync(
        PlaybackPlan plan, RunClock clock, IScreen shownOn, int threads, RunJournal journal, CancellationToken stop)
    {
        var slots = new TreatedSlots(plan.Settings.LookAhead);
        var over = CancellationTokenSource.CreateLinkedTokenSource(stop);
        over.Token.Register(slots.Close);
        var treating = new Treating(plan, clock, slots, files, new PassageGraph(filters), threads, journal);
        var presenting = new Presenting(plan, clock, slots, shownOn, journal);
        var treat = OwnThread.Start(ThreadRoles.Effects, () => treating.Treat(over.Token));
        var present = OwnThread.Start(ThreadRoles.Present, () =>
        {
            Presenting.RaisePriority();
            presenting.Present(over.Token);
        });
        var ended = Task.WhenAny(present, treat.ContinueWith(t => t.IsFaulted ? t : present, TaskScheduler.Default).Unwrap()).Unwrap();
        try
        {
            await ended.WaitAsync(stop);
        }
        catch (OperationCanceledException) when (stop.IsCancellationRequested)
        {
            // Stopped: what still works has its grace below.
        }
        finally
        {
            await over.CancelAsync();
            await EndingSoonAsync(Task.WhenAll(present, treat), stop);
        }
    }

    /// <summary>Waits for work to end; when playing was stopped, no longer than the grace.</summary>
    private static async Task EndingSoonAsync(Task work, CancellationToken stop)
    {
        var stopped = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        await using var stopping = stop.Register(stopped.SetResult);
        await Task.WhenAny(work, stopped.Task);
        await Task.WhenAny(work, Task.Delay(Grace, CancellationToken.None));
        if (work.IsCompleted)
        {
            await work;
            return;
        }

        Leftovers.OfProgram.Add(work);
    }

    private GesturePlayback Hand(PlaybackPlan plan, RunClock clock, IScreen shownOn, int threads, RunJournal journal) => new(
        plan, clock, shownOn, files, new PassageGraph(filters), threads, journal,
        (frame, frames, stop) =>
        {
            var start = new RunJournal();
            var (part, firstPassage) = plan.From(frame, frames);
            PlayThroughAsync(part, new RunClock(), shownOn, threads, start, stop).GetAwaiter().GetResult();
            foreach (var failure in start.TakeNews().Failures)
            {
                journal.Fail(failure with { PassageIndex = failure.PassageIndex + firstPassage });
            }

            return start.FirstShown;
        });

    private Task<Quiet> RestAsync(CancellationToken stop) => Quiet.WaitAsync(system, rest ?? Quiet.Longest, owner, stop);

    /// <returns>The header, and the device that effects run on, null for the processor.</returns>
    private async Task<(RunHeader Header, string? EffectsOn)> HeaderAsync(PlaybackPlan plan, CancellationToken stop)
    {
        var libraries = PlayerLibraries.Versions();
        var cores = HostMachine.UsableCores(system);
        var devices = new OwnDevices(system, filters);
        var footage = await Task.Run(() => new FootageConditions(system, files, devices).Prepare(plan), stop).WaitAsync(stop);
        var (device, refusal) = await Task.Run(() => devices.ForEffects(plan, files), stop).WaitAsync(stop);
        var conditions = new Conditions(
            $"Hardy Bench {typeof(LocalPlayback).Assembly.GetName().Version?.ToString(3)}, {libraries}",
            system.ReadText("proc/sys/kernel/osrelease")?.Trim(),
            cores,
            (await RestAsync(stop)).Others,
            await OwnThread.Start(ThreadRoles.Present, Presenting.RaisePriority),
            Seed: null,
            MachineConditions.Read(system, dataFolder, plan.Settings.Threads ?? cores.Count),
            footage,
            plan.Rendered is { } rendered ? [.. rendered.Keys.Order()] : null,
            PassageGraph.PlacesOf(plan, device, refusal),
            LoadSampler.SourcesOf(system))
        {
            PagesHere = pagesHere,
        };
        var header = new RunHeader(plan.Timeline, plan.Machine, plan.Settings, conditions, plan.ClipChecksums, time.GetUtcNow())
        {
            Subject = plan.Subject,
        };
        return (header, refusal is null ? device : null);
    }

    private static void Tell(RunJournal journal, IRunObserver observer, CancellationToken over)
    {
        while (!over.WaitHandle.WaitOne(TellEvery))
        {
            observer.Progressed(journal.TakeNews());
        }
    }
}
