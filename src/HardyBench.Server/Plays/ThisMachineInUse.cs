namespace HardyBench.Server.Plays;

/// <summary>What loads this machine takes turns: plays on it, the making of clips, the rendering of passages. Side by side they
/// would spoil what is measured.</summary>
public sealed class ThisMachineInUse : IDisposable
{
    private readonly SemaphoreSlim turn = new(1);

    /// <summary>Whether somebody has the turn.</summary>
    public bool IsTaken => turn.CurrentCount == 0;

    /// <returns>The turn, to be given back by disposing it; null when somebody else has it.</returns>
    public IDisposable? TryTake() => turn.Wait(TimeSpan.Zero) ? new Turn(turn) : null;

    /// <summary>Waits for the turn.</summary>
    /// <exception cref="OperationCanceledException">Somebody stopped waiting.</exception>
    public async Task<IDisposable> TakeAsync(CancellationToken stop)
    {
        await turn.WaitAsync(stop);
        return new Turn(turn);
    }

    public void Dispose() => turn.Dispose();

    private sealed class Turn(SemaphoreSlim turn) : IDisposable
    {
        private int given;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref given, 1) == 0)
            {
                turn.Release();
            }
        }
    }
}
