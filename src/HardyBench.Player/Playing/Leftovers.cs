namespace HardyBench.Player.Playing;

/// <summary>Work of stopped runs that could not be ended at once, such as a frame in the middle of a long effect. It still loads the
/// machine, so the next run waits until it is over.</summary>
internal static class Leftovers
{
    private static readonly Lock Gate = new();
    private static readonly List<Task> Working = [];

    public static void Add(Task work)
    {
        lock (Gate)
        {
            Working.RemoveAll(one => one.IsCompleted);
            Working.Add(work);
        }
    }

    /// <summary>Waits until nothing of earlier runs is left.</summary>
    public static async Task EndedAsync(CancellationToken stop)
    {
        Task[] working;
        lock (Gate)
        {
            working = [.. Working];
        }

        await Task.WhenAll(working).WaitAsync(stop).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        stop.ThrowIfCancellationRequested();
    }
}
