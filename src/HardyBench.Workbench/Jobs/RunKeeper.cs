using System.Threading.Channels;
using HardyBench.Core.Playback;
using HardyBench.Store;

namespace HardyBench.Workbench.Jobs;

/// <summary>Keeps a run while it plays, once a second and off the player's threads, and passes everything on.</summary>
internal sealed class RunKeeper : IRunObserver
{
    private static readonly TimeSpan KeepEvery = TimeSpan.FromSeconds(1);

    private readonly RunStore runs;
    private readonly IRunListener? listener;
    private readonly RunPlace? place;
    private readonly Channel<RunProgress> pieces = Channel.CreateUnbounded<RunProgress>();
    private readonly TaskCompletionSource<long> started = new();
    private readonly Task keeping;

    public RunKeeper(RunStore runs, IRunListener? listener, RunPlace? place)
    {
        (this.runs, this.listener, this.place) = (runs, listener, place);
        keeping = Task.Run(KeepAsync);
    }

    public void Started(RunHeader header)
    {
        // The number must be known before anything else is told; a player tells of its start before it plays.
        var id = runs.BeginAsync(header, place).GetAwaiter().GetResult();
        // A first, empty piece: what keeping needs is loaded and compiled now and not in the first second of playing.
        runs.AppendAsync(id, 0, new RunProgress([], [], [])).GetAwaiter().GetResult();
        started.SetResult(id);
        listener?.Started(id, header);
    }

    public void Progressed(RunProgress progress)
    {
        pieces.Writer.TryWrite(progress);
        listener?.Progressed(started.Task.Result, progress);
    }

    public void Pictured(int frame, byte[] jpeg) => listener?.Pictured(started.Task.Result, frame, jpeg);

    /// <summary>Keeps the ended run as a whole.</summary>
    public async Task<StoredRun> FinishAsync(Run run)
    {
        pieces.Writer.TryComplete();
        await keeping;
        var id = await started.Task;
        await runs.FinishAsync(id, run);
        return new StoredRun(id, run) { Place = place };
    }

    /// <summary>Ends keeping after a failure; what came until then stays.</summary>
    public async Task AbandonAsync()
    {
        pieces.Writer.TryComplete();
        await keeping;
        if (started.Task.IsCompletedSuccessfully)
        {
            await runs.CutShortAsync(started.Task.Result);
        }
    }

    private async Task KeepAsync()
    {
        var sequence = 1;
        while (await pieces.Reader.WaitToReadAsync())
        {
            await Task.WhenAny(Task.Delay(KeepEvery), pieces.Reader.Completion);
            await runs.AppendAsync(await started.Task, sequence++, TakeAll());
        }
    }

    private RunProgress TakeAll()
    {
        var all = new RunProgress([], [], []);
        while (pieces.Reader.TryRead(out var piece))
        {
            all = all.Then(piece);
        }

        return all;
    }
}

/// <summary>Hears of kept runs while they play. Calls come from one thread at a time.</summary>
public interface IRunListener
{
    void Started(long id, RunHeader header);

    void Progressed(long id, RunProgress progress);

    void Pictured(long id, int frame, byte[] jpeg);
}
