using HardyBench.Core;
using HardyBench.Core.Wording;

namespace HardyBench.Server.Plays;

/// <summary>What loads this machine takes turns: plays on it, the making of clips, the rendering of passages. Computing answers and
/// simulating stand-ins may go on beside such work, but never beside something that is measured: either would change the other.</summary>
public sealed class ThisMachineInUse : IDisposable
{
    private readonly Lock gate = new();
    private readonly List<Waiting> waiting = [];
    private (string What, bool IsMeasured, Func<double?>? SecondsLeft)? holder;
    private int computing;
    private bool isOver;

    /// <summary>Something ended, so that what waits may begin.</summary>
    public event Action? Freed;

    /// <summary>What has the turn and for how long yet, as in "clips are being created, about 40 s left"; null when nothing has.</summary>
    public string? BusyWith
    {
        get
        {
            lock (gate)
            {
                return Holder();
            }
        }
    }

    /// <summary>Why something that is measured could not begin just now; null when it could.</summary>
    public string? WhyNotMeasure
    {
        get
        {
            lock (gate)
            {
                return Holder() ?? (computing > 0 ? "an answer is being computed" : null);
            }
        }
    }

    /// <summary>Whether somebody has the turn.</summary>
    public bool IsTaken => BusyWith is not null;

    /// <summary>Whether what has the turn is measured; the making of clips, say, only takes a little longer beside other work.</summary>
    public bool IsMeasured
    {
        get
        {
            lock (gate)
            {
                return holder is { IsMeasured: true };
            }
        }
    }

    /// <param name="what">What it is for, as people read it: "clips are being created".</param>
    /// <param name="isMeasured">Whether nothing else may load this machine meanwhile.</param>
    /// <returns>The turn, to be given back by disposing it; null when something else is in its way.</returns>
    /// <param name="secondsLeft">How long it takes yet, where that is known; null for never.</param>
    public IDisposable? TryTake(string what, bool isMeasured = false, Func<double?>? secondsLeft = null)
    {
        lock (gate)
        {
            return CanTake(isMeasured) ? Take(what, isMeasured, secondsLeft) : null;
        }
    }

    /// <summary>Waits for the turn.</summary>
    /// <param name="what">As for <see cref="TryTake"/>, like the next.</param>
    /// <exception cref="OperationCanceledException">Somebody stopped waiting.</exception>
    public async Task<IDisposable> TakeAsync(
        string what, CancellationToken stop, bool isMeasured = false, Func<double?>? secondsLeft = null)
    {
        stop.ThrowIfCancellationRequested();
        var one = new Waiting(
            what, isMeasured, secondsLeft, new TaskCompletionSource<IDisposable>(TaskCreationOptions.RunContinuationsAsynchronously));
        lock (gate)
        {
            if (CanTake(isMeasured))
            {
                return Take(what, isMeasured, secondsLeft);
            }

            waiting.Add(one);
        }

        await using var stopped = stop.Register(() =>
        {
            lock (gate)
            {
                if (waiting.Remove(one))
                {
                    one.Turn.SetCanceled(stop);
                }
            }
        });
        return await one.Turn.Task;
    }

    /// <summary>Begins to compute an answer or to simulate, unless something is measured.</summary>
    /// <returns>To be disposed when it has ended; null while something is measured.</returns>
    public IDisposable? TryCompute()
    {
        lock (gate)
        {
            if (holder is { IsMeasured: true })
            {
                return null;
            }

            computing++;
            return new Turn(() => computing--, this);
        }
    }

    public void Dispose()
    {
        lock (gate)
        {
            isOver = true;
        }
    }

    private string? Holder() => holder is not var (what, _, left) ? null
        : left?.Invoke() is { } seconds ? $"{what}, about {Figures.Length(TimeSpan.FromSeconds(seconds))} left"
        : what;

    private bool CanTake(bool isMeasured) => holder is null && !(isMeasured && computing > 0);

    private Turn Take(string what, bool isMeasured, Func<double?>? secondsLeft)
    {
        holder = (what, isMeasured, secondsLeft);
        return new Turn(() => holder = null, this);
    }

    private void End(Action end)
    {
        lock (gate)
        {
            end();
            var next = isOver ? null : waiting.Find(one => CanTake(one.IsMeasured));
            if (next is not null)
            {
                waiting.Remove(next);
                next.Turn.SetResult(Take(next.What, next.IsMeasured, next.SecondsLeft));
            }
        }

        // What ends after the server has ended is nobody's concern.
        if (!isOver)
        {
            Freed?.Invoke();
        }
    }

    private sealed record Waiting(string What, bool IsMeasured, Func<double?>? SecondsLeft, TaskCompletionSource<IDisposable> Turn);

    private sealed class Turn(Action end, ThisMachineInUse owner) : IDisposable
    {
        private int given;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref given, 1) == 0)
            {
                owner.End(end);
            }
        }
    }
}
