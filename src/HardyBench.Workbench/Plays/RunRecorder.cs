using System.Threading.Channels;
using HardyBench.Core.Playback;
using HardyBench.Store;
using HardyBench.Workbench.Data;

namespace HardyBench.Workbench.Plays;

/// <summary>Keeps a run while it plays, once a second and off the player's threads, and passes everything on. When the drive is full
/// playing goes on, what is not kept yet waits in memory, and keeping is tried again every second.</summary>
public sealed class RunRecorder : IRunObserver
{
    private static readonly TimeSpan KeepEvery = TimeSpan.FromSeconds(1);
    private static readonly RunProgress Nothing = new([], [], []);

    private readonly RunWriter runs;
    private readonly IRunListener? listener;
    private readonly RunPlace? place;
    private readonly StorageWait storage;
    private readonly TimeProvider time;
    private readonly Channel<RunProgress> pieces = Channel.CreateUnbounded<RunProgress>();
    private readonly TaskCompletionSource<long> started = new();
    private readonly TaskCompletionSource ended = new();
    private readonly Task keeping;
    private RunProgress waiting = Nothing;
    private long slotsKept;

    /// <param name="time">Goes by which seconds; the system's without.</param>
    public RunRecorder(RunWriter runs, StorageWait storage, IRunListener? listener, RunPlace? place, TimeProvider? time = null)
    {
        (this.runs, this.storage, this.listener, this.place) = (runs, storage, listener, place);
        this.time = time ?? TimeProvider.System;
        keeping = Task.Run(KeepAsync);
    }

    public void Started(RunHeader header)
    {
        // The number must be known before any other event; a player reports its start before it plays.
        var id = runs.BeginAsync(header, place).GetAwaiter().GetResult();
        // A first, empty piece: what keeping needs is loaded and compiled now and not in the first second of playing.
        runs.AppendAsync(id, 0, Nothing).GetAwaiter().GetResult();
        started.SetResult(id);
        listener?.Started(id, header);
    }

    public void Progressed(RunProgress progress)
    {
        pieces.Writer.TryWrite(progress);
        listener?.Progressed(started.Task.Result, progress);
    }

    public void Pictured(int frame, byte[] jpeg) => listener?.Pictured(started.Task.Result, frame, jpeg);

    /// <summary>Saves the ended run as a whole. While there is no room it waits in memory.</summary>
    /// <param name="stop">Waits no longer.</param>
    /// <exception cref="RunNotSavedException">There was no room until then; what was saved while it played stays.</exception>
    public async Task<StoredRun> FinishAsync(Run run, CancellationToken stop)
    {
        await EndAsync();
        var id = await started.Task;
        try
        {
            await storage.WriteAsync(() => SaveWholeAsync(id, run), stop);
        }
        catch (Exception failure) when (BenchDatabaseFactory.IsStorageFailure(failure))
        {
            await AbandonAsync();
            throw new RunNotSavedException(
                $"Run {id} was played but could not be saved completely: {failure.GetBaseException().Message} "
                + $"{slotsKept} of its {run.Frames.Count} slots are saved. Make room on the drive that holds the data, then play it again.",
                failure);
        }

        return new StoredRun(id, run) { Place = place };
    }

    private async Task SaveWholeAsync(long id, Run run)
    {
        try
        {
            await runs.FinishAsync(id, run);
        }
        catch (Exception failure) when (BenchDatabaseFactory.IsStorageFailure(failure))
        {
            // A commit can succeed and still be reported as failed: then the run is there, whole.
            if (!await IsKeptWholeAsync(id))
            {
                throw;
            }
        }
    }

    /// <summary>Ends keeping after a failure; what came until then stays.</summary>
    public async Task AbandonAsync()
    {
        await EndAsync();
        if (!started.Task.IsCompletedSuccessfully)
        {
            return;
        }

        try
        {
            await runs.CutShortAsync(started.Task.Result);
        }
        catch (Exception failure) when (BenchDatabaseFactory.IsStorageFailure(failure))
        {
            // Its pieces stay as they are, and are made whole when the program starts again.
        }
    }

    /// <summary>What still waits is kept at once, not when its second is over.</summary>
    private Task EndAsync()
    {
        pieces.Writer.TryComplete();
        ended.TrySetResult();
        return keeping;
    }

    private async Task<bool> IsKeptWholeAsync(long id)
    {
        try
        {
            return await runs.IsWholeAsync(id);
        }
        catch (Exception failure) when (BenchDatabaseFactory.IsStorageFailure(failure))
        {
            return false;
        }
    }

    private async Task KeepAsync()
    {
        var sequence = 1;
        while (await pieces.Reader.WaitToReadAsync())
        {
            await Task.WhenAny(Task.Delay(KeepEvery, time), ended.Task);
            waiting = waiting.Then(TakeAll());
            try
            {
                await runs.AppendAsync(await started.Task, sequence, waiting);
            }
            catch (Exception failure) when (BenchDatabaseFactory.IsStorageFailure(failure))
            {
                continue;
            }

            sequence++;
            slotsKept += waiting.Frames.Count;
            waiting = Nothing;
        }
    }

    private RunProgress TakeAll()
    {
        var all = Nothing;
        while (pieces.Reader.TryRead(out var piece))
        {
            all = all.Then(piece);
        }

        return all;
    }
}

/// <summary>A run could not be kept; the message says how much of it was, and what to do.</summary>
public sealed class RunNotSavedException(string message, Exception cause) : Exception(message, cause);

/// <summary>Hears of kept runs while they play. Calls come from one thread at a time, those with pictures from another.</summary>
public interface IRunListener
{
    void Started(long id, RunHeader header);

    void Progressed(long id, RunProgress progress);

    void Pictured(long id, int frame, byte[] jpeg);
}
