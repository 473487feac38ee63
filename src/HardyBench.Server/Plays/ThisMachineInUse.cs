namespace HardyBench.Server.Plays;

/// <summary>What loads this machine takes turns: plays on it, the making of clips, the rendering of passages. Side by side they
/// would spoil what is measured.</summary>
public sealed class ThisMachineInUse : IDisposable
{
    private readonly SemaphoreSlim turn = new(1);
    private volatile bool isOver;

    /// <summary>The turn was given back.</summary>
    public event Action? Freed;

    /// <summary>Whether somebody has the turn.</summary>
    public bool IsTaken => turn.CurrentCount == 0;

    /// <summary>Whether what has the turn is measured; the making of clips, say, only takes a little longer beside other work.</summary>
    public bool IsMeasured { get; private set; }

    /// <param name="isMeasured">Whether nothing else may load this machine meanwhile.</param>
    /// <returns>The turn, to be given back by disposing it; null when somebody else has it.</returns>
    public IDisposable? TryTake(bool isMeasured = false)
    {
        if (!turn.Wait(TimeSpan.Zero))
        {
            return null;
        }

        IsMeasured = isMeasured;
        return new Turn(this);
    }

    /// <summary>Waits for the turn.</summary>
    /// <param name="isMeasured">As for <see cref="TryTake"/>.</param>
    /// <exception cref="OperationCanceledException">Somebody stopped waiting.</exception>
    public async Task<IDisposable> TakeAsync(CancellationToken stop, bool isMeasured = false)
    {
        await turn.WaitAsync(stop);
        IsMeasured = isMeasured;
        return new Turn(this);
    }

    public void Dispose()
    {
        isOver = true;
        turn.Dispose();
    }

    private void GiveBack()
    {
        IsMeasured = false;
        // What ends after the server has ended gives back to nobody.
        if (!isOver)
        {
            turn.Release();
            Freed?.Invoke();
        }
    }

    private sealed class Turn(ThisMachineInUse owner) : IDisposable
    {
        private int given;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref given, 1) == 0)
            {
                owner.GiveBack();
            }
        }
    }
}
