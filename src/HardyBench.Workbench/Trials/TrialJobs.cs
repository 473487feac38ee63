using System.Diagnostics;
using HardyBench.Core;
using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Timelines;
using HardyBench.Core.Trials;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Wording;
using HardyBench.Media.Clips;
using HardyBench.Store;
using HardyBench.Workbench.Aids;
using HardyBench.Workbench.Data;
using HardyBench.Workbench.Machines;
using HardyBench.Workbench.Playing;
using HardyBench.Workbench.Plays;

namespace HardyBench.Workbench.Trials;

/// <summary>A trial with what it has found so far.</summary>
/// <param name="Runs">Its runs in the order played.</param>
public sealed record TrialReport(StoredTrial Trial, TrialAnswer Answer, IReadOnlyList<PlayedStep> Runs);

/// <summary>A finished run of a trial.</summary>
/// <param name="Passages">What it has shown.</param>
public sealed record PlayedStep(long Id, StepRole Role, double FramesPerSecond, IReadOnlyList<PassageSummary> Passages);

/// <summary>Hears how a trial goes on.</summary>
public interface ITrialListener : IRunListener
{
    /// <summary>A run of it begins.</summary>
    /// <param name="number">From 1.</param>
    /// <param name="of">How many it takes, or null where that is not known yet.</param>
    void StepBegan(TrialStep step, int number, int? of);

    /// <summary>Something that its runs need is made first.</summary>
    /// <param name="what">"proxy of hd-avc-25".</param>
    void Making(string what);
}

/// <summary>Asks, plays and answers trials.</summary>
public sealed class TrialJobs(
    MachineJobs machines, ClipFolder clips, AidJobs aids, PlayJobs plays, RunReader runs, TrialStore trials, StorageWait storage)
{
    /// <summary>Puts a trial together, checks it and keeps it; it waits for its turn.</summary>
    /// <param name="atClock">Whether a stand-in's runs come at the pace of the clock.</param>
    /// <exception cref="UnknownThingException">There is no such timeline or machine.</exception>
    /// <exception cref="PlanRefusedException">It makes no sense as it stands.</exception>
    public async Task<StoredTrial> AskAsync(
        Trial trial, string timelineId, string machineId, PlaybackSettings settings, bool atClock = false) =>
        await AskAsync(new TrialPlan(trial, await plays.PlanAsync(timelineId, machineId, settings)), atClock);

    /// <summary>Asks for a run to be played once more as it was: the timeline as it was then, the same machine and conditions.</summary>
    /// <param name="passage">Only this passage of it, from 0; null for all.</param>
    /// <exception cref="UnknownThingException">There is no such run, passage or machine.</exception>
    /// <exception cref="PlanRefusedException">It cannot be played any more, as when a clip is gone, or was no playing through.</exception>
    public async Task<StoredTrial> AskAgainAsync(long runId, int? passage)
    {
        var header = (await runs.FindAsync(runId))?.Run.Header ?? throw new UnknownThingException("run", $"{runId}", []);
        if (header.IsByHand)
        {
            throw new PlanRefusedException("That run is of a scrub or start-lag trial. Start its trial again instead.");
        }

        if (passage is { } wanted && (wanted < 0 || wanted >= header.Timeline.Passages.Count))
        {
            throw new UnknownThingException("passage", $"{wanted + 1}", []);
        }

        var timeline = passage is { } one ? header.Timeline.Only(one) : header.Timeline;
        return await AskAsync(new TrialPlan(
            header.Subject is Export export ? new ExportTrial(1, export.Format, export.Encoder) : new PlayTrial(),
            new PlaybackPlan(timeline, clips.Clips, await machines.FindAsync(header.Machine.Id), header.Settings)));
    }

    private async Task<StoredTrial> AskAsync(TrialPlan plan, bool atClock = false)
    {
        plan.Checked();
        var start = plan.Start;
        return await trials.AddAsync(
            new AskedTrial(plan.Trial, start.Timeline, start.Machine.Id, start.Settings) { AtClock = atClock },
            DateTimeOffset.UtcNow
        );
    }

    /// <summary>Closes a trial that cannot be played, so that those behind it can. A trial that has ended without help stays as it
    /// is.</summary>
    public async Task FailAsync(long id, string problem)
    {
        try
        {
            await trials.FailAsync(id, problem);
        }
        catch (Exception full) when (BenchDatabaseFactory.IsStorageFailure(full))
        {
            // There is no room even for that; the next start closes it.
        }
    }

    /// <summary>Plays a trial's runs one after another until its question is answered, or it is stopped.</summary>
    public async Task<TrialReport> PlayAsync(long id, ITrialListener? listener, CancellationToken stop)
    {
        var stored = await FindAsync(id);
        if (!await storage.WriteAsync(() => trials.ClaimAsync(id), stop))
        {
            throw new PlanRefusedException($"Trial {id} is no longer waiting: another program plays it or has played it.");
        }

        var began = Stopwatch.GetTimestamp();
        try
        {
            var plan = await PlanOfAsync(stored.Asked);
            await CreateProxiesAndRendersAsync(plan, listener, stop);
            var (done, played) = (new List<StepOutcome>(), new List<PlayedStep>());
            while (!stop.IsCancellationRequested
                && plan.Next(done, Stopwatch.GetElapsedTime(began)) is { } step)
            {
                // A run that could not be saved is not begun.
                await storage.WriteAsync(trials.ProbeAsync, stop);
                listener?.StepBegan(step, done.Count + 1, plan.StepCount);
                var run = await plays.PlayAsync(step.Plan, listener, stop, new RunPlace(id, step.Role), stored.Asked.AtClock);
                done.Add(new StepOutcome(step.Role, run.Run));
                if (run.Run.Ending == RunEnding.CutShort)
                {
                    throw new PlayerEndedException(run.Run.Failures[^1].Message);
                }

                if (run.Run.Ending == RunEnding.Finished)
                {
                    played.Add(await PlayedAsync(run.Id, step.Role, run.Run.Header));
                    var answer = TrialWords.Of(stored.Asked.Trial.Answer(stored.Asked.Timeline, done, clips.Clips));
                    await storage.WriteAsync(() => trials.AnswerAsync(id, answer), stop);
                }
            }

            var state = stop.IsCancellationRequested ? TrialState.Stopped : TrialState.Finished;
            await storage.WriteAsync(() => trials.ChangeAsync(id, state), stop);
            return Report(await FindAsync(id), [.. done.Take(played.Count)], played);
        }
        catch (OperationCanceledException) when (stop.IsCancellationRequested)
        {
            await trials.ChangeAsync(id, TrialState.Stopped);
        }
        catch (Exception failure)
        {
            try
            {
                await trials.ChangeAsync(id, TrialState.Failed, failure.Message);
            }
            catch (Exception full) when (BenchDatabaseFactory.IsStorageFailure(full))
            {
                // There is no room even for that; the first failure is the one to tell.
            }

            throw;
        }

        return await ReportAsync(id);
    }

    /// <summary>A trial that waits is taken out of the queue.</summary>
    public Task WithdrawAsync(long id) => trials.ChangeAsync(id, TrialState.Stopped, "Removed from the queue before it began.");

    /// <exception cref="UnknownThingException">There is no such trial.</exception>
    public async Task<TrialReport> ReportAsync(long id)
    {
        var stored = await FindAsync(id);
        var (outcomes, played) = (new List<StepOutcome>(), new List<PlayedStep>());
        await foreach (var run in runs.OfTrialAsync(id))
        {
            if (run.Run.Ending == RunEnding.Finished)
            {
                var role = run.Place!.Role;
                outcomes.Add(new StepOutcome(role, run.Run));
                played.Add(await PlayedAsync(run.Id, role, run.Run.Header));
            }
        }

        return Report(stored, outcomes, played);
    }

    private async Task<PlayedStep> PlayedAsync(long id, StepRole role, RunHeader header) =>
        new(id, role, header.Timeline.Rate.FramesPerSecond, (await runs.JudgedAsync(id))!.Passages);

    private TrialReport Report(StoredTrial stored, IReadOnlyList<StepOutcome> outcomes, IReadOnlyList<PlayedStep> played) =>
        new(stored, stored.Asked.Trial.Answer(stored.Asked.Timeline, outcomes, clips.Clips), played);

    public Task<IReadOnlyList<StoredTrial>> ListAsync() => trials.ListAsync();

    /// <summary>After a start of the program: what was playing when it ended is closed; what waited still waits.</summary>
    public Task RecoverAsync() =>
        trials.RecoverAsync("The program ended during it. Its runs are saved, the last one up to its last second.");

    private async Task CreateProxiesAndRendersAsync(TrialPlan plan, ITrialListener? listener, CancellationToken stop)
    {
        foreach (var settings in plan.Trial.Ways(plan.Start.Settings))
        {
            if (plan.Start.Machine.Kind == Core.Machines.MachineKind.Real && settings.Proxies != Proxies.None)
            {
                await aids.MakeAsync(
                    plan.Start with
                    {
                        Settings = settings with { PreRenders = false },
                    },
                    null,
                    listener is null ? null : new CreationReporter(listener),
                    stop
                );
            }
        }
    }

    /// <summary>Passes on what is being made, in order and at once, as <see cref="Progress{T}"/> would not.</summary>
    private sealed class CreationReporter(ITrialListener listener) : IProgress<CreationProgress>
    {
        public void Report(CreationProgress value)
        {
            if (value.Clip is { } what)
            {
                listener.Making(what);
            }
        }
    }

    private async Task<StoredTrial> FindAsync(long id) =>
        await trials.FindAsync(id)
        ?? throw new UnknownThingException("trial", $"{id}", (await trials.ListAsync()).Take(5).Select(trial => $"{trial.Id}"));

    private async Task<TrialPlan> PlanOfAsync(AskedTrial asked) => new TrialPlan(
        asked.Trial, new PlaybackPlan(asked.Timeline, clips.Clips, await machines.FindAsync(asked.MachineId), asked.Settings)).Checked();
}
