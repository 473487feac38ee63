namespace HardyBench.Core.Footage.Levels;

/// <summary>Levels of AVC: ITU-T H.264, table A-1; profile factors from table A-2.</summary>
internal static class AvcLevels
{
    private const int MacroblockSide = 16;

    public static IReadOnlyList<Level> All { get; } =
    [
        Row("1", 1_485, 99, 64),
        Row("1.1", 3_000, 396, 192),
        Row("1.2", 6_000, 396, 384),
        Row("1.3", 11_880, 396, 768),
        Row("2", 11_880, 396, 2_000),
        Row("2.1", 19_800, 792, 4_000),
        Row("2.2", 20_250, 1_620, 4_000),
        Row("3", 40_500, 1_620, 10_000),
        Row("3.1", 108_000, 3_600, 14_000),
        Row("3.2", 216_000, 5_120, 20_000),
        Row("4", 245_760, 8_192, 20_000),
        Row("4.1", 245_760, 8_192, 50_000),
        Row("4.2", 522_240, 8_704, 50_000),
        Row("5", 589_824, 22_080, 135_000),
        Row("5.1", 983_040, 36_864, 240_000),
        Row("5.2", 2_073_600, 36_864, 240_000),
        Row("6", 4_177_920, 139_264, 240_000),
        Row("6.1", 8_355_840, 139_264, 480_000),
        Row("6.2", 16_711_680, 139_264, 800_000),
    ];

    public static long Macroblocks(Raster raster) => Blocks(raster.Width) * Blocks(raster.Height);

    public static (string Name, double Factor) ProfileOf(ClipFormat format)
    {
        var intra = format.IsAllIntra && format.BitDepth > 8 ? " Intra" : string.Empty;
        return (format.Chroma, format.BitDepth) switch
        {
            (ChromaSubsampling.Full, _) => ("High 4:4:4 Predictive", 4),
            (ChromaSubsampling.Half, _) => ("High 4:2:2" + intra, 4),
            (_, > 8) => ("High 10" + intra, 3),
            _ => ("High", 1.25),
        };
    }

    /// <summary>A side may have at most √(8 · MaxFS) macroblocks (A.3.1).</summary>
    private static Level Row(string name, long macroblocksPerSecond, long frameSize, long kilobits) => new(
        name, frameSize, macroblocksPerSecond, (int)Math.Sqrt(8 * frameSize) * MacroblockSide, new DataRate(kilobits * 1000));

    private static long Blocks(int side) => (side + MacroblockSide - 1) / MacroblockSide;
}
