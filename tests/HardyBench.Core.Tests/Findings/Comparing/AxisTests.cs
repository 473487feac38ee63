using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Findings.Comparing;

public sealed class AxisTests
{
    [Fact]
    public void Along_one_thing_it_is_said_from_where_on_nothing_is_gained()
    {
        var axis = Axis.Along([Base, Side("64 GB", 1.5), Side("16 GB", 1.495), Side("32 GB", 1.5)])!;

        Assert.Equal((Condition.Figure, "memory.gigabytes"), (axis.What, axis.Of));
        Assert.Equal(["8 GB", "16 GB", "32 GB", "64 GB"], axis.Points.Select(point => point.Text));
        Assert.Equal(
            "Along memory from 8 GB to 64 GB: × 1.50 up to 16 GB, from there on no more frames are shown.",
            ComparisonWords.Of(axis)
        );
    }

    [Fact]
    public void Where_every_step_gains_it_is_said() =>
        Assert.Equal(
            "Along memory from 8 GB to 32 GB: every step gains, × 2.00 at 32 GB.",
            ComparisonWords.Of(Axis.Along([Base, Side("16 GB", 1.5), Side("32 GB", 2)])!)
        );

    [Fact]
    public void Where_no_step_gains_it_is_said() =>
        Assert.Equal(
            "Along memory from 8 GB to 32 GB: 8 GB shows as many frames as any.",
            ComparisonWords.Of(Axis.Along([Base, Side("16 GB", 1), Side("32 GB", 1)])!)
        );

    [Fact]
    public void More_than_one_difference_or_one_without_an_order_is_no_axis()
    {
        Assert.Null(Axis.Along([Base, Side("16 GB", 1)]));
        Assert.Null(
            Axis.Along([
                Base,
                Side("16 GB", 1),
                new AxisSide(
                    [.. Side("32 GB", 1).Differences, new ConditionDifference(Condition.Power, null, "mains", "battery")],
                    null,
                    [1]
                ),
            ])
        );
        Assert.Null(
            Axis.Along([
                Base,
                Side("16 GB", 1),
                new AxisSide([new ConditionDifference(Condition.Graphics, null, "none", "one")], Beside(1), [1]),
            ])
        );
        Assert.Null(Axis.Along([Base, Side("16 GB", 1), Side("much", 1)]));
        Assert.Null(Axis.Along([Base, Side("16 GB", 1), new AxisSide([], Beside(1), [1])]));
    }

    [Fact]
    public void Editing_programs_stand_by_what_they_show_and_what_they_decide_is_no_second_difference()
    {
        var axis = Axis.Along([Base, Program("Slow", 0.8), Program("Quick", 1.5), Program("As quick", 1.495)])!;

        Assert.False(axis.HasSizes);
        Assert.Equal(["Slow", "Hardy Bench player", "As quick", "Quick"], axis.Points.Select(point => point.Text));
        Assert.Equal([0, 1, 2, 3], axis.Points.Select(point => point.Value));
        Assert.Equal("By editing program As quick and Quick show most, × 1.88 of Slow.", ComparisonWords.Of(axis));
        Assert.Equal(
            "Whichever editing program plays, as many frames are shown.",
            ComparisonWords.Of(Axis.Along([Base, Program("A", 1), Program("B", 1)])!));
    }

    [Fact]
    public void Programs_on_unlike_machines_or_without_a_clock_are_no_axis()
    {
        var faster = new ConditionDifference(Condition.Figure, "processor.relativeCoreSpeed", "1", "2");
        var unpaced = new ConditionDifference(Condition.Policy, null, "the clock kept", "no clock");

        Assert.Null(Axis.Along([Base, Program("A", 1), Program("B", 1) with { Differences = [.. Program("B", 1).Differences, faster] }]));
        Assert.Null(Axis.Along([Base, Program("A", 1), Program("B", 1) with { Differences = [.. Program("B", 1).Differences, unpaced] }]));
    }

    private static AxisSide Program(string name, double ratio) => new(
        [
            new ConditionDifference(Condition.Program, null, "Hardy Bench player", name),
            new ConditionDifference(Condition.LookAhead, null, "6 frames", "9 frames"),
            new ConditionDifference(Condition.Policy, null, "the clock kept", "every frame shown"),
            new ConditionDifference(Condition.DecodedOn, "clip", "media engine", "processor"),
        ],
        Beside(ratio),
        [0.4 * ratio]);

    /// <summary>The interval is Student's: of 0.5, 0.6 and 0.7 it is 0.6 ± 4.303 × 0.1 / √3 (t of two degrees of freedom, from
    /// memory).</summary>
    [Fact]
    public void Each_point_has_the_share_shown_and_its_interval_over_repeats()
    {
        var axis = Axis.Along([Base, Side("16 GB", 1.5), Side("32 GB", 2) with { Shares = [0.5, 0.6, 0.7] }])!;

        Assert.Equal((0.4, null), (axis.Points[0].Share, axis.Points[0].Half));
        Assert.Equal(0.6, axis.Points[2].Share, 9);
        Assert.Equal(4.303 * 0.1 / Math.Sqrt(3), axis.Points[2].Half!.Value, 3);
    }

    [Theory]
    [InlineData("8 GB", 8.0)]
    [InlineData("29.97", 29.97)]
    [InlineData("SATA, 500 MB/s", 500.0)]
    [InlineData("SATA, 500 MB/s; writes 450 MB/s, 0.1 ms, for media", 500.0)]
    [InlineData("one (900 Gflop/s, 4 GB)", null)]
    [InlineData("battery", null)]
    [InlineData(null, null)]
    public void A_value_is_put_in_order_by_the_number_that_it_begins_with_or_the_only_one_with_a_unit(string? text, double? value) =>
        Assert.Equal(value, Axis.ValueOf(text));

    private static AxisSide Base => new([], null, [0.4]);

    private static AxisSide Side(string memory, double ratio) =>
        new([new ConditionDifference(Condition.Figure, "memory.gigabytes", "8 GB", memory)], Beside(ratio), [0.4 * ratio]);

    private static SideBeside Beside(double ratio) => new([], ratio, [], []);
}
