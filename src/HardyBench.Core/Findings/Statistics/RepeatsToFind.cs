using MathNet.Numerics.Distributions;

namespace HardyBench.Core.Findings.Statistics;

/// <summary>How often each of two sides has to be measured to find a difference of a given size.</summary>
public static class RepeatsToFind
{
    /// <summary>The chance that a difference of that size is found.</summary>
    public const double Chance = 0.8;

    /// <summary>The share of the first side's mean that a difference is asked for.</summary>
    public const double Share = 0.05;

    private const int Most = 200;

    /// <summary>Repeats a side by which a difference of <see cref="Share"/> is found, going by how far apart these lie. A few values tell
    /// little of how far, so their deviation is taken at the upper end of what it may be, with a chance of four in five (Browne, On the use
    /// of a pilot sample for sample size determination, Statistics in Medicine 14, 1995; from memory).</summary>
    /// <param name="mistake">The chance allowed for calling a difference real that is none, 0 to 1.</param>
    /// <returns>Null where a side was measured once, where nothing varies, and where more than 200 would be needed.</returns>
    public static int? Of(IReadOnlyList<double> first, IReadOnlyList<double> second, double mistake)
    {
        var (one, other) = (Spread.Of(first), Spread.Of(second));
        var freedom = one.Count + other.Count - 2;
        if (one.Count < 2 || other.Count < 2 || one.Mean == 0)
        {
            return null;
        }

        var variance = ((one.Count - 1) * one.Deviation * one.Deviation + (other.Count - 1) * other.Deviation * other.Deviation) / freedom;
        var atMost = Math.Sqrt(variance * freedom / ChiSquared.InvCDF(freedom, 1 - Chance));
        return atMost == 0 ? null : Of(Share * Math.Abs(one.Mean) / atMost, mistake);
    }

    /// <summary>Repeats a side by which a difference of so many standard deviations is found: the smallest number whose power is
    /// <see cref="Chance"/> at least. Power by the normal approximation to the noncentral t distribution (Abramowitz and Stegun, Handbook
    /// of Mathematical Functions, 26.7.10).</summary>
    /// <param name="deviations">The difference in standard deviations of one side, above 0.</param>
    public static int? Of(double deviations, double mistake)
    {
        for (var repeats = 2; repeats <= Most; repeats++)
        {
            var freedom = 2 * (repeats - 1);
            var critical = StudentT.InvCDF(0, 1, freedom, 1 - mistake / 2);
            var apart = deviations * Math.Sqrt(repeats / 2.0);
            var missed = Normal.CDF(
                0, 1, (critical * (1 - 1 / (4.0 * freedom)) - apart) / Math.Sqrt(1 + critical * critical / (2.0 * freedom)));
            if (1 - missed >= Chance)
            {
                return repeats;
            }
        }

        return null;
    }
}
