using HardyBench.Media.Clips;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Background;

/// <summary>What is particular to a kind of background work.</summary>
/// <param name="What">As people read it while something else waits: "clips are being created".</param>
/// <param name="IsMeasured">Whether nothing else may load this machine meanwhile.</param>
/// <param name="WhenCancelled">What is kept when it is cancelled, in words; null where the page says it itself.</param>
/// <param name="TellEvery">The pause between two reports of progress to pages, which draw them on this machine.</param>
/// <param name="Tell">How a page receives it.</param>
public sealed record WorkKind(
    string What, bool IsMeasured, string? WhenCancelled, TimeSpan TellEvery, Func<ILivePage, CreationView, Task> Tell);

/// <summary>Work that loads this machine, done in the background: every request in the order it came, one at a time, each when this
/// machine is free for it. A request that fails does not stop those behind it.</summary>
public sealed class BackgroundWork(
    WorkKind kind, ThisMachineInUse inUse, LiveFeed live, IHostApplicationLifetime lifetime, ILogger log, TimeProvider time)
{
    private readonly Lock gate = new();
    private readonly Queue<Func<IProgress<CreationProgress>, CancellationToken, Task>> waiting = new();
    private CancellationTokenSource? cancel;
    private Task doing = Task.CompletedTask;
    private DateTimeOffset began, told;

    /// <summary>How it stands now.</summary>
    public CreationView Now { get; private set; } = new(false, null, 0, 0, 0, null, null);

    /// <summary>Asks for work. It begins at once, or after what was asked for before.</summary>
    /// <param name="of">How many pieces it has.</param>
    /// <returns>Ends when all that was asked for has ended, however it ends.</returns>
    public Task Add(int of, Func<IProgress<CreationProgress>, CancellationToken, Task> work)
    {
        lock (gate)
        {
            waiting.Enqueue(work);
            if (!Now.Running)
            {
                cancel = CancellationTokenSource.CreateLinkedTokenSource(lifetime.ApplicationStopping);
                Now = new CreationView(true, inUse.IsTaken ? "when what works on this machine has ended" : null, 0, of, 0, null, null);
                doing = Task.Run(() => DoAllAsync(cancel.Token));
            }

            return doing;
        }
    }

    /// <summary>Cancels what is being done and what waits behind it.</summary>
    public void Cancel()
    {
        lock (gate)
        {
            waiting.Clear();
            cancel?.Cancel();
        }
    }

    private async Task DoAllAsync(CancellationToken stop)
    {
        var (problem, isCancelled) = ((string?)null, false);
        while (Next(problem, isCancelled) is { } work)
        {
            try
            {
                using var turn = await inUse.TakeAsync(kind.What, stop, kind.IsMeasured, () => Now.SecondsLeft);
                began = time.GetUtcNow();
                await work(new Direct<CreationProgress>(Report), stop);
            }
            catch (OperationCanceledException) when (stop.IsCancellationRequested)
            {
                (problem, isCancelled) = (kind.WhenCancelled, true);
            }
            catch (Exception failure)
            {
                problem = Failures.WordsOf(failure);
                log.LogWarning(Failures.KindOf(failure) is null ? failure : null, "{What}: {Problem}", kind.What, problem);
            }
        }

        await live.Tell(page => kind.Tell(page, Now));
    }

    /// <summary>The next request; null when there is none, and it has ended then.</summary>
    private Func<IProgress<CreationProgress>, CancellationToken, Task>? Next(string? problem, bool isCancelled)
    {
        lock (gate)
        {
            if (waiting.TryDequeue(out var next))
            {
                return next;
            }

            Now = Now with { Running = false, Clip = null, SecondsLeft = null, Problem = problem, WasCancelled = isCancelled };
            return null;
        }
    }

    private void Report(CreationProgress progress)
    {
        var now = time.GetUtcNow();
        Now = new CreationView(
            true, progress.Clip, progress.Done, progress.Of, progress.Share, CreationView.Left(now - began, progress.Share), null);
        if (now - told > kind.TellEvery)
        {
            told = now;
            _ = live.Tell(page => kind.Tell(page, Now));
        }
    }
}
