using HardyBench.Core;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Media.Aids;
using HardyBench.Media.Clips;
using HardyBench.Store;
using HardyBench.Workbench.Aids;
using HardyBench.Workbench.Data;
using HardyBench.Workbench.Machines;
using HardyBench.Workbench.Playing;
using HardyBench.Workbench.Timelines;

namespace HardyBench.Workbench.Plays;

/// <summary>Plays plans and keeps the runs.</summary>
/// <param name="files">Where clips and aids lie.</param>
/// <param name="effects">Where effects have their files.</param>
/// <param name="storage">Saves runs as soon as the drive takes them.</param>
/// <param name="exports">Writes timelines to files on this machine.</param>
/// <param name="folder">The data folder.</param>
public sealed class PlayJobs(
    TimelineJobs timelines,
    MachineJobs machines,
    ClipFolder clips,
    AidJobs aids,
    RunReader runs,
    RunWriter writer,
    Players players,
    AidFolder files,
    EffectPlaces effects,
    StorageWait storage,
    IPlayback exports,
    string folder
)
{
    /// <summary>How many pages of the product are open on this machine; null where nobody knows.</summary>
    public Func<int>? PagesHere { get; set; }

    /// <summary>Told of every run that was really played, not exported, and kept, with its plan, aids with it.</summary>
    public Func<StoredRun, PlaybackPlan, Task>? Played { get; set; }

    /// <summary>Puts a plan together and checks it.</summary>
    /// <exception cref="UnknownThingException">There is no such timeline or machine.</exception>
    /// <exception cref="PlanRefusedException">It cannot be played as it stands.</exception>
    public async Task<PlaybackPlan> PlanAsync(string timelineId, string machineId, PlaybackSettings settings) =>
        new PlaybackPlan(
            (await timelines.FindAsync(timelineId)).Timeline,
            clips.Clips,
            await machines.FindAsync(machineId),
            settings
        ).Checked();

    /// <summary>Plays a plan on its machine, real or stand-in, with the aids that its settings ask for, and keeps the run
    /// while it plays.</summary>
    /// <param name="place">The run's place in a trial, or null.</param>
    /// <param name="atClock">Whether a stand-in's run comes at the pace of the clock; else it is there at once.</param>
    public async Task<StoredRun> PlayAsync(
        PlaybackPlan plan, IRunListener? listener, CancellationToken stop, RunPlace? place = null, bool atClock = false)
    {
        var isStandIn = plan.Machine.Kind == MachineKind.StandIn;
        if (isStandIn && !atClock)
        {
            return await SimulateAsync(plan, listener, place, stop);
        }

        var (keeper, played) = (new RunRecorder(writer, storage, listener, place), aids.Apply(plan));
        StoredRun run;
        try
        {
            IPlayback player = isStandIn ? new RealTimePlayback(new StandInPlayback(TimeProvider.System), TimeProvider.System)
                : plan.Export is null ? new HostPlayback(players, files, effects, folder, PagesHere?.Invoke())
                : exports;
            run = await keeper.FinishAsync(await player.PlayAsync(played, keeper, stop), stop);
        }
        catch
        {
            await keeper.AbandonAsync();
            throw;
        }

        try
        {
            await (!isStandIn && plan.Export is null && Played is { } told ? told(run, played) : Task.CompletedTask);
        }
        catch (Exception)
        {
            // Whatever went wrong, the run is kept; only what was predicted of it is not.
        }

        return run;
    }

    /// <summary>Pins an observation to a moment of a run, in play or ended.</summary>
    /// <param name="at">From the key; null to go by the frame.</param>
    /// <param name="frame">Timeline frame; null to go by the moment. Without either it is the newest moment kept.</param>
    /// <exception cref="UnknownThingException">There is no such run.</exception>
    /// <exception cref="PlanRefusedException">The moment lies outside the run, or the text is too long.</exception>
    public async Task<RunMark> MarkAsync(long runId, TimeSpan? at, int? frame, MarkKind kind, string text)
    {
        var run = (await runs.FindAsync(runId))?.Run ?? throw new UnknownThingException("run", $"{runId}", []);
        return await writer.MarkAsync(runId, RunMoments.Mark(run, at, frame, kind, text));
    }

    /// <summary>A stand-in's run is there at once and whole, so it is kept in one step.</summary>
    private async Task<StoredRun> SimulateAsync(PlaybackPlan plan, IRunListener? listener, RunPlace? place, CancellationToken stop)
    {
        var whole = new CompleteRun();
        var run = await new StandInPlayback(TimeProvider.System).PlayAsync(aids.Apply(plan), whole, stop);
        long id;
        try
        {
            id = await storage.WriteAsync(() => writer.AddAsync(run, place), stop);
        }
        catch (Exception failure) when (BenchDatabaseFactory.IsStorageFailure(failure))
        {
            throw new RunNotSavedException(
                $"The run of {plan.Machine.Name} could not be saved: {failure.GetBaseException().Message} Make room on the drive that "
                    + "holds the data, then play it again.",
                failure
            );
        }

        listener?.Started(id, run.Header);
        listener?.Progressed(id, whole.Progress);
        return new StoredRun(id, run) { Place = place };
    }

    private sealed class CompleteRun : IRunObserver
    {
        public RunProgress Progress { get; private set; } = new([], [], []);

        public void Progressed(RunProgress progress) => Progress = Progress.Then(progress);
    }
}
