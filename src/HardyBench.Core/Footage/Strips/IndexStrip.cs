namespace HardyBench.Core.Footage.Strips;

/// <summary>What an index strip says.</summary>
/// <param name="ClipTag">16 bits that stand for the clip's id, see <see cref="IndexStrip.TagOf"/>.</param>
/// <param name="Frame">Frame number, up to <see cref="IndexStrip.LastFrame"/>.</param>
public readonly record struct StripReading(int ClipTag, int Frame);

/// <summary>A row of black and white blocks along the bottom edge of a picture that says which clip and frame it is:
/// 4 marker blocks, 16 bits of clip tag, 20 bits of frame number, 16 bits of checksum, 4 marker blocks, highest bit
/// first, white for one.</summary>
public static class IndexStrip
{
    public const int Blocks = 60, LastFrame = (1 << 20) - 1;

    private const int MarkerBlocks = 4, TagBits = 16, FrameBits = 20, ChecksumBits = 16;
    private const int StartMarker = 0b1010, EndMarker = 0b0110;

    /// <summary>Brightness, of 255, that must lie between the darkest and the brightest block.</summary>
    private const double MinContrast = 48;

    /// <summary>Share of the contrast by which each block must clear the middle.</summary>
    private const double MinClearance = 0.2;

    /// <summary>Rows of a picture that the strip takes: a twentieth, even, at least 8.</summary>
    public static int HeightIn(int pictureHeight) => Math.Max(8, pictureHeight / 20 & ~1);

    /// <summary>16 bits for a clip's id; two ids may share them by chance.</summary>
    public static int TagOf(string clipId)
    {
        ulong bits = 0xFFFF;
        foreach (var letter in clipId)
        {
            bits = Crc((uint)bits, letter, 16);
        }

        return (int)bits;
    }

    /// <summary>Whether each block is white, from left to right.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The frame number does not fit.</exception>
    public static bool[] BlocksFor(int clipTag, int frame)
    {
        ArgumentOutOfRangeException.ThrowIfGreaterThan(frame, LastFrame);
        ArgumentOutOfRangeException.ThrowIfNegative(frame);
        var payload = ((ulong)(ushort)clipTag << FrameBits) | (uint)frame;
        var bits = ((ulong)StartMarker << (Blocks - MarkerBlocks))
            | (payload << (ChecksumBits + MarkerBlocks))
            | ((ulong)Checksum(payload) << MarkerBlocks)
            | EndMarker;
        return [.. Enumerable.Range(0, Blocks).Select(i => (bits >> (Blocks - 1 - i) & 1) == 1)];
    }

    /// <summary>The block that a column belongs to.</summary>
    public static int BlockAt(int x, int pictureWidth) => (int)((long)x * Blocks / pictureWidth);

    /// <summary>Reads the strip of a picture of any size.</summary>
    /// <param name="luma">Brightness, row by row, 0 to 255.</param>
    /// <param name="stride">Samples from one row to the next.</param>
    /// <returns>Null when there is no strip or any block of it is in doubt.</returns>
    public static StripReading? Read(ReadOnlySpan<byte> luma, int width, int height, int stride)
    {
        var rows = HeightIn(height);
        return height < 2 * rows ? null : ReadRows(luma[((height - rows) * stride)..], width, rows, stride);
    }

    /// <summary>Reads a strip of which only its own rows are available.</summary>
    /// <returns>Null when there is no strip or any block of it is in doubt.</returns>
    public static StripReading? ReadRows(ReadOnlySpan<byte> luma, int width, int rows, int stride)
    {
        if (width < Blocks * 2 || rows < 4)
        {
            return null;
        }

        Span<double> means = stackalloc double[Blocks];
        var (darkest, brightest) = (double.MaxValue, double.MinValue);
        for (var block = 0; block < Blocks; block++)
        {
            means[block] = MeanOf(luma, width, rows, stride, block);
            (darkest, brightest) = (Math.Min(darkest, means[block]), Math.Max(brightest, means[block]));
        }

        var contrast = brightest - darkest;
        if (contrast < MinContrast)
        {
            return null;
        }

        var middle = (darkest + brightest) / 2;
        ulong bits = 0;
        foreach (var mean in means)
        {
            if (Math.Abs(mean - middle) < MinClearance * contrast)
            {
                return null;
            }

            bits = bits << 1 | (mean > middle ? 1UL : 0);
        }

        return Parse(bits);
    }

    private static StripReading? Parse(ulong bits)
    {
        var payload = bits >> (ChecksumBits + MarkerBlocks) & ((1UL << (TagBits + FrameBits)) - 1);
        return bits >> (Blocks - MarkerBlocks) == StartMarker
            && (bits & ((1 << MarkerBlocks) - 1)) == EndMarker
            && (bits >> MarkerBlocks & 0xFFFF) == Checksum(payload)
                ? new StripReading((int)(payload >> FrameBits), (int)(payload & LastFrame))
                : null;
    }

    /// <summary>Mean of the inner part of a block, where neither scaling nor ringing of its neighbours reaches.</summary>
    private static double MeanOf(ReadOnlySpan<byte> luma, int width, int rows, int stride, int block)
    {
        var (left, right) = (Edge(block + 0.3), Math.Max(Edge(block + 0.3) + 1, Edge(block + 0.7)));
        var (top, bottom) = (rows / 4, rows - rows / 4);
        long sum = 0;
        for (var y = top; y < bottom; y++)
        {
            foreach (var sample in luma.Slice(y * stride + left, right - left))
            {
                sum += sample;
            }
        }

        return (double)sum / ((right - left) * (bottom - top));

        int Edge(double at) => (int)Math.Round(at * width / Blocks);
    }

    private static ushort Checksum(ulong payload)
    {
        ulong crc = 0xFFFF;
        for (var shift = TagBits + FrameBits - 4; shift >= 0; shift -= 4)
        {
            crc = Crc((uint)crc, (uint)(payload >> shift) & 0xF, 4);
        }

        return (ushort)crc;
    }

    /// <summary>CRC-16 with the polynomial of ITU-T V.41, x¹⁶ + x¹² + x⁵ + 1.</summary>
    private static uint Crc(uint crc, uint data, int bits)
    {
        for (var bit = bits - 1; bit >= 0; bit--)
        {
            var top = (crc >> 15 ^ data >> bit) & 1;
            crc = (crc << 1 ^ (top == 1 ? 0x1021u : 0)) & 0xFFFF;
        }

        return crc;
    }
}
