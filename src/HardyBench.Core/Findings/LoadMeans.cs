using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>Mean loads over a stretch of a run.</summary>
public sealed class LoadMeans
{
    private readonly Dictionary<(LoadKind Kind, short Index), double> means;

    private LoadMeans(Dictionary<(LoadKind Kind, short Index), double> means, TimeSpan from, TimeSpan to) =>
        (this.means, From, To) = (means, from, to);

    public TimeSpan From { get; }

    public TimeSpan To { get; }

    public static LoadMeans Over(IEnumerable<LoadReading> loads, TimeSpan from, TimeSpan to) => new(
        loads.Where(load => load.At > from && load.At <= to)
            .GroupBy(load => (load.Kind, load.Index))
            .ToDictionary(group => group.Key, group => group.Average(load => (double)load.Value)),
        from,
        to);

    /// <summary>The mean of a load, or null where it could not be read.</summary>
    public double? Of(LoadKind kind, short index = 0) => means.TryGetValue((kind, index), out var mean) ? mean : null;

    /// <summary>The highest mean among all indexes of a kind, or null where none could be read.</summary>
    public (short Index, double Value)? HighestOf(LoadKind kind) =>
        means.Where(entry => entry.Key.Kind == kind)
            .OrderByDescending(entry => entry.Value)
            .Select(entry => ((short, double)?)(entry.Key.Index, entry.Value))
            .FirstOrDefault();

    /// <summary>Means of the cores that a player may use, by core.</summary>
    public IReadOnlyList<double> Cores(IReadOnlyList<int> usable) =>
        [.. means.Where(entry => entry.Key.Kind == LoadKind.Core && usable.Contains(entry.Key.Index))
            .OrderBy(entry => entry.Key.Index)
            .Select(entry => entry.Value)];
}
