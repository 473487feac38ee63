using MathNet.Numerics.Distributions;

namespace HardyBench.Core.Findings.Statistics;

/// <summary>Two sides measured in turns, pair by pair, so that drift of the machine hits both alike.</summary>
/// <param name="Difference">Second side − first side, pair by pair.</param>
/// <param name="IsReal">Whether the 95 % interval of the mean difference leaves out zero. Never with one pair.</param>
/// <param name="Chance">The chance of a mean difference as large without any cause, from Student's t, 0 to 1; null with one pair.</param>
/// <param name="PairsToSettle">When it is within noise: how many pairs would likely settle it; null when no number of a
/// reasonable size would, or when it is settled.</param>
public sealed record PairedDifference(Spread Difference, bool IsReal, double? Chance, int? PairsToSettle)
{
    private const int MaxPairs = 200;

    /// <exception cref="ArgumentException">The sides are of different length, or empty.</exception>
    public static PairedDifference Of(IReadOnlyList<double> first, IReadOnlyList<double> second)
    {
        if (first.Count != second.Count)
        {
            throw new ArgumentException("Each value needs its partner.", nameof(second));
        }

        var spread = Spread.Of([.. first.Zip(second, (a, b) => b - a)]);
        var real = spread.Half is { } half && Math.Abs(spread.Mean) > half;
        return new PairedDifference(spread, real, ChanceOf(spread), real || spread.Count < 2 ? null : Needed(spread));
    }

    private static double? ChanceOf(Spread spread) => spread.Count < 2 ? null
        : spread.Deviation == 0 ? spread.Mean == 0 ? 1 : 0
        : 2 * StudentT.CDF(0, 1, spread.Count - 1, -Math.Abs(spread.Mean) / (spread.Deviation / Math.Sqrt(spread.Count)));

    /// <summary>The smallest number of pairs whose interval, with the same mean and deviation, leaves out zero.</summary>
    private static int? Needed(Spread spread)
    {
        for (var pairs = spread.Count + 1; spread.Mean != 0 && pairs <= MaxPairs; pairs++)
        {
            if (Spread.Quantile(pairs - 1) * spread.Deviation / Math.Sqrt(pairs) < Math.Abs(spread.Mean))
            {
                return pairs;
            }
        }

        return null;
    }
}
