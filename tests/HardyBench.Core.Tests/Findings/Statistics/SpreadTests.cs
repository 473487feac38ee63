using HardyBench.Core.Findings.Statistics;

namespace HardyBench.Core.Tests.Findings.Statistics;

/// <summary>Repeated measurements beside certified values. Data and values from memory of the sets NumAcc1 to NumAcc4 of the
/// Statistical Reference Datasets (NIST, univariate summary statistics); their means and deviations can be reckoned by hand.</summary>
public sealed class SpreadTests
{
    public static TheoryData<double, double, double, int> Certified => new()
    {
        { 10_000_002, 1, 1, 1 },
        { 1.2, 0.1, 0.1, 500 },
        { 1_000_000.2, 0.1, 0.1, 500 },
        { 10_000_000.2, 0.1, 0.1, 500 },
    };

    [Theory]
    [MemberData(nameof(Certified))]
    public void Mean_and_deviation_of_ill_conditioned_data_are_the_certified_ones(double mean, double step, double deviation, int pairs)
    {
        var spread = Spread.Of([mean, .. Enumerable.Range(0, pairs).SelectMany(_ => new[] { mean - step, mean + step })]);

        Assert.Equal(mean, spread.Mean, mean * 1e-12);
        Assert.Equal(deviation, spread.Deviation, 1e-8);
        Assert.Equal(mean, spread.Median);
    }

    /// <summary>Critical values of Student's t, two-sided 95 %: NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.2.</summary>
    [Theory]
    [InlineData(1, 12.706)]
    [InlineData(2, 4.303)]
    [InlineData(4, 2.776)]
    [InlineData(9, 2.262)]
    [InlineData(29, 2.045)]
    [InlineData(100, 1.984)]
    public void Student_s_quantiles_are_those_of_the_table(int degreesOfFreedom, double critical) =>
        Assert.Equal(critical, Spread.Quantile(degreesOfFreedom), 3);

    [Fact]
    public void The_interval_of_three_runs_is_that_reckoned_by_hand()
    {
        var spread = Spread.Of([24, 25, 23]);

        Assert.Equal((24, 1, 24), (spread.Mean, spread.Deviation, spread.Median));
        Assert.Equal(4.303 / Math.Sqrt(3), spread.Half!.Value, 3);
        Assert.Equal(1 / 24.0, spread.Variation!.Value, 12);
    }

    [Fact]
    public void A_value_beyond_the_fences_is_named_and_not_left_out()
    {
        var spread = Spread.Of([25, 24.9, 25, 24.8, 25.1, 11]);

        Assert.Equal([5], spread.Outliers);
        Assert.Equal(135.8 / 6, spread.Mean, 9);
        Assert.Empty(Spread.Of([25, 25, 1]).Outliers);
    }

    [Fact]
    public void One_value_has_no_interval_and_none_is_refused()
    {
        Assert.Null(Spread.Of([7]).Half);
        Assert.Throws<ArgumentException>(() => Spread.Of([]));
    }

    [Fact]
    public void A_difference_is_real_when_its_interval_leaves_out_zero()
    {
        var real = PairedDifference.Of([20, 21, 19, 20], [22, 23.2, 21.1, 21.9]);
        var noise = PairedDifference.Of([20, 21, 19, 20], [20.5, 20.4, 19.9, 20]);

        Assert.True(real.IsReal);
        Assert.Null(real.PairsToSettle);
        Assert.False(noise.IsReal);
        Assert.Null(PairedDifference.Of([1], [2]).PairsToSettle);
        Assert.Throws<ArgumentException>(() => PairedDifference.Of([1, 2], [1]));
    }

    [Fact]
    public void The_number_of_pairs_named_is_the_smallest_that_would_settle_it()
    {
        var noise = PairedDifference.Of([0, 0, 0, 0], [0.5, -0.6, 0.9, 0]);
        var pairs = noise.PairsToSettle!.Value;

        Assert.True(Half(pairs) < noise.Difference.Mean);
        Assert.True(Half(pairs - 1) >= noise.Difference.Mean);

        double Half(int n) => Spread.Quantile(n - 1) * noise.Difference.Deviation / Math.Sqrt(n);
    }
}
