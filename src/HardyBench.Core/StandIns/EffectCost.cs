using HardyBench.Core.Timelines;

namespace HardyBench.Core.StandIns;

/// <summary>What an effect asks for each processed pixel. Order-of-magnitude values from counting the operations of
/// a plain implementation; no published source.</summary>
/// <param name="FlopPerPixel">Arithmetic.</param>
/// <param name="BytesPerPixel">Memory touched, its neighbour frames included.</param>
/// <param name="HeldFrames">Neighbour frames kept in memory.</param>
public readonly record struct EffectCost(double FlopPerPixel, double BytesPerPixel, int HeldFrames)
{
    /// <summary>Bringing a layer from its own raster to the processed one.</summary>
    public static EffectCost Scaling { get; } = new(40, 16, 0);

    /// <summary>Laying one layer over another.</summary>
    public static EffectCost Blend { get; } = new(12, 24, 0);

    public static EffectCost Of(Effect effect) => effect switch
    {
        PrimaryGrade => new EffectCost(60, 24, 0),
        Lut => new EffectCost(90, 40, 0),
        NoiseReduction => new EffectCost(2600, 260, 1),
        Placement => new EffectCost(20, 16, 0),
        Title => new EffectCost(16, 24, 0),
        _ => throw new ArgumentOutOfRangeException(nameof(effect), effect, "This effect has no cost yet."),
    };

    /// <summary>Roofline (Williams, Waterman, Patterson 2009): seconds for a number of pixels on a unit with the given
    /// peak and bandwidth.</summary>
    /// <param name="flopPerSecond">Peak arithmetic.</param>
    /// <param name="bytesPerSecond">Memory bandwidth.</param>
    public double Seconds(double pixels, double flopPerSecond, double bytesPerSecond) =>
        pixels * Math.Max(FlopPerPixel / flopPerSecond, BytesPerPixel / bytesPerSecond);
}
