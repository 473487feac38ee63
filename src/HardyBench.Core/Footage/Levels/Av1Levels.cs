namespace HardyBench.Core.Footage.Levels;

/// <summary>Levels of AV1: the bitstream specification, annex A.3; data rates of the main tier.</summary>
internal static class Av1Levels
{
    public static IReadOnlyList<Level> All { get; } =
    [
        Row("2.0", 147_456, 4_423_680, 2048, 1.5),
        Row("2.1", 278_784, 8_363_520, 2816, 3),
        Row("3.0", 665_856, 19_975_680, 4352, 6),
        Row("3.1", 1_065_024, 31_950_720, 5504, 10),
        Row("4.0", 2_359_296, 70_778_880, 6144, 12),
        Row("4.1", 2_359_296, 141_557_760, 6144, 20),
        Row("5.0", 8_912_896, 267_386_880, 8192, 30),
        Row("5.1", 8_912_896, 534_773_760, 8192, 40),
        Row("5.2", 8_912_896, 1_069_547_520, 8192, 60),
        Row("6.0", 35_651_584, 1_069_547_520, 16384, 60),
        Row("6.1", 35_651_584, 2_139_095_040, 16384, 100),
        Row("6.2", 35_651_584, 4_278_190_080, 16384, 160),
    ];

    public static (string Name, double Factor) ProfileOf(ClipFormat format) => (format.Chroma, format.BitDepth) switch
    {
        (ChromaSubsampling.Quarter, <= 10) => ("Main", 1),
        (ChromaSubsampling.Full, <= 10) => ("High", 2),
        _ => ("Professional", 3),
    };

    private static Level Row(string name, long frameSize, long rate, int longestSide, double megabits) =>
        new(name, frameSize, rate, longestSide, DataRate.FromMegabits(megabits));
}
