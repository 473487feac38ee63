namespace HardyBench.Player.Playing;

/// <summary>Work of stopped runs that could not be ended at once, such as a frame in the middle of a long effect. It still loads the
/// machine, so the next run waits until it is over.</summary>
public sealed class Leftovers
{
    private readonly Lock gate = new();
    private readonly List<Task> working = [];

    /// <summary>Work that was waited for long enough: a decoding library can stand still for good over a broken file, and no later run
    /// shall wait for it for ever.</summary>
    private readonly List<Task> givenUp = [];

    /// <summary>Longer than any reading of a file may take before it is broken off.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(35);

    /// <summary>Those of this program's runs.</summary>
    public static readonly Leftovers OfProgram = new();

    /// <summary>What a run says that had to begin beside work of an earlier one.</summary>
    public const string Words = "work of an earlier run hangs or has not ended; it may load this machine during this run";

    public void Add(Task work)
    {
        lock (gate)
        {
            working.RemoveAll(one => one.IsCompleted);
            working.Add(work);
        }
    }

    /// <summary>Waits until nothing of earlier runs is left, or for as long as such work is waited for, once.</summary>
    /// <returns>Whether nothing is left.</returns>
    public async Task<bool> EndedAsync(CancellationToken stop, TimeSpan? longest = null)
    {
        Task[] waitedFor;
        lock (gate)
        {
            waitedFor = [.. working];
        }

        await Task.WhenAll(waitedFor).WaitAsync(longest ?? Longest, stop).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        stop.ThrowIfCancellationRequested();
        lock (gate)
        {
            givenUp.AddRange(waitedFor.Where(one => !one.IsCompleted));
            working.RemoveAll(givenUp.Contains);
            givenUp.RemoveAll(one => one.IsCompleted);
            return givenUp.Count == 0;
        }
    }
}
