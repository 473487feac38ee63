using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Pacing;

public sealed class DurationsTests
{
    [Fact]
    public void Nothing_known_is_no_time_at_all()
    {
        var none = new Durations();

        Assert.Equal((0, TimeSpan.Zero, TimeSpan.Zero), (none.Known, none.Mean, none.Within(0.9)));
    }

    [Theory]
    [InlineData(0.1, 10)]
    [InlineData(0.5, 50)]
    [InlineData(0.9, 90)]
    [InlineData(0.91, 100)]
    [InlineData(1, 100)]
    public void A_share_of_what_was_is_within_its_quantile(double share, double milliseconds)
    {
        var ten = Of(70, 20, 100, 10, 90, 30, 60, 40, 80, 50);

        Assert.Equal(Samples.Ms(milliseconds), ten.Within(share));
        Assert.Equal(Samples.Ms(55), ten.Mean);
    }

    [Fact]
    public void Only_the_last_sixteen_count()
    {
        var some = Of([.. Enumerable.Repeat(500.0, 20), .. Enumerable.Range(1, 16).Select(n => (double)n)]);

        Assert.Equal((16, Samples.Ms(8.5), Samples.Ms(16)), (some.Known, some.Mean, some.Within(1)));
        some.Add(Samples.Ms(40));
        Assert.Equal(Samples.Ms(40), some.Within(1));
        Assert.Equal(Samples.Ms(2), some.Within(0));
        some.Clear();
        Assert.Equal((0, TimeSpan.Zero), (some.Known, some.Mean));
    }

    private static Durations Of(params double[] milliseconds)
    {
        var durations = new Durations();
        foreach (var one in milliseconds)
        {
            durations.Add(Samples.Ms(one));
        }

        return durations;
    }
}
