namespace HardyBench.Core.Footage;

/// <summary>A picture's width and height in pixels.</summary>
public readonly record struct Raster
{
    /// <exception cref="ArgumentOutOfRangeException">Either side is below 1.</exception>
    public Raster(int width, int height)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(width, 1);
        ArgumentOutOfRangeException.ThrowIfLessThan(height, 1);
        (Width, Height) = (width, height);
    }

    /// <summary>1920 × 1080, ITU-R BT.709.</summary>
    public static Raster Hd { get; } = new(1920, 1080);

    /// <summary>3840 × 2160, ITU-R BT.2020.</summary>
    public static Raster Uhd { get; } = new(3840, 2160);

    public int Width { get; }

    public int Height { get; }

    public long Pixels => (long)Width * Height;

    public double Megapixels => Pixels / 1e6;

    /// <summary>The raster divided by a whole number on each axis, rounded down to even sides, never below 2 × 2.</summary>
    public Raster DividedBy(int divisor) => new(EvenPart(Width / divisor), EvenPart(Height / divisor));

    /// <summary>Whether a picture of this raster fits inside another one without scaling.</summary>
    public bool FitsIn(Raster other) => Width <= other.Width && Height <= other.Height;

    /// <summary>"HD" and "UHD" where the trade has a short name, else "640×360".</summary>
    public override string ToString() =>
        this == Hd ? "HD" : this == Uhd ? "UHD" : $"{Width}×{Height}";

    private static int EvenPart(int side) => Math.Max(2, side & ~1);
}
