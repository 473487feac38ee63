using HardyBench.Store;

namespace HardyBench.Workbench.Data;

/// <summary>Writes that wait, and try again, while the drive with the data is full or does not answer. What is to be written stays in
/// memory meanwhile.</summary>
public sealed class StorageWait(TimeProvider time)
{
    private static readonly TimeSpan Between = TimeSpan.FromSeconds(1);

    private int waiting;

    /// <summary>Why writes wait just now, a sentence; null when none does.</summary>
    public string? Problem { get; private set; }

    /// <summary>Writes began to wait, or ended waiting.</summary>
    public event Action? Changed;

    /// <param name="stop">Gives up; the drive's last failure is thrown then.</param>
    public async Task<T> WriteAsync<T>(Func<Task<T>> write, CancellationToken stop)
    {
        var isWaiting = false;
        try
        {
            while (true)
            {
                try
                {
                    return await write();
                }
                catch (Exception failure) when (BenchDatabaseFactory.IsDriveFailure(failure) && !stop.IsCancellationRequested)
                {
                    if (!isWaiting)
                    {
                        (isWaiting, Problem) = (true, $"The drive with the data cannot be written: {failure.GetBaseException().Message} "
                            + "Nothing is lost: unsaved data waits in memory. Free some space; saving then continues automatically.");
                        Interlocked.Increment(ref waiting);
                        Changed?.Invoke();
                    }

                    // Somebody who gives up gets the drive's failure with the next try.
                    await Task.Delay(Between, time, stop).ContinueWith(_ => { }, TaskScheduler.Default);
                }
            }
        }
        finally
        {
            if (isWaiting && Interlocked.Decrement(ref waiting) == 0)
            {
                Problem = null;
                Changed?.Invoke();
            }
        }
    }

    /// <inheritdoc cref="WriteAsync{T}"/>
    public Task WriteAsync(Func<Task> write, CancellationToken stop) => WriteAsync(
        async () =>
        {
            await write();
            return true;
        },
        stop);
}
