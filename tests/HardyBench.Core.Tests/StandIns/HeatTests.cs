using HardyBench.Core.Machines;
using HardyBench.Core.StandIns;

namespace HardyBench.Core.Tests.StandIns;

/// <summary>Newton's law of cooling has a closed form at constant power: T(t) = Ta + PR + (T0 − Ta − PR)·e^(−t/RC).</summary>
public sealed class HeatTests
{
    private static readonly Cooling Fanless = new(true, 3, 70, 24, 90, 4, 40);

    [Fact]
    public void Warming_follows_the_closed_form_however_time_is_cut()
    {
        var cool = Fanless with { LimitCelsius = 1000 };
        var (fine, coarse) = (new Heat(cool), new Heat(cool));
        for (var i = 0; i < 600; i++)
        {
            fine.Pass(TimeSpan.FromMilliseconds(100), 1);
        }

        coarse.Pass(TimeSpan.FromSeconds(60), 1);
        var expected = 24 + 40 * 3 + (24 + 4 * 3 - 24 - 40 * 3) * Math.Exp(-60.0 / (3 * 70));
        Assert.Equal(expected, coarse.Celsius, 9);
        Assert.Equal(expected, fine.Celsius, 6);
    }

    [Fact]
    public void At_the_limit_the_clock_falls_until_the_power_can_be_carried_away()
    {
        var heat = new Heat(Fanless);
        for (var i = 0; i < 20000; i++)
        {
            heat.Pass(TimeSpan.FromMilliseconds(100), 1);
        }

        // (90 − 24) / 3 = 22 W can go; 4 W are idle, so 18 of 36 W are left for work.
        Assert.InRange(heat.Celsius, 89, 91);
        Assert.InRange(heat.ClockShare, 0.45, 1);
    }

    [Fact]
    public void Spread_keeps_the_mean_and_no_spread_keeps_each_service()
    {
        var spread = new ServiceSpread(7, 0.3, 0, TimeSpan.Zero);
        var mean = Enumerable.Range(0, 100_000)
            .Average(frame => spread.Draw(Samples.Ms(10), 0, frame, Station.Processor, VisitKind.Decode).TotalMilliseconds);

        Assert.Equal(10, mean, 1);
        Assert.Equal(Samples.Ms(10), ServiceSpread.None.Draw(Samples.Ms(10), 3, 7, Station.Bus, VisitKind.Copy));
    }
}
