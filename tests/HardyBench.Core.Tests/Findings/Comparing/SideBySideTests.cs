using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Findings.Statistics;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Findings.Comparing;

public sealed class SideBySideTests
{
    /// <summary>Student's sleep data (Biometrika 6, 1908) by Welch's test as the documentation of R's t.test prints it: t = −1.8608, df =
    /// 17.776, p = 0.07939, 95 % interval −3.3654832 to 0.2054832 for the first less the second (values from memory).</summary>
    [Fact]
    public void Welchs_interval_and_chance_are_those_of_a_worked_example()
    {
        double[] first = [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0.0, 2.0],
            second = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4];
        var difference = WelchDifference.Of(first, second);

        Assert.Equal(1.58, difference.Mean, 9);
        Assert.Equal((3.3654832 + 0.2054832) / 2, difference.Half!.Value, 6);
        Assert.Equal(0.07939, difference.Chance!.Value, 5);
    }

    [Fact]
    public void One_run_of_a_side_says_nothing_of_noise()
    {
        var side = SideBeside.Of([Run(20)], [Run(22)]);

        Assert.Null(side.Passages[0].IsReal);
        Assert.Null(side.Passages[0].Difference!.Half);
        Assert.Equal("+2.0, × 1.10", ComparisonWords.Of(side.Passages[0]));
    }

    [Fact]
    public void The_whole_is_the_geometric_mean_of_the_ratios()
    {
        var side = SideBeside.Of([Run(10, 20)], [Run(20, 10)]);

        Assert.Equal(1, side.MeanRatio!.Value, 9);
        Assert.Equal(
            "B gives every passage the same verdict as A. On the whole it shows as many frames; where both hold, only headroom tells "
                + "them apart.",
            ComparisonWords.Sum(side, "B", "A")
        );
    }

    /// <summary>Nothing has no ratio, so what the mean leaves aside is said beside it.</summary>
    [Fact]
    public void Passages_of_which_a_side_shows_nothing_are_left_aside_and_that_is_said()
    {
        var side = SideBeside.Of([Run(10, 0, 20)], [Run(20, 25, 0)]);

        Assert.Equal((2.0, 2), (side.MeanRatio!.Value, side.WithoutRatio));
        Assert.Equal(
            "B gives every passage the same verdict as A. Leaving aside 2 passages of which one of them shows nothing, it shows 2.00 "
                + "times the frames (geometric mean over passages).",
            ComparisonWords.Sum(side, "B", "A"));
        Assert.EndsWith(
            "There is no passage of which both show any frame.",
            ComparisonWords.Sum(SideBeside.Of([Run(0)], [Run(9)]), "B", "A"),
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData(2.0, 6.0, "both hold, × 3.0 headroom")]
    [InlineData(2.0, 2.02, "the same")]
    [InlineData(null, 2.0, "the same")]
    public void What_both_hold_is_told_apart_by_headroom(double? one, double? other, string words)
    {
        var side = SideBeside.Of(
            [
                [Passage(0, 25, Verdict.Holds) with { Headroom = one }],
            ],
            [
                [Passage(0, 25, Verdict.Holds) with { Headroom = other }],
            ]
        );

        Assert.Equal(words, ComparisonWords.Of(side.Passages[0]));
    }

    [Fact]
    public void Verdicts_that_differ_are_named_by_passage()
    {
        var side = SideBeside.Of(
            [[Passage(0, 25, Verdict.Holds), Passage(1, 10, Verdict.Breaks), Passage(2, 25, Verdict.Holds)]],
            [[Passage(0, 20, Verdict.Wavers), Passage(1, 25, Verdict.Holds), Passage(2, 25, Verdict.Holds)]]);

        Assert.Equal([1], side.Better);
        Assert.Equal([0], side.Worse);
        Assert.StartsWith(
            "B does better than A in passage 2 and worse in passage 1. On the whole it shows 1.26 times the frames",
            ComparisonWords.Sum(side, "B", "A"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_passage_that_a_side_did_not_play_or_that_failed_counts_for_nothing()
    {
        var side = SideBeside.Of([Run(20, 20)], [[Passage(0, 25, Verdict.Holds) with { Failure = "gone" }, null]]);

        Assert.All(side.Passages, passage => Assert.Equal(string.Empty, ComparisonWords.Of(passage)));
        Assert.Null(side.MeanRatio);
        Assert.EndsWith("No passage was played by both.", ComparisonWords.Sum(side, "B", "A"), StringComparison.Ordinal);
    }

    /// <summary>Twenty passages, three runs a side, and no difference: one comparison in twenty may claim one, not more (Holm 1979).
    /// 1 000 seeded comparisons; the count has a standard deviation of 7, so 70 leaves room for three of them.</summary>
    [Fact]
    public void With_twenty_passages_and_no_difference_hardly_any_comparison_claims_one()
    {
        var random = new Random(20_26);
        var claiming = Enumerable.Range(0, 1000).Count(_ => Compared(random, 20, 1).Passages.Any(passage => passage.IsReal == true));

        Assert.InRange(claiming, 0, 70);
    }

    [Fact]
    public void A_large_difference_is_found_nearly_always()
    {
        var random = new Random(7);
        var found = Enumerable.Range(0, 300).Count(_ => Compared(random, 1, 1.05).Passages[0].IsReal == true);

        Assert.InRange(found, 270, 300);
    }

    /// <summary>Ten runs a side whose shown rates scatter by 2 %.</summary>
    private static SideBeside Compared(Random random, int passages, double factor)
    {
        var runs = factor == 1 ? 3 : 10;
        return SideBeside.Of(
            [.. Enumerable.Range(0, runs).Select(_ => Noisy(1))],
            [.. Enumerable.Range(0, runs).Select(_ => Noisy(factor))]
        );

        PassageSummary[] Noisy(double by) =>
            [.. Enumerable.Range(0, passages).Select(place => Passage(place, 20 * by * (1 + 0.02 * Normal()), Verdict.Wavers))];

        double Normal() => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
    }

    private static PassageSummary[] Run(params double[] shown) => [.. shown.Select((rate, place) => Passage(place, rate, Verdict.Wavers))];

    private static PassageSummary Passage(int place, double shown, Verdict verdict) =>
        new(place, verdict, null, null, null, 250, (int)(shown * 10), shown, 0, 0, TimeSpan.Zero, null, string.Empty, []);
}
