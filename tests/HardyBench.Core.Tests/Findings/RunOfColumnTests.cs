using HardyBench.Core.Findings;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Findings;

public class RunOfColumnTests
{
    private static readonly RunOfColumn Bare = Run(1), Newer = Run(2);
    private static readonly RunOfColumn Stopped = Run(3, RunEnding.Stopped), CutShort = Run(4, RunEnding.CutShort);
    private static readonly RunOfColumn Aided = Run(5, RunEnding.Finished, "half-raster proxies");

    [Fact]
    public void A_stopped_or_aided_run_does_not_take_the_column()
    {
        Assert.Equal(2, RunOfColumn.Shown([Aided, CutShort, Stopped, Newer, Bare], []));
        Assert.Null(RunOfColumn.Shown([Aided, CutShort, Stopped], []));
        Assert.Null(RunOfColumn.Shown([], [1]));
    }

    [Fact]
    public void What_a_person_picked_is_shown_whatever_it_is()
    {
        Assert.Equal(5, RunOfColumn.Shown([Aided, Newer, Bare], [5, 77]));
        Assert.Equal(1, RunOfColumn.Shown([Aided, Newer, Bare], [1]));
        // Picked of another column, or of the timeline as it was before an edit.
        Assert.Equal(2, RunOfColumn.Shown([Aided, Newer, Bare], [77]));
    }

    private static RunOfColumn Run(long id, RunEnding ending = RunEnding.Finished, params string[] differences) =>
        new(id, DateTimeOffset.UnixEpoch.AddHours(id), ending, differences);
}
