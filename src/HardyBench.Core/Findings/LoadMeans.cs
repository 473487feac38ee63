using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>Mean loads over a stretch of a run.</summary>
public sealed class LoadMeans
{
    private readonly Dictionary<(LoadKind Kind, int Index), double> means;

    private LoadMeans(Dictionary<(LoadKind Kind, int Index), double> means, TimeSpan from, TimeSpan to) =>
        (this.means, From, To) = (means, from, to);

    public TimeSpan From { get; }

    public TimeSpan To { get; }

    /// <summary>Means over a stretch of time.</summary>
    public static LoadMeans Over(IEnumerable<LoadReading> loads, TimeSpan from, TimeSpan to)
    {
        var (sums, threadMoments) = (new Dictionary<(LoadKind Kind, int Index), (double Sum, int Count)>(), new HashSet<TimeSpan>());
        foreach (var load in loads)
        {
            if (load.At <= from || load.At > to || load.Kind == LoadKind.WastedWork)
            {
                continue;
            }

            if (load.Kind == LoadKind.OwnThread)
            {
                threadMoments.Add(load.At);
            }

            var (sum, count) = sums.GetValueOrDefault((load.Kind, load.Index));
            sums[(load.Kind, load.Index)] = (sum + load.Value, count + 1);
        }

        // Threads are reported only while they are busy, so one without a reading did next to nothing then; every other load that has no
        // reading could not be read.
        return new(
            sums.ToDictionary(
                entry => entry.Key,
                entry => entry.Value.Sum / (entry.Key.Kind == LoadKind.OwnThread ? threadMoments.Count : entry.Value.Count)),
            from, to);
    }

    /// <summary>What has no reading here is taken from means over a longer stretch.</summary>
    public LoadMeans FilledFrom(LoadMeans longer) =>
        new(means.Concat(longer.means.Where(entry => !means.ContainsKey(entry.Key))).ToDictionary(), From, To);

    /// <summary>The mean of several, which all have the same loads; from the first of them to the last.</summary>
    public static LoadMeans Of(IReadOnlyList<LoadMeans> all) => new(
        all[0].means.Keys.ToDictionary(key => key, key => all.Average(one => one.means.GetValueOrDefault(key))),
        all.Min(one => one.From), all.Max(one => one.To));

    /// <summary>The mean of a load, or null where it could not be read.</summary>
    public double? Of(LoadKind kind, int index = 0) => means.TryGetValue((kind, index), out var mean) ? mean : null;

    /// <summary>The highest mean among all indexes of a kind, or null where none could be read.</summary>
    /// <param name="counts">Which indexes count; all without.</param>
    public (int Index, double Value)? HighestOf(LoadKind kind, Func<int, bool>? counts = null) =>
        means.Where(entry => entry.Key.Kind == kind && counts?.Invoke(entry.Key.Index) != false)
            .OrderByDescending(entry => entry.Value)
            .Select(entry => ((int, double)?)(entry.Key.Index, entry.Value))
            .FirstOrDefault();

    /// <summary>Every index of a kind with its mean, in order.</summary>
    public IEnumerable<(int Index, double Value)> AllOf(LoadKind kind) =>
        means.Where(entry => entry.Key.Kind == kind).OrderBy(entry => entry.Key.Index).Select(entry => (entry.Key.Index, entry.Value));

    /// <summary>Means of the cores that a player may use, by core.</summary>
    public IReadOnlyList<double> Cores(IReadOnlyList<int> usable) =>
        [.. means.Where(entry => entry.Key.Kind == LoadKind.Core && usable.Contains(entry.Key.Index))
            .OrderBy(entry => entry.Key.Index)
            .Select(entry => entry.Value)];
}
