using System.Text;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials;
using HardyBench.Server.Health;
using HardyBench.Server.Live;
using HardyBench.Server.Runs;
using HardyBench.Store;
using HardyBench.Workbench;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Plays;

/// <summary>Plays trials in the background, one after another in the order asked, and tells open pages about it.</summary>
public sealed class PlayDesk(
    Bench bench, ThisMachineInUse inUse, LiveFeed live, IHostApplicationLifetime lifetime, ILogger<PlayDesk> log) : BackgroundService, ITrialListener
{
    private static readonly TimeSpan LookAgain = TimeSpan.FromMilliseconds(200);

    private readonly Lock gate = new();
    private readonly StringBuilder teeth = new();
    private readonly List<WaitingView> waiting = [];
    private readonly SemaphoreSlim asked = new(0);
    private CancellationTokenSource? stop;
    private StoredTrial? trial;
    private PlayView? now;

    /// <summary>The play in progress or the last one, or null before the first.</summary>
    public PlayView? Now
    {
        get
        {
            lock (gate)
            {
                return now is null ? null : now with
                {
                    Teeth = teeth.ToString(), Frames = now.ByHand ? now.Frames : teeth.Length, Waiting = [.. waiting],
                };
            }
        }
    }

    /// <summary>Asks for a trial; it begins at once when nothing else plays.</summary>
    public async Task<PlayView> AskAsync(PlayRequest request) => await QueueAsync(await bench.Trials.AskAsync(
        request.Kind, request.TimelineId, request.MachineId, request.Settings ?? new PlaybackSettings(), request.Times,
        TrialPlan.OfMinutes(request.Minutes), request.Other, request.WithoutEffect));

    /// <summary>Asks for a run once more, as it was.</summary>
    /// <param name="passage">Only this passage of it, from 0; null for all.</param>
    public async Task<PlayView> AskAgainAsync(long runId, int? passage) => await QueueAsync(await bench.Trials.AskAgainAsync(runId, passage));

    private async Task<PlayView> QueueAsync(StoredTrial stored)
    {
        var machine = await bench.MachineAsync(stored.Asked.MachineId);
        lock (gate)
        {
            waiting.Add(WaitingView.Of(stored, machine));
            if (now is not { Running: true } && waiting.Count == 1)
            {
                // The page sees at once that its asking came through, even before the player has started.
                now = PlayView.Before(stored, machine);
                teeth.Clear();
            }
        }

        asked.Release();
        await live.Pages.Play(Now);
        return Now!;
    }

    /// <summary>Whether it goes on with what waits.</summary>
    /// <param name="unreadable">Timelines that cannot be worked with.</param>
    public HealthView HealthWith(IReadOnlyList<UnreadableTimeline> unreadable)
    {
        lock (gate)
        {
            return new HealthView(ExecuteTask is { IsCompleted: false }, waiting.Count, now is { Running: true } ? now.TrialId : null, unreadable);
        }
    }

    /// <summary>Stops the trial that plays, or takes back the one that is about to; what was played is kept.</summary>
    public async Task StopAsync()
    {
        long? notBegun;
        lock (gate)
        {
            notBegun = waiting.FirstOrDefault(one => one.TrialId == now?.TrialId)?.TrialId;
            if (notBegun is null)
            {
                stop?.Cancel();
                return;
            }

            now = now! with { Running = false };
        }

        await WithdrawAsync(notBegun.Value);
    }

    /// <summary>Takes a trial out of the queue; does nothing when it is not in it.</summary>
    public async Task WithdrawAsync(long id)
    {
        lock (gate)
        {
            if (waiting.RemoveAll(one => one.TrialId == id) == 0)
            {
                return;
            }
        }

        await bench.Trials.WithdrawAsync(id);
        await live.Pages.Play(Now);
    }

    void ITrialListener.StepBegan(TrialStep step, int number, int? of) => Change(play => play with
    {
        Step = step.Label,
        StepNumber = number,
        StepCount = of,
        Scale = step.Plan.Settings.Scale,
        Frames = 0,
        Of = step.Plan.Hand is { } moves ? moves.Sum(move => (long)move.Frames.Count) : step.Plan.Timeline.FrameCount,
        FromFrame = trial!.Asked.Kind == TrialKind.Ramp ? FirstFrameOf(step) : 0,
        FramesPerSecond = step.Plan.Timeline.Rate.FramesPerSecond,
    });

    void ITrialListener.Making(string what)
    {
        Change(play => play with { Step = $"making the {what}" });
        _ = live.Pages.Play(Now);
    }

    public void Started(long id, RunHeader header)
    {
        lock (gate)
        {
            teeth.Clear();
        }

        Change(play => play with { RunId = id, Notes = RunNotes.OfConditions(header.Conditions) });
        _ = live.Pages.Play(Now);
    }

    public void Progressed(long id, RunProgress progress)
    {
        lock (gate)
        {
            teeth.Append(CombTeeth.Of(progress.Frames));
            now = now! with { Frames = now.ByHand ? now.Frames + progress.Lags.Count : teeth.Length };
        }

        _ = live.Pages.News(PlayNews.Of(id, progress));
    }

    public void Pictured(long id, int frame, byte[] jpeg) =>
        _ = live.Pages.Picture(new PlayPicture(id, frame, Convert.ToBase64String(jpeg)));

    /// <summary>Trials that waited when the program ended wait again.</summary>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var machines = await bench.MachinesAsync();
        foreach (var stored in (await bench.Trials.ListAsync()).Where(one => one.State == TrialState.Waiting).Reverse())
        {
            // A trial whose machine is gone waits too: its turn says why it cannot be played.
            lock (gate)
            {
                waiting.Add(WaitingView.Of(stored, machines.FirstOrDefault(one => one.Id == stored.Asked.MachineId)));
            }

            asked.Release();
        }

        try
        {
            while (true)
            {
                await asked.WaitAsync(stoppingToken);
                if (await NextAsync(stoppingToken) is var (next, turn))
                {
                    using (turn)
                    {
                        await PlayAsync(next, stoppingToken);
                    }
                }
            }
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
        {
            // The program ends; what still waits is asked again when it starts.
        }
    }

    /// <summary>The first that waits, with this machine's turn when it plays there.</summary>
    private async Task<(WaitingView Next, IDisposable? Turn)?> NextAsync(CancellationToken stopping)
    {
        while (true)
        {
            lock (gate)
            {
                if (waiting.Count == 0)
                {
                    return null;
                }

                if (waiting[0].MachineId != Machine.ThisId)
                {
                    return (waiting[0], null);
                }

                if (inUse.TryTake(isMeasured: true) is { } turn)
                {
                    return (waiting[0], turn);
                }
            }

            await Task.Delay(LookAgain, stopping);
        }
    }

    private async Task PlayAsync(WaitingView next, CancellationToken stopping)
    {
        string? problem = null;
        lock (gate)
        {
            if (waiting.RemoveAll(one => one.TrialId == next.TrialId) == 0)
            {
                return;
            }

            // From here on stopping is meant for this one.
            stop = CancellationTokenSource.CreateLinkedTokenSource(stopping, lifetime.ApplicationStopping);
        }

        try
        {
            var report = await bench.Trials.ReportAsync(next.TrialId);
            var machine = await bench.MachineAsync(next.MachineId);
            lock (gate)
            {
                trial = report.Trial;
                teeth.Clear();
                now = PlayView.Before(report.Trial, machine);
            }

            await bench.Trials.PlayAsync(next.TrialId, this, stop.Token);
        }
        catch (Exception failure)
        {
            problem = failure.Message;
            log.LogError(failure, "Trial {Trial} failed", next.TrialId);
            await bench.Trials.FailAsync(next.TrialId, problem);
        }

        lock (gate)
        {
            // One that could not even begin has no view; the list of trials says why.
            now = now?.TrialId == next.TrialId ? now with { Running = false, Problem = problem } : now;
        }

        await live.Pages.Play(Now);
    }

    private long FirstFrameOf(TrialStep step) => trial!.Asked.Timeline.StartOf(RampSearch.IndexOf(step.Label));

    private void Change(Func<PlayView, PlayView> change)
    {
        lock (gate)
        {
            now = change(now!);
        }
    }
}
