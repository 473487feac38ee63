using System.Text;
using System.Threading.Channels;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Wording;
using HardyBench.Server.Live;
using HardyBench.Server.Runs;
using HardyBench.Store;
using HardyBench.Workbench;
using HardyBench.Workbench.Trials;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Plays;

/// <summary>Plays trials in the background, one after another in the order asked, and tells open pages about it.</summary>
public sealed class PlayDesk(Bench bench, ThisMachineInUse inUse, LiveFeed live, IHostApplicationLifetime lifetime, ILogger<PlayDesk> log)
    : BackgroundService,
        ITrialListener
{
    private readonly Lock gate = new();
    private readonly StringBuilder teeth = new();
    private CombTeeth? comb;
    private readonly List<WaitingView> waiting = [];

    /// <summary>That there may be something to begin: a trial was asked for, or this machine came free. One signal stands for
    /// many.</summary>
    private readonly Channel<bool> stirred = Channel.CreateBounded<bool>(
        new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite }
    );
    private readonly NewsPace pace = new(TimeProvider.System);
    private readonly EstimatedClock heard = new(TimeProvider.System);
    private CancellationTokenSource? stop;

    /// <summary>What was taken from the queue and is not shown as playing yet: it still waits for everybody who asks.</summary>
    private WaitingView? beginning;
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
                    Teeth = teeth.ToString(), Frames = now.ByHand ? now.Frames : teeth.Length,
                    Waiting = beginning is null ? [.. waiting] : [beginning, .. waiting],
                    WaitsFor = WaitsFor(),
                };
            }
        }
    }

    /// <summary>Why nothing goes on just now, though something could.</summary>
    private string? WaitsFor() =>
        bench.Storage.Problem
        ?? (waiting is [var first, ..] && stop is null
            ? first.MachineId == bench.Machines.Host.Id ? inUse.WhyNotMeasure : inUse.IsMeasured ? inUse.BusyWith : null
            : null);

    /// <summary>Asks for a trial; it begins at once when nothing else plays.</summary>
    public async Task<PlayView> AskAsync(PlayRequest request) => await QueueAsync(await bench.Trials.AskAsync(
        request.Trial ?? new PlayTrial(), request.TimelineId, request.On(bench),
        request.Settings ?? new PlaybackSettings(), request.AtClock));

    /// <summary>Asks for a run once more, as it was.</summary>
    /// <param name="passage">Only this passage of it, from 0; null for all.</param>
    public async Task<PlayView> AskAgainAsync(long runId, int? passage) =>
        await QueueAsync(await bench.Trials.AskAgainAsync(runId, passage));

    private async Task<PlayView> QueueAsync(StoredTrial stored)
    {
        var machine = await bench.Machines.FindAsync(stored.Asked.MachineId);
        lock (gate)
        {
            waiting.Add(WaitingView.Of(stored, machine.Name));
            if (now is not { Running: true } && beginning is null && waiting.Count == 1)
            {
                // The page sees at once that its asking came through, even before the player has started.
                now = PlayView.Before(stored, machine);
                teeth.Clear();
            }
        }

        Wake();
        _ = live.Tell(page => page.Play(Now));
        return Now!;
    }

    /// <summary>How the queue stands.</summary>
    public QueueState Queue
    {
        get
        {
            lock (gate)
            {
                return new QueueState(ExecuteTask is { IsCompleted: false }, waiting.Count, now is { Running: true } ? now.TrialId : null);
            }
        }
    }

    /// <summary>The moment of a run in play, or of the last one, that was so long ago; null where it is another.</summary>
    public TimeSpan? MomentOf(long runId, TimeSpan ago) => heard.MomentOf(runId, ago);

    /// <summary>Stops the trial that plays, or takes back the one that is about to; what was played is kept.</summary>
    public async Task StopAsync()
    {
        long? notBegun;
        CancellationTokenSource? playing;
        lock (gate)
        {
            (notBegun, playing) = (waiting.FirstOrDefault(one => one.TrialId == now?.TrialId)?.TrialId, stop);
            now = notBegun is null ? now : now! with { Running = false };
        }

        // Whatever hears of the stop may ask the desk, so nothing is held here.
        await (notBegun is { } waits ? WithdrawAsync(waits) : playing?.CancelAsync() ?? Task.CompletedTask);
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
        _ = live.Tell(page => page.Play(Now));
    }

    void ITrialListener.StepBegan(TrialStep step, int number, int? of) => Change(play => play with
    {
        Step = step.Role.Label,
        StepNumber = number,
        StepCount = of,
        Scale = step.Plan.Settings.Scale,
        Frames = 0,
        Of = step.Plan.Moves is { } moves ? moves.Sum(move => (long)move.Frames.Count) : step.Plan.Timeline.FrameCount,
        FromFrame = step.Role.Passage is { } passage ? trial!.Asked.Timeline.StartOf(passage) : 0,
        FramesPerSecond = step.Plan.Timeline.Rate.FramesPerSecond,
    });

    void ITrialListener.Making(string what)
    {
        Change(play => play with { Step = $"creating the {what}" });
        _ = live.Tell(page => page.Play(Now));
    }

    public void Started(long id, RunHeader header)
    {
        lock (gate)
        {
            teeth.Clear();
            comb = new CombTeeth(header.Timeline.Rate);
            pace.Begin(trial!.Asked.MachineId == bench.Machines.Host.Id);
        }

        heard.Begin(id);

        Change(play => play with { RunId = id, Notes = RunWords.NotesOf(header.Conditions) });
        _ = live.Tell(page => page.Play(Now));
    }

    public void Progressed(long id, RunProgress progress)
    {
        heard.Hear(progress);
        RunProgress? news;
        var fresh = string.Empty;
        lock (gate)
        {
            teeth.Append(comb!.Next(progress.Frames));
            now = now! with { Frames = now.ByHand ? now.Frames + progress.Lags.Count : teeth.Length };
            news = pace.Add(progress);
            // What is sent now came last, however long it was held back.
            fresh = news is { Frames.Count: var count } ? teeth.ToString(teeth.Length - count, count) : string.Empty;
        }

        if (news is not null)
        {
            _ = live.Tell(page => page.News(PlayNews.Of(id, news, fresh)));
        }
    }

    public void Pictured(long id, int frame, byte[] jpeg) =>
        _ = live.Tell(page => page.Picture(new PlayPicture(id, frame, Convert.ToBase64String(jpeg))));

    /// <summary>Trials that waited when the program ended wait again.</summary>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var names = await bench.Machines.NamesAsync();
        foreach (var stored in (await bench.Trials.ListAsync()).Where(one => one.State == TrialState.Waiting).Reverse())
        {
            // A trial whose machine is gone waits too: its turn says why it cannot be played.
            lock (gate)
            {
                waiting.Add(WaitingView.Of(stored, names.GetValueOrDefault(stored.Asked.MachineId)));
            }

            Wake();
        }

        inUse.Freed += Wake;
        bench.Storage.Changed += SendState;
        try
        {
            await foreach (var _ in stirred.Reader.ReadAllAsync(stoppingToken))
            {
                while (Next() is var (next, turn))
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
        finally
        {
            inUse.Freed -= Wake;
            bench.Storage.Changed -= SendState;
        }
    }

    private void SendState() => _ = live.Tell(page => page.Play(Now));

    private void Wake() => stirred.Writer.TryWrite(true);

    /// <summary>The first that can begin now, with its turn; null when there is none. A trial of this machine waits while anything loads
    /// it, and stand-ins pass it meanwhile. They wait only while something is measured: to simulate beside it would take from it.</summary>
    private (WaitingView Next, IDisposable Turn)? Next()
    {
        lock (gate)
        {
            foreach (var one in waiting)
            {
                if ((one.MachineId == bench.Machines.Host.Id ? inUse.TryTake("a trial plays on this machine", isMeasured: true) : inUse.TryCompute())
                    is { } turn)
                {
                    return (one, turn);
                }
            }

            return null;
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
            beginning = next;
            stop = CancellationTokenSource.CreateLinkedTokenSource(stopping, lifetime.ApplicationStopping);
        }

        try
        {
            var report = await bench.Trials.ReportAsync(next.TrialId);
            var machine = await bench.Machines.FindAsync(next.MachineId);
            lock (gate)
            {
                trial = report.Trial;
                beginning = null;
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
            stop?.Dispose();
            (stop, beginning) = (null, null);
        }

        _ = live.Tell(page => page.Play(Now));
    }

    private void Change(Func<PlayView, PlayView> change)
    {
        lock (gate)
        {
            now = change(now!);
        }
    }
}

/// <summary>How the queue of plays stands.</summary>
/// <param name="Lives">Whether it goes on with what waits.</param>
/// <param name="Waiting">How many trials wait.</param>
/// <param name="Playing">The trial that plays, or null.</param>
public sealed record QueueState(bool Lives, int Waiting, long? Playing);
