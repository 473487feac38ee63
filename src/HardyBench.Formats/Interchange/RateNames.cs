using HardyBench.Core.Footage;

namespace HardyBench.Formats.Interchange;

/// <summary>Exact rates for the rounded ones that files give.</summary>
internal static class RateNames
{
    /// <summary>The ratio nearest to a rounded rate: a whole number, or one over 1.001.</summary>
    /// <exception cref="InterchangeException">It is no rate.</exception>
    public static FrameRate Exact(double rate)
    {
        if (!(rate is >= 1 and <= 1000))
        {
            throw new InterchangeException(FormattableString.Invariant($"{rate} is no rate in frames a second."));
        }

        var whole = (int)Math.Round(rate);
        if (Math.Abs(rate - whole) < 0.0005)
        {
            return new FrameRate(whole);
        }

        var over = (int)Math.Round(rate * 1.001);
        return Math.Abs(rate - over / 1.001) < 0.006 ? new FrameRate(over * 1000, 1001) : new FrameRate((int)Math.Round(rate * 1000), 1000);
    }
}
