using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Findings.Comparing;

public sealed class AxisTests
{
    [Fact]
    public void Along_one_thing_it_is_said_from_where_on_nothing_is_gained()
    {
        var axis = Axis.Of([Base, Side("64 GB", 1.5), Side("16 GB", 1.495), Side("32 GB", 1.5)])!;

        Assert.Equal(Condition.MemorySize, axis.What);
        Assert.Equal(["8 GB", "16 GB", "32 GB", "64 GB"], axis.Points.Select(point => point.Text));
        Assert.Equal("Along memory from 8 GB to 64 GB: × 1.50 up to 16 GB, from there on no more frames are shown.", ComparisonWords.Of(axis));
    }

    [Fact]
    public void Where_every_step_gains_it_is_said() =>
        Assert.Equal("Along memory from 8 GB to 32 GB: every step gains, × 2.00 at 32 GB.", ComparisonWords.Of(Axis.Of([Base, Side("16 GB", 1.5), Side("32 GB", 2)])!));

    [Fact]
    public void Where_no_step_gains_it_is_said() =>
        Assert.Equal("Along memory from 8 GB to 32 GB: 8 GB shows as many frames as any.", ComparisonWords.Of(Axis.Of([Base, Side("16 GB", 1), Side("32 GB", 1)])!));

    [Fact]
    public void More_than_one_difference_or_one_without_an_order_is_no_axis()
    {
        Assert.Null(Axis.Of([Base, Side("16 GB", 1)]));
        Assert.Null(Axis.Of([Base, Side("16 GB", 1), ([.. Side("32 GB", 1).Differences, new ConditionDifference(Condition.Power, null, "mains", "battery")], null)]));
        Assert.Null(Axis.Of([Base, Side("16 GB", 1), ([new ConditionDifference(Condition.Graphics, null, "none", "one")], Beside(1))]));
        Assert.Null(Axis.Of([Base, Side("16 GB", 1), Side("much", 1)]));
        Assert.Null(Axis.Of([Base, Side("16 GB", 1), ([], Beside(1))]));
    }

    private static (IReadOnlyList<ConditionDifference> Differences, SideBeside? Beside) Base => ([], null);

    private static (IReadOnlyList<ConditionDifference> Differences, SideBeside? Beside) Side(string memory, double ratio) =>
        ([new ConditionDifference(Condition.MemorySize, null, "8 GB", memory)], Beside(ratio));

    private static SideBeside Beside(double ratio) => new([], ratio, [], []);
}
