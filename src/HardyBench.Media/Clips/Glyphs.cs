namespace HardyBench.Media.Clips;

/// <summary>Digits and the colon as 3 × 5 blocks, for the timecode burnt into clips.</summary>
internal static class Glyphs
{
    public const int Width = 3, Height = 5;

    private static readonly ushort[] Bits =
    [
        0b111_101_101_101_111, 0b010_110_010_010_111, 0b111_001_111_100_111, 0b111_001_111_001_111, 0b101_101_111_001_001,
        0b111_100_111_001_111, 0b111_100_111_101_111, 0b111_001_001_010_010, 0b111_101_111_101_111, 0b111_101_111_001_111,
        0b000_010_000_010_000,
    ];

    /// <summary>Whether a block of a character is lit; characters other than digits look like a colon.</summary>
    public static bool IsLit(char letter, int column, int row)
    {
        var bits = Bits[char.IsAsciiDigit(letter) ? letter - '0' : 10];
        return (bits >> (Width * Height - 1 - (row * Width + column)) & 1) == 1;
    }
}
