namespace HardyBench.Core.Footage;

/// <summary>Finds the exact rate behind time stamps that a container has rounded.</summary>
public static class StandardRates
{
    /// <summary>Rates that cameras and encoders use: whole ones, and those over 1.001. Common practice; SMPTE ST 12-1 and ITU-R BT.709,
    /// BT.2020 have most of them.</summary>
    public static IReadOnlyList<FrameRate> All { get; } =
    [
        new(24000, 1001), new(24), new(25), new(30000, 1001), new(30), new(48000, 1001), new(48), new(50), new(60000, 1001), new(60),
        new(12),
        new(25, 2),
        new(15000, 1001),
        new(15),
        new(10),
        new(100),
        new(120000, 1001),
        new(120),
        new(200),
        new(240000, 1001),
        new(240),
    ];

    /// <summary>The rate at which stamps follow each other evenly, but for the rounding of their unit.</summary>
    /// <param name="stamps">Ascending, in <paramref name="unit"/>.</param>
    /// <param name="unit">Seconds of a unit of the stamps, as a ratio.</param>
    /// <param name="said">What the container says; tried after the standard rates.</param>
    /// <returns>Null when they are uneven.</returns>
    public static FrameRate? Of(IReadOnlyList<long> stamps, (long Numerator, long Denominator) unit, FrameRate? said)
    {
        var fitting = All.Where(rate => Fits(stamps, unit, rate)).ToList();
        // Few stamps of a coarse unit fit several rates; then the one nearest to what the container says is meant.
        return fitting.Count > 0 ? fitting.MinBy(rate => said is { } near ? Math.Abs(rate.FramesPerSecond - near.FramesPerSecond) : 0)
            : said is { } other && Fits(stamps, unit, other) ? other
            : null;
    }

    /// <summary>The rate whose slots uneven stamps are shown in: the standard one nearest to their usual distance.</summary>
    /// <param name="stamps">Ascending, at least two of them different.</param>
    public static FrameRate NearestTo(IReadOnlyList<long> stamps, (long Numerator, long Denominator) unit)
    {
        var steps = stamps.Zip(stamps.Skip(1), (one, next) => next - one).Where(step => step > 0).Order().ToList();
        var usual = steps[steps.Count / 2] * (double)unit.Numerator / unit.Denominator;
        return All.MinBy(rate => Math.Abs(Math.Log(rate.FramesPerSecond * usual)));
    }

    private static bool Fits(IReadOnlyList<long> stamps, (long Numerator, long Denominator) unit, FrameRate rate)
    {
        // In units: one for the rounding of each end.
        var (numerator, denominator) = ((Int128)rate.Denominator * unit.Denominator, (Int128)rate.Numerator * unit.Numerator);
        for (var i = 0; i < stamps.Count; i++)
        {
            var off = (Int128)(stamps[i] - stamps[0]) * denominator - numerator * i;
            if ((off < 0 ? -off : off) > denominator)
            {
                return false;
            }
        }

        return true;
    }
}
