namespace HardyBench.Player.Playing;

/// <summary>Work of stopped runs that could not be ended at once, such as a frame in the middle of a long effect. It still loads the
/// machine, so the next run waits until it is over.</summary>
internal static class Leftovers
{
    private static readonly Lock Gate = new();
    private static readonly List<Task> Working = [];

    /// <summary>Work that was waited for long enough: a decoding library can stand still for good over a broken file, and no later run shall
    /// wait for it for ever.</summary>
    private static readonly List<Task> GivenUp = [];

    /// <summary>Longer than any reading of a file may take before it is broken off.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(35);

    /// <summary>What a run says that had to begin beside work of an earlier one.</summary>
    public const string Words = "work of an earlier run stands still or has not ended; it may load this machine beside this run";

    public static void Add(Task work)
    {
        lock (Gate)
        {
            Working.RemoveAll(one => one.IsCompleted);
            Working.Add(work);
        }
    }

    /// <summary>Waits until nothing of earlier runs is left, or for as long as such work is waited for, once.</summary>
    /// <returns>Whether nothing is left.</returns>
    public static async Task<bool> EndedAsync(CancellationToken stop, TimeSpan? longest = null)
    {
        Task[] working;
        lock (Gate)
        {
            working = [.. Working];
        }

        await Task.WhenAll(working).WaitAsync(longest ?? Longest, stop).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        stop.ThrowIfCancellationRequested();
        lock (Gate)
        {
            GivenUp.AddRange(working.Where(one => !one.IsCompleted));
            Working.RemoveAll(GivenUp.Contains);
            GivenUp.RemoveAll(one => one.IsCompleted);
            return GivenUp.Count == 0;
        }
    }
}
