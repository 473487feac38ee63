namespace HardyBench.Store;

/// <summary>A lock on a file that the operating system keeps and releases when its process ends, however that ends. Nobody reads or
/// writes the file's contents.</summary>
public sealed class FileLock : IDisposable
{
    /// <summary>EWOULDBLOCK: somebody else holds the lock.</summary>
    private const int Taken = 11;

    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(50);

    private readonly FileStream held;

    private FileLock(FileStream held) => this.held = held;

    /// <param name="shared">Whether others may hold it too, shared like this one; otherwise this one alone.</param>
    /// <returns>Null when somebody else holds it in a way that excludes this.</returns>
    /// <exception cref="IOException">The file cannot be made or opened.</exception>
    public static FileLock? TryTake(string file, bool shared)
    {
        try
        {
            // The runtime asks the system for a shared lock when a file is opened to be read and others may read it too.
            return new FileLock(shared
                ? new FileStream(file, FileMode.OpenOrCreate, FileAccess.Read, FileShare.Read)
                : new FileStream(file, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None));
        }
        catch (IOException failure) when (failure.HResult == Taken)
        {
            return null;
        }
    }

    /// <summary>Waits until it is free.</summary>
    public static async Task<FileLock> TakeAsync(string file, bool shared, CancellationToken stop)
    {
        while (true)
        {
            if (TryTake(file, shared) is { } held)
            {
                return held;
            }

            await Task.Delay(Between, stop);
        }
    }

    public void Dispose() => held.Dispose();
}
