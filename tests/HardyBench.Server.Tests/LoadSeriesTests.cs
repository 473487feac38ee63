using HardyBench.Core.Playback;
using HardyBench.Server.Runs;

namespace HardyBench.Server.Tests;

public sealed class LoadSeriesTests
{
    [Fact]
    public void A_series_has_its_own_unit_ceiling_and_moments_from_the_passage()
    {
        var series = LoadSeries.Of(
            [At(2, LoadKind.Core, 1, 0.5f), At(3, LoadKind.Core, 1, 1f), At(2, LoadKind.DriveRead, 0, 25e6f)],
            TimeSpan.FromSeconds(1)
        );

        Assert.Equal(["core 1", "read 0"], series.Select(one => one.Name));
        Assert.Equal(("%", 100.0), (series[0].Unit, series[0].Limit));
        Assert.Equal([50, 100], series[0].Values);
        Assert.Equal([1000, 2000], series[0].At);
        Assert.Equal(("MB/s", (double?)null, 25.0), (series[1].Unit, series[1].Limit, series[1].Values[0]));
    }

    [Fact]
    public void Of_many_threads_the_three_busiest_have_a_line()
    {
        var series = LoadSeries.Of(
            [.. Enumerable.Range(0, 8).Select(thread => At(1, LoadKind.OwnThread, 70_000 + thread, thread / 10f))],
            TimeSpan.Zero
        );

        Assert.Equal(["thread 70005", "thread 70006", "thread 70007"], series.Select(one => one.Name));
    }

    [Fact]
    public void What_is_worth_no_line_has_none() =>
        Assert.Empty(LoadSeries.Of([At(1, LoadKind.WastedWork, 0, 1), At(1, LoadKind.MemoryFitted, 0, 1)], TimeSpan.Zero));

    private static LoadReading At(double seconds, LoadKind kind, int index, float value) =>
        new(TimeSpan.FromSeconds(seconds), kind, index, value);
}
