namespace HardyBench.Core.Footage.Levels;

/// <summary>Levels of HEVC: ITU-T H.265, tables A.8 and A.9; data rates of the high tier where there is one.</summary>
internal static class HevcLevels
{
    private const int SmallestCodingBlock = 8;

    public static IReadOnlyList<Level> All { get; } =
    [
        Row("1", 36_864, 552_960, 128),
        Row("2", 122_880, 3_686_400, 1_500),
        Row("2.1", 245_760, 7_372_800, 3_000),
        Row("3", 552_960, 16_588_800, 6_000),
        Row("3.1", 983_040, 33_177_600, 10_000),
        Row("4", 2_228_224, 66_846_720, 30_000),
        Row("4.1", 2_228_224, 133_693_440, 50_000),
        Row("5", 8_912_896, 267_386_880, 100_000),
        Row("5.1", 8_912_896, 534_773_760, 160_000),
        Row("5.2", 8_912_896, 1_069_547_520, 240_000),
        Row("6", 35_651_584, 1_069_547_520, 240_000),
        Row("6.1", 35_651_584, 2_139_095_040, 480_000),
        Row("6.2", 35_651_584, 4_278_190_080, 800_000),
    ];

    /// <summary>Frames are coded in whole blocks.</summary>
    public static long CodedPixels(Raster raster) => Whole(raster.Width) * Whole(raster.Height);

    public static (string Name, double Factor) ProfileOf(ClipFormat format)
    {
        var intra = format.IsAllIntra && format.Chroma != ChromaSubsampling.Quarter ? " Intra" : string.Empty;
        return (format.Chroma, format.BitDepth) switch
        {
            (ChromaSubsampling.Quarter, <= 8) => ("Main", 1),
            (ChromaSubsampling.Quarter, <= 10) => ("Main 10", 1),
            (ChromaSubsampling.Quarter, _) => ("Main 12", 1.5),
            (ChromaSubsampling.Half, <= 10) => ("Main 4:2:2 10" + intra, 5.0 / 3),
            (ChromaSubsampling.Half, _) => ("Main 4:2:2 12" + intra, 2),
            (_, <= 8) => ("Main 4:4:4" + intra, 2),
            (_, <= 10) => ("Main 4:4:4 10" + intra, 2.5),
            _ => ("Main 4:4:4 12" + intra, 3),
        };
    }

    /// <summary>A side may have at most √(8 · MaxLumaPs) pixels (A.4.1).</summary>
    private static Level Row(string name, long frameSize, long rate, long kilobits) =>
        new(name, frameSize, rate, (int)Math.Sqrt(8.0 * frameSize), new DataRate(kilobits * 1000));

    private static long Whole(int side) => (side + SmallestCodingBlock - 1) / SmallestCodingBlock * SmallestCodingBlock;
}
