using System.Globalization;

namespace HardyBench.Core.Footage;

/// <summary>Frames a second as an exact ratio, so that 24/1.001 stays itself.</summary>
public readonly record struct FrameRate
{
    /// <exception cref="ArgumentOutOfRangeException">Either part is below 1.</exception>
    public FrameRate(int numerator, int denominator = 1)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(numerator, 1);
        ArgumentOutOfRangeException.ThrowIfLessThan(denominator, 1);
        var divisor = (int)System.Numerics.BigInteger.GreatestCommonDivisor(numerator, denominator);
        (Numerator, Denominator) = (numerator / divisor, denominator / divisor);
        FrameDuration = StartOf(1);
    }

    /// <summary>The rate nearest to a ratio of any size: exact where both parts fit once what they share is taken out.</summary>
    /// <exception cref="ArgumentOutOfRangeException">Either part is below 1, or the ratio lies outside what can be held.</exception>
    public static FrameRate Of(Int128 numerator, Int128 denominator)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(numerator, Int128.One);
        ArgumentOutOfRangeException.ThrowIfLessThan(denominator, Int128.One);
        var divisor = (Int128)System.Numerics.BigInteger.GreatestCommonDivisor(numerator, denominator);
        (numerator, denominator) = (numerator / divisor, denominator / divisor);
        while (numerator > int.MaxValue || denominator > int.MaxValue)
        {
            (numerator, denominator) = (numerator >> 1, denominator >> 1);
        }

        return new FrameRate((int)numerator, (int)denominator);
    }

    public int Numerator { get; }

    public int Denominator { get; }

    public double FramesPerSecond => (double)Numerator / Denominator;

    /// <summary>The frames a second that timecode counts: 30 for 30/1.001.</summary>
    public int NominalFramesPerSecond => (Numerator + Denominator - 1) / Denominator;

    /// <summary>The length of one frame, rounded down to 100 ns.</summary>
    public TimeSpan FrameDuration { get; }

    /// <summary>When frame <paramref name="frame"/> begins, counted from frame 0, rounded down to 100 ns.
    /// Each frame is computed from zero, so nothing adds up over a long run.</summary>
    /// <exception cref="OverflowException">The frame lies more than some hundred days ahead.</exception>
    public TimeSpan StartOf(long frame)
    {
        var ticks = checked(frame * Denominator * TimeSpan.TicksPerSecond);
        if (ticks is < 0 or > ExactInDouble)
        {
            return new(ticks / Numerator);
        }

        // Several times quicker than dividing whole numbers. Only where the quotient lies just below a whole number can it come out as that
        // one.
        var quotient = (long)((double)ticks / Numerator);
        return new(quotient * Numerator > ticks ? quotient - 1 : quotient);
    }

    /// <summary>Up to here a double holds every whole number.</summary>
    private const long ExactInDouble = 1L << 53;

    /// <summary>The frame whose slot holds <paramref name="time"/>, so that StartOf(n) ≤ time &lt; StartOf(n + 1).</summary>
    public long FrameAt(TimeSpan time)
    {
        var slots = (Int128)time.Ticks * Numerator;
        var perFrame = Denominator * TimeSpan.TicksPerSecond;
        var guess = slots == (long)slots ? (long)slots / perFrame : (long)(slots / perFrame);
        return StartOf(guess + 1) <= time ? guess + 1 : guess;
    }

    /// <summary>The source frame shown in timeline frame <paramref name="timelineFrame"/> when footage of
    /// <paramref name="source"/> rate runs in a timeline of this rate: the one on at that moment.</summary>
    /// <param name="speed">1 as shot; counted in steps of a ten-thousandth, so that no rounding adds up.</param>
    public long SourceFrameFor(long timelineFrame, FrameRate source, double speed = 1)
    {
        const int Steps = 10_000;
        var numerator = (Int128)timelineFrame * Denominator * source.Numerator * (long)Math.Round(speed * Steps);
        return (long)(numerator / ((Int128)Numerator * source.Denominator * Steps));
    }

    /// <summary>"25", "23.976".</summary>
    public override string ToString() => FramesPerSecond.ToString("0.###", CultureInfo.InvariantCulture);
}
