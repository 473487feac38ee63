using MathNet.Numerics.Distributions;

namespace HardyBench.Core.Findings.Statistics;

/// <summary>Two sides measured apart, each several times or once (Welch, The generalization of "Student's" problem when several different
/// population variances are involved, Biometrika 34, 1947).</summary>
/// <param name="Mean">Second side − first side.</param>
/// <param name="Half">Half the width of its 95 % interval; null where a side was measured once.</param>
/// <param name="Chance">The chance of a difference as large without any cause, 0 to 1; null where a side was measured once.</param>
public sealed record WelchDifference(double Mean, double? Half, double? Chance)
{
    private const double Confidence = 0.975;

    /// <exception cref="ArgumentException">A side has no value.</exception>
    public static WelchDifference Of(IReadOnlyList<double> first, IReadOnlyList<double> second)
    {
        var (one, other) = (Spread.Of(first), Spread.Of(second));
        var mean = other.Mean - one.Mean;
        if (one.Count < 2 || other.Count < 2)
        {
            return new WelchDifference(mean, null, null);
        }

        var (a, b) = (one.Deviation * one.Deviation / one.Count, other.Deviation * other.Deviation / other.Count);
        if (a + b == 0)
        {
            return new WelchDifference(mean, 0, mean == 0 ? 1 : 0);
        }

        var error = Math.Sqrt(a + b);
        var freedom = (a + b) * (a + b) / (a * a / (one.Count - 1) + b * b / (other.Count - 1));
        return new WelchDifference(
            mean, StudentT.InvCDF(0, 1, freedom, Confidence) * error, 2 * StudentT.CDF(0, 1, freedom, -Math.Abs(mean) / error));
    }
}
