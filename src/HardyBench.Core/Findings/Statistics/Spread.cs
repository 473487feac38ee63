using MathNet.Numerics.Distributions;
using MathNet.Numerics.Statistics;

namespace HardyBench.Core.Findings.Statistics;

/// <summary>Repeated measurements of one thing.</summary>
/// <param name="Deviation">Standard deviation, n − 1; 0 with one value.</param>
/// <param name="Half">Half the width of the 95 % interval of the mean, from Student's t; null with one value.</param>
/// <param name="Outliers">Places, from 0, of values further from the quartiles than 1.5 times the distance between
/// them (Tukey 1977). They are named and not left out. Never any with fewer than four values.</param>
public sealed record Spread(int Count, double Mean, double Median, double Deviation, double? Half, IReadOnlyList<int> Outliers)
{
    private const double Confidence = 0.975, Fences = 1.5;
    private const int MinForOutliers = 4;

    /// <summary>Coefficient of variation: deviation ÷ mean; null for a mean of 0.</summary>
    public double? Variation => Mean == 0 ? null : Deviation / Math.Abs(Mean);

    /// <exception cref="ArgumentException">There is no value.</exception>
    public static Spread Of(IReadOnlyList<double> values)
    {
        if (values.Count == 0)
        {
            throw new ArgumentException("A spread needs a value.", nameof(values));
        }

        var deviation = values.Count > 1 ? values.StandardDeviation() : 0;
        return new Spread(
            values.Count, values.Mean(), values.Median(), deviation,
            values.Count > 1 ? Quantile(values.Count - 1) * deviation / Math.Sqrt(values.Count) : null,
            OutliersOf(values));
    }

    /// <summary>The 0.975 quantile of Student's t.</summary>
    public static double Quantile(int degreesOfFreedom) => StudentT.InvCDF(0, 1, degreesOfFreedom, Confidence);

    private static List<int> OutliersOf(IReadOnlyList<double> values)
    {
        if (values.Count < MinForOutliers)
        {
            return [];
        }

        var (lower, upper) = (values.LowerQuartile(), values.UpperQuartile());
        var reach = Fences * (upper - lower);
        return [.. values.Index().Where(value => value.Item < lower - reach || value.Item > upper + reach).Select(value => value.Index)];
    }
}
