using System.Globalization;
using System.Text.RegularExpressions;
using HardyBench.Core.Footage;

namespace HardyBench.Media.Clips.Probing;

/// <summary>What FFmpeg's names of pixel formats say.</summary>
internal static partial class PixelFormats
{
    /// <summary>By the ratio in the name; formats without one have colour for every pixel.</summary>
    public static ChromaSubsampling ChromaOf(string name)
    {
        return Begins("gray", "ya", "mono") ? ChromaSubsampling.None
            : Has("420") || Begins("nv12", "nv21", "p010", "p012", "p016") ? ChromaSubsampling.Quarter
            : Has("422") || Begins("nv16", "nv20", "p210", "p212", "p216", "y210", "y212") ? ChromaSubsampling.Half
            : Has("440") ? ChromaSubsampling.HalfDown
            : Has("411") ? ChromaSubsampling.QuarterAcross
            : Has("410") ? ChromaSubsampling.Sixteenth
            : ChromaSubsampling.Full;

        bool Has(string ratio) => name.Contains(ratio, StringComparison.Ordinal);

        bool Begins(params string[] heads) => heads.Any(head => name.StartsWith(head, StringComparison.Ordinal));
    }

    /// <summary>Bits a sample: 32 for floating point, 16 where a pixel of three or four samples is listed with 48 or 64 bits.</summary>
    public static int DepthOf(string name)
    {
        if (name.Contains("f32", StringComparison.Ordinal))
        {
            return 32;
        }

        if (name.Contains("f16", StringComparison.Ordinal) || WholePixel().IsMatch(name))
        {
            return 16;
        }

        var match = Depth().Match(name);
        return match.Success ? int.Parse(match.Groups["bits"].Value, CultureInfo.InvariantCulture) : 8;
    }

    /// <summary>Whether it can be transparent.</summary>
    public static bool HasTransparency(string name) =>
        name.StartsWith("yuva", StringComparison.Ordinal)
        || name.StartsWith("ya", StringComparison.Ordinal)
        || name.StartsWith("gbrap", StringComparison.Ordinal)
        || name.Contains("rgba", StringComparison.Ordinal)
        || name.Contains("bgra", StringComparison.Ordinal)
        || name.Contains("argb", StringComparison.Ordinal)
        || name.Contains("abgr", StringComparison.Ordinal) || name == "pal8";

    [GeneratedRegex("^(rgb|bgr)48|^(rgba|bgra)64", RegexOptions.CultureInvariant)]
    private static partial Regex WholePixel();

    [GeneratedRegex("(p|gray|p0|p2|y2|ya|x2rgb|x2bgr)(?<bits>9|10|12|14|16)(le|be)?$", RegexOptions.CultureInvariant)]
    private static partial Regex Depth();
}
