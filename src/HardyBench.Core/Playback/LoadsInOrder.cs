namespace HardyBench.Core.Playback;

/// <summary>The loads of a run in order of time. A stretch of them is found without looking through all, so that judging takes time in
/// proportion to frames and loads, however many passages there are.</summary>
public sealed class LoadsInOrder(IReadOnlyList<LoadReading> loads)
{
    /// <summary>Nearly always they are in order already. Those of one moment stay in the order in which they were read.</summary>
    private readonly LoadReading[] inOrder = AreInOrder(loads)
        ? loads as LoadReading[] ?? [.. loads]
        : [.. loads.OrderBy(load => load.At)];

    /// <summary>All of them.</summary>
    public IReadOnlyList<LoadReading> All => inOrder;

    /// <summary>The readings of a stretch, both ends included.</summary>
    public IReadOnlyList<LoadReading> Between(TimeSpan from, TimeSpan to)
    {
        var first = CountWhile(load => load.At < from);
        return new ArraySegment<LoadReading>(inOrder, first, Math.Max(first, CountWhile(load => load.At <= to)) - first);
    }

    /// <summary>The readings of each second that has any, in order.</summary>
    public IEnumerable<IReadOnlyList<LoadReading>> BySecond()
    {
        for (var (first, next) = (0, 0); first < inOrder.Length; first = next)
        {
            while (next < inOrder.Length && (long)inOrder[next].At.TotalSeconds == (long)inOrder[first].At.TotalSeconds)
            {
                next++;
            }

            yield return new ArraySegment<LoadReading>(inOrder, first, next - first);
        }
    }

    private static bool AreInOrder(IReadOnlyList<LoadReading> loads)
    {
        for (var place = 1; place < loads.Count; place++)
        {
            if (loads[place].At < loads[place - 1].At)
            {
                return false;
            }
        }

        return true;
    }

    private int CountWhile(Func<LoadReading, bool> holds)
    {
        var (low, high) = (0, inOrder.Length);
        while (low < high)
        {
            var middle = low + (high - low) / 2;
            (low, high) = holds(inOrder[middle]) ? (middle + 1, high) : (low, middle);
        }

        return low;
    }
}
