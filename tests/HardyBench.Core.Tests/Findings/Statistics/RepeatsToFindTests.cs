using HardyBench.Core.Findings.Statistics;
using MathNet.Numerics.Distributions;

namespace HardyBench.Core.Tests.Findings.Statistics;

public sealed class RepeatsToFindTests
{
    /// <summary>Cohen, A power primer, Psychological Bulletin 112, 1992, table 2: two means, alpha 0.05 and 0.01, power 0.80, a large and a
    /// medium difference. And Cohen, Statistical Power Analysis, 1988, table 2.4.1, for 1.0 and 1.4 deviations. From memory.</summary>
    [Theory]
    [InlineData(0.8, 0.05, 26)]
    [InlineData(0.5, 0.05, 64)]
    [InlineData(0.8, 0.01, 38)]
    [InlineData(0.5, 0.01, 95)]
    [InlineData(1.0, 0.05, 17)]
    [InlineData(1.4, 0.05, 9)]
    public void The_number_is_that_of_the_tables(double deviations, double mistake, int repeats) =>
        Assert.InRange(RepeatsToFind.Of(deviations, mistake)!.Value, repeats - 1, repeats + 1);

    [Fact]
    public void Where_nothing_can_be_told_there_is_no_number()
    {
        Assert.Null(RepeatsToFind.Of([20], [21, 22], 0.05));
        Assert.Null(RepeatsToFind.Of([20, 20], [20, 20], 0.05));
        Assert.Null(RepeatsToFind.Of([0, 0], [1, 2], 0.05));
        Assert.Null(RepeatsToFind.Of([1, 40], [1, 40], 0.05));
    }

    /// <summary>The promise: with the runs that are named, a true difference of 5 % is found four times in five at least, and where there
    /// is none, one in twenty is called real at most. A thousand seeded trials of each.</summary>
    [Theory]
    [InlineData(0.02, 3)]
    [InlineData(0.03, 4)]
    [InlineData(0.05, 6)]
    public void A_true_difference_is_found_with_the_runs_that_are_named(double deviation, int pilot)
    {
        const int Trials = 1000;
        var random = new Random(20261127);
        var (found, mistaken, named) = (0, 0, 0);
        for (var trial = 0; trial < Trials; trial++)
        {
            if (RepeatsToFind.Of(Rates(25, pilot), Rates(25, pilot), 0.05) is not { } runs)
            {
                continue;
            }

            named++;
            found += IsReal(Rates(25, runs), Rates(25 * 1.05, runs)) ? 1 : 0;
            mistaken += IsReal(Rates(25, runs), Rates(25, runs)) ? 1 : 0;
        }

        Assert.True(named > 0.99 * Trials, $"{named} of {Trials} could be named");
        Assert.InRange(found, 0.8 * named, named);
        // Three standard deviations of the count above one in twenty.
        Assert.InRange(mistaken, 0, 0.05 * named + 3 * Math.Sqrt(0.05 * 0.95 * named));

        bool IsReal(double[] one, double[] other) => WelchDifference.Of(one, other).Chance <= 0.05;

        double[] Rates(double mean, int count) =>
            [.. Enumerable.Range(0, count).Select(_ => Normal.Sample(random, mean, mean * deviation))];
    }
}
