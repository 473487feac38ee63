using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using static HardyBench.Core.Pacing.TimeSpans;

namespace HardyBench.Core.Findings;

/// <summary>The loads just before each miss, when the work was done that came too late.</summary>
public static class MissWindows
{
    /// <summary>How far before a miss its window begins: a few frames' work.</summary>
    private static readonly TimeSpan Reach = TimeSpan.FromMilliseconds(300);

    /// <summary>Misses closer together than this share a window.</summary>
    private static readonly TimeSpan Step = TimeSpan.FromMilliseconds(100);

    /// <summary>The most windows that are judged; of more, so many are taken evenly.</summary>
    private const int Most = 200;

    /// <summary>The means of each window. A load that was not read within a window, and threads, which are read once a second, count with
    /// their mean over the whole stretch.</summary>
    /// <param name="moments">By when work was wanted and not there.</param>
    /// <param name="loads">In order of time.</param>
    /// <param name="whole">Means over the whole stretch; readings outside it do not count.</param>
    public static IReadOnlyList<LoadMeans> Of(IEnumerable<TimeSpan> moments, IReadOnlyList<LoadReading> loads, LoadMeans whole)
    {
        var ends = moments.Select(moment => (long)(moment / Step)).Distinct().Order().Select(step => (step + 1) * Step).ToList();
        var every = Math.Max(1, (ends.Count + Most - 1) / Most);
        var windows = new List<LoadMeans>();
        var first = 0;
        foreach (var end in ends.Where((_, place) => place % every == 0))
        {
            while (first < loads.Count && loads[first].At <= end - Reach)
            {
                first++;
            }

            var within = loads.Skip(first).TakeWhile(load => load.At <= end)
                .Where(load => load.Kind != LoadKind.OwnThread && load.At > whole.From && load.At <= whole.To).ToList();
            if (within.Count > 0)
            {
                windows.Add(LoadMeans.Over(within, Longer(end - Reach, whole.From), Shorter(end, whole.To)).FilledFrom(whole));
            }
        }

        return windows;
    }
}
