namespace HardyBench.Core.Findings.Statistics;

/// <summary>Judges many comparisons at once so that the chance of calling even one of them real by accident stays as small as for a single
/// one (Holm, A simple sequentially rejective multiple test procedure, Scandinavian Journal of Statistics 6, 1979).</summary>
public static class HolmCorrection
{
    /// <param name="chances">Of each comparison: the chance of a difference as large without any cause, 0 to 1.</param>
    /// <param name="most">The chance allowed for all together.</param>
    /// <returns>Places of those that are real.</returns>
    public static IReadOnlyList<int> Rejected(IReadOnlyList<double> chances, double most)
    {
        var ascending = chances.Index().OrderBy(chance => chance.Item).Select(chance => chance.Index).ToList();
        return [.. ascending.TakeWhile((place, rank) => chances[place] <= most / (chances.Count - rank)).Order()];
    }
}
