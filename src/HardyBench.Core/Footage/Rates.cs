using System.Globalization;

namespace HardyBench.Core.Footage;

/// <summary>Rates as people write them.</summary>
public static class Rates
{
    /// <summary>"25", "23.976" or "24000/1001".</summary>
    /// <exception cref="FormatException">It is no rate.</exception>
    public static FrameRate Parse(string text)
    {
        var parts = text.Split('/');
        if (parts.Length == 2
            && int.TryParse(parts[0], NumberStyles.None, CultureInfo.InvariantCulture, out var numerator) && numerator > 0
            && int.TryParse(parts[1], NumberStyles.None, CultureInfo.InvariantCulture, out var denominator) && denominator > 0)
        {
            return new FrameRate(numerator, denominator);
        }

        return double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var rate)
            ? Nearest(rate)
            : throw new FormatException($"'{text}' is no rate in frames a second.");
    }

    /// <summary>The ratio nearest to a rounded rate: a whole number, or one over 1.001.</summary>
    /// <exception cref="FormatException">It is no rate.</exception>
    public static FrameRate Nearest(double rate)
    {
        if (!(rate is >= 1 and <= 1000))
        {
            throw new FormatException(FormattableString.Invariant($"{rate} is no rate in frames a second."));
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
