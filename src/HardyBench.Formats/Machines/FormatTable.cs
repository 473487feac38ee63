using System.Globalization;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Machines;

/// <summary>A media engine's table in one cell: "hevc 4:2:2 10 3840x2160; avc 4:2:0 8 1920x1080".</summary>
internal static class FormatTable
{
    public static string Write(IReadOnlyList<FormatCapability> rows) => string.Join("; ", rows.Select(row => string.Create(
        CultureInfo.InvariantCulture,
        $"{BenchJson.Name(row.Codec)} {row.Chroma.Notation} {row.MaxBitDepth} {row.MaxRaster.Width}x{row.MaxRaster.Height}")));

    /// <returns>The rows, and what is none.</returns>
    public static (IReadOnlyList<FormatCapability> Rows, IReadOnlyList<string> Unread) Read(string text)
    {
        var (rows, unread) = (new List<FormatCapability>(), new List<string>());
        foreach (var one in text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            if (Row(one) is { } row)
            {
                rows.Add(row);
            }
            else
            {
                unread.Add(one);
            }
        }

        return (rows, unread);
    }

    public static string Refusal(string text, string column) =>
        $"'{text}' in {column} is not a format; 'hevc 4:2:2 10 3840x2160' is one.";

    private static FormatCapability? Row(string text)
    {
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var sides = words.Length == 4 ? words[3].Split('x') : [];
        var chroma = Enum.GetValues<ChromaSubsampling>()
            .Where(one => words.Length == 4 && one.Notation == words[1])
            .Cast<ChromaSubsampling?>()
            .FirstOrDefault();
        return chroma is { } known && Enum.TryParse<Codec>(words[0], ignoreCase: true, out var codec) && Enum.IsDefined(codec)
            && int.TryParse(words[2], NumberStyles.None, CultureInfo.InvariantCulture, out var depth) && sides.Length == 2
            && int.TryParse(sides[0], NumberStyles.None, CultureInfo.InvariantCulture, out var width) && width > 0
            && int.TryParse(sides[1], NumberStyles.None, CultureInfo.InvariantCulture, out var height) && height > 0
            ? new FormatCapability(codec, known, depth, new Raster(width, height))
            : null;
    }
}
