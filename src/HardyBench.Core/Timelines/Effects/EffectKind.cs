namespace HardyBench.Core.Timelines.Effects;

/// <summary>A kind of effect as the catalogue describes it.</summary>
/// <param name="Group">Effects of one group stand together in lists.</param>
/// <param name="About">What it does, one sentence.</param>
/// <param name="TextLabel">What its text is, "words" say; null without text.</param>
/// <param name="RunsOn">Where it can run.</param>
/// <param name="FramesBefore">Earlier frames it looks at.</param>
/// <param name="FramesAfter">Later frames it looks at.</param>
/// <param name="InColour">Whether it works on red, green and blue, and pictures go there and back for it.</param>
/// <param name="EightBit">Whether this player's filter works at 8 bits a sample even in deeper timelines.</param>
public sealed record EffectKind(
    string Id,
    string Label,
    EffectGroup Group,
    string About,
    EffectCost Cost,
    IReadOnlyList<EffectSetting> Settings,
    EffectPlace RunsOn = EffectPlace.ProcessorOrGraphics,
    string? TextLabel = null,
    int FramesBefore = 0,
    int FramesAfter = 0,
    bool EightBit = false,
    bool InColour = false);

/// <summary>One setting of a kind of effect.</summary>
/// <param name="Unit">"×", "px", "°", "code values", or empty for a plain share.</param>
public sealed record EffectSetting(string Name, string Label, string Unit, double Min, double Max, double Default);

/// <summary>Where effects stand together.</summary>
public enum EffectGroup
{
    Colour,
    Detail,
    Motion,
    Geometry,
    Words,
    StandInsOnly,
}

/// <summary>Where an effect can run.</summary>
public enum EffectPlace
{
    /// <summary>On the processor, or on a graphics unit where the machine has one.</summary>
    ProcessorOrGraphics,

    /// <summary>On the processor whatever the machine has.</summary>
    ProcessorOnly,

    /// <summary>On one core of the processor whatever the machine has.</summary>
    OneCore,

    /// <summary>Simulated machines only: this player has no filter for it.</summary>
    StandInsOnly,
}

/// <summary>What an effect asks for each processed pixel. For a graphics unit order-of-magnitude values from counting the operations of a
/// plain implementation, no published source; for a processor what this player's filters were measured to take at their defaults.</summary>
/// <param name="FlopPerPixel">Arithmetic.</param>
/// <param name="BytesPerPixel">Memory touched, its neighbour frames included.</param>
/// <param name="HeldFrames">Neighbour frames kept in memory.</param>
/// <param name="Nanoseconds">On one reference core at 8 bits a sample; null where it was not measured, and arithmetic and memory
/// tell.</param>
/// <param name="DeepNanoseconds">The same at more bits.</param>
public readonly record struct EffectCost(
    double FlopPerPixel, double BytesPerPixel, int HeldFrames = 0, double? Nanoseconds = null, double? DeepNanoseconds = null)
{
    /// <summary>Bringing a layer from its own raster to the processed one.</summary>
    public static EffectCost Scaling { get; } = new(40, 16, 0, 1.5, 2.4);

    /// <summary>Laying one layer over another.</summary>
    public static EffectCost Blend { get; } = new(12, 24, 0, 1.2, 2.2);

    /// <summary>From luma and colour difference to red, green and blue, and back.</summary>
    public static EffectCost ToColourAndBack { get; } = new(16, 12, 0, 8.7, 6.9);

    /// <summary>One way of it, taken as half.</summary>
    public static EffectCost ToColour { get; } = new(8, 6, 0, 4.35, 3.45);

    /// <summary>Interpolating a frame between two along the motion between them.</summary>
    public static EffectCost OpticalFlow { get; } = new(9000, 600, 2);

    /// <summary>Roofline (Williams, Waterman, Patterson 2009): seconds for a number of pixels on a unit with the given
    /// peak and bandwidth.</summary>
    /// <param name="flopPerSecond">Peak arithmetic.</param>
    /// <param name="bytesPerSecond">Memory bandwidth.</param>
    public double Seconds(double pixels, double flopPerSecond, double bytesPerSecond) =>
        pixels * Math.Max(FlopPerPixel / flopPerSecond, BytesPerPixel / bytesPerSecond);
}
