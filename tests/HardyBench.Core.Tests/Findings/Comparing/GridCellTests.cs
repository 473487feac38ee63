using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Comparing;

namespace HardyBench.Core.Tests.Findings.Comparing;

public sealed class GridCellTests
{
    [Fact]
    public void A_timeline_is_as_its_worst_passage_and_shows_what_all_show()
    {
        var cell = GridCell.Of([
            GridCell.Of(3, Verdict.Holds, null, 100, 100, 1.5),
            GridCell.Of(3, Verdict.Breaks, Limiter.Drive, 20, 100, null),
            GridCell.Of(3, Verdict.Wavers, Limiter.ProcessorDecode, 90, 100, null),
            GridCell.Of(3, null, null, 30, 30, null)])!;

        Assert.Equal(
            (3, Verdict.Breaks, Limiter.Drive, null, 1, 3),
            (cell.Run, cell.Verdict, cell.Limiter, cell.Headroom, cell.Holds, cell.Judged)
        );
        Assert.Equal((1 + 0.2 + 0.9 + 1) / 4, cell.Share, 9);
    }

    [Fact]
    public void Where_all_hold_its_headroom_is_that_of_the_tightest()
    {
        Assert.Equal(
            1.2,
            GridCell
                .Of([
                    GridCell.Of(1, Verdict.Holds, null, 9, 9, 3),
                    GridCell.Of(1, Verdict.Holds, null, 9, 9, 1.2),
                    GridCell.Of(1, Verdict.Holds, null, 9, 9, null),
                ])!
                .Headroom
        );
        Assert.Null(GridCell.Of([]));
    }
}
