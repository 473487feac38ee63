using HardyBench.Core.Playback;
using HardyBench.Player.Effects;
using HardyBench.Player.Native;
using HardyBench.Player.Telemetry;

namespace HardyBench.Player.Playing;

/// <summary>Really plays a plan on this machine.</summary>
/// <param name="screen">Where frames end; null for the plain one.</param>
/// <param name="rest">How long at most a run waits for this program itself to come to rest; null for the usual time.</param>
public sealed class LocalPlayback(
    IClipFiles files, EffectFilters filters, SystemFiles system, TimeProvider time, IScreen? screen = null, TimeSpan? rest = null) : IPlayback
{
    private static readonly TimeSpan TellEvery = TimeSpan.FromMilliseconds(200);

    /// <exception cref="PlayerUnavailableException">The decoding libraries are missing.</exception>
    /// <exception cref="PlanRefusedException">The timeline cannot be played as it stands.</exception>
    public async Task<Run> PlayAsync(PlaybackPlan plan, IRunObserver observer, CancellationToken stop)
    {
        var header = await HeaderAsync(plan.Checked(), stop);
        observer.Started(header);
        await RestAsync(stop);
        var (clock, journal, slots) = (new RunClock(), new RunJournal(), new TreatedSlots(plan.Settings.LookAhead));
        using var over = CancellationTokenSource.CreateLinkedTokenSource(stop);
        await using var closing = over.Token.Register(slots.Close);
        var treating = new Treating(plan, clock, slots, files, new PassageGraph(filters), header.Conditions.UsableCores.Count, journal);
        var presenting = new Presenting(plan, clock, slots, ScreenFor(plan, clock, observer), journal);

        var sampler = Start(ThreadRoles.Sample, () => new LoadSampler(system).Sample(clock, journal, over.Token));
        var treat = Start(ThreadRoles.Effects, () => treating.Treat(over.Token));
        var present = Start(ThreadRoles.Present, () =>
        {
            Presenting.RaisePriority();
            presenting.Present(over.Token);
        });
        var tell = Start(ThreadRoles.Record, () => Tell(journal, observer, over.Token));
        try
        {
            await await Task.WhenAny(present, treat.ContinueWith(t => t.IsFaulted ? t : present, TaskScheduler.Default).Unwrap());
        }
        finally
        {
            await over.CancelAsync();
            await Task.WhenAll(present, treat, sampler, tell);
        }

        observer.Progressed(journal.TakeNews());
        return journal.ToRun(header, stop.IsCancellationRequested ? RunEnding.Stopped : RunEnding.Finished);
    }

    private Task<Quiet> RestAsync(CancellationToken stop) => Quiet.WaitAsync(system, rest ?? Quiet.Longest, stop);

    private IScreen ScreenFor(PlaybackPlan plan, RunClock clock, IRunObserver observer) =>
        plan.Settings.Pictures ? new PreviewPictures(clock, observer) : screen ?? new BlankScreen();

    private async Task<RunHeader> HeaderAsync(PlaybackPlan plan, CancellationToken stop)
    {
        var libraries = PlayerLibraries.Versions();
        var conditions = new Conditions(
            $"Hardy Bench {typeof(LocalPlayback).Assembly.GetName().Version?.ToString(3)}, {libraries}",
            system.ReadText("proc/sys/kernel/osrelease")?.Trim(),
            ThisMachine.UsableCores(system),
            (await RestAsync(stop)).Others,
            await Start(ThreadRoles.Present, Presenting.RaisePriority),
            Seed: null);
        return new RunHeader(plan.Timeline, plan.Machine, plan.Settings, conditions, plan.ClipChecksums, time.GetUtcNow());
    }

    private static void Tell(RunJournal journal, IRunObserver observer, CancellationToken over)
    {
        while (!over.WaitHandle.WaitOne(TellEvery))
        {
            observer.Progressed(journal.TakeNews());
        }
    }

    private static Task<bool> Start(string role, Action work) => Start(role, () =>
    {
        work();
        return true;
    });

    /// <summary>Runs work on a named thread of its own.</summary>
    private static Task<T> Start<T>(string role, Func<T> work)
    {
        var done = new TaskCompletionSource<T>(TaskCreationOptions.RunContinuationsAsynchronously);
        new Thread(() =>
        {
            try
            {
                done.SetResult(work());
            }
            catch (Exception failure)
            {
                done.SetException(failure);
            }
        })
        { Name = role, IsBackground = true }.Start();
        return done.Task;
    }
}
