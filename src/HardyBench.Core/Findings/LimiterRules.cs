using HardyBench.Core.Findings.Limiters;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>Finds the limiter of a passage that misses slots, from its loads, by the rules in their order.</summary>
public static class LimiterRules
{
    /// <summary>The limiter before most misses. Each window is judged by itself: in a mean over all of them a processor that is full before
    /// every miss and rests between can look half idle. "Not clear" is the result only when most windows are not. What else is at its ceiling
    /// in half of the windows or more comes second.</summary>
    /// <param name="windows">As <see cref="MissWindows"/> gives them.</param>
    /// <param name="ofMisses">Whether they lie before misses; else before all frames that were begun.</param>
    /// <param name="whole">Judged where there is no window.</param>
    public static LimiterFinding Find(IReadOnlyList<LoadMeans> windows, bool ofMisses, LoadMeans whole, Conditions conditions)
    {
        if (windows.Count == 0)
        {
            return Find(whole, conditions);
        }

        var judged = windows.Select(window => (Loads: window, All: All(window, conditions))).ToList();
        var byFirst = judged.ToLookup(one => one.All[0].Limiter);
        var named = 2 * byFirst[Limiter.Unknown].Count() > windows.Count
            ? Limiter.Unknown
            : byFirst.Where(one => one.Key != Limiter.Unknown).MaxBy(one => one.Count())?.Key ?? Limiter.Unknown;
        return Named(named, [.. byFirst[named]]) with { Second = named == Limiter.Unknown ? null : SecondTo(named) };

        LimiterFinding Named(Limiter limiter, IReadOnlyList<(LoadMeans Loads, List<LimiterFinding> All)> naming)
        {
            var mean = LoadMeans.Of([.. naming.Select(one => one.Loads)]);
            var finding =
                All(mean, conditions).FirstOrDefault(one => one.Limiter == limiter) ?? naming[0].All.First(one => one.Limiter == limiter);
            return finding with { Before = new ShareOfWindows((double)naming.Count / windows.Count, ofMisses) };
        }

        LimiterFinding? SecondTo(Limiter first) => judged
            .SelectMany(one => one.All.Where(found => !HaveOneCause(found.Limiter, first)).Select(found => (found.Limiter, Window: one)))
            .GroupBy(found => found.Limiter, found => found.Window)
            .Where(group => 2 * group.Count() >= windows.Count)
            .OrderByDescending(group => group.Count()).ThenBy(group => group.Key)
            .Select(group => Named(group.Key, [.. group]))
            .FirstOrDefault();
    }

    /// <summary>The first rule that fits, and the next one about something else.</summary>
    /// <param name="conditions">Which cores the player could use, on which drives the footage lay and what each reading was of.</param>
    public static LimiterFinding Find(LoadMeans loads, Conditions conditions)
    {
        var all = All(loads, conditions);
        return all[0] with { Second = all.FirstOrDefault(one => !HaveOneCause(one.Limiter, all[0].Limiter)) };
    }

    /// <summary>All that is at its ceiling, in the order of the rules; at least one, which is "not clear" where nothing is.</summary>
    private static List<LimiterFinding> All(LoadMeans loads, Conditions conditions)
    {
        var all = LimiterRule.InOrder.Select(rule => rule.Find(loads, conditions)).OfType<LimiterFinding>().ToList();
        return all.Count > 0 ? all : [LimiterRule.Otherwise.Select(rule => rule.Find(loads, conditions)).OfType<LimiterFinding>().First()];
    }

    /// <summary>A processor that is full is one matter, whatever fills it and whatever keeps it down: the second would be the first once
    /// more.</summary>
    private static bool HaveOneCause(Limiter one, Limiter other) => one == other
        || (LimiterRule.AdviceOf(one).IsOfProcessor && LimiterRule.AdviceOf(other).IsOfProcessor);
}
