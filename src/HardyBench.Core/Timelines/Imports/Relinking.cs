using HardyBench.Core.Footage;

namespace HardyBench.Core.Timelines.Imports;

/// <summary>Finds clips for the footage that an imported timeline names.</summary>
public static class Relinking
{
    /// <summary>By name, then by checksum.</summary>
    /// <returns>Null when none fits.</returns>
    public static Clip? Find(ImportedMedia media, IEnumerable<Clip> clips)
    {
        var all = clips.ToList();
        string?[] names = [media.Name, Stem(media.Name), FileName(media.Address), Stem(FileName(media.Address))];
        return all.Find(clip => names.Any(name => name is not null
                && (
                    string.Equals(name, clip.Id, StringComparison.OrdinalIgnoreCase)
                    || string.Equals(name, clip.Title, StringComparison.OrdinalIgnoreCase)
                )
            )
        ) ?? all.Find(clip => clip.Sha256 is not null && string.Equals(clip.Sha256, media.Sha256, StringComparison.OrdinalIgnoreCase));
    }

    /// <summary>Clips that could stand in for footage that is missing: of the same format where that is known.</summary>
    public static IReadOnlyList<Clip> Substitutes(ImportedMedia media, IEnumerable<Clip> clips) => media.Format is not { } format
        ? []
        : [.. clips.Where(clip => (clip.Format.Codec, clip.Format.Chroma, clip.Format.BitDepth, clip.Format.Raster, clip.Format.Rate)
            == (format.Codec, format.Chroma, format.BitDepth, format.Raster, format.Rate))];

    private static string? FileName(string? address) => address is null ? null : Uri.UnescapeDataString(address.Split('/', '\\')[^1]);

    private static string? Stem(string? name) => name?.LastIndexOf('.') is > 0 and var dot ? name[..dot] : name;
}
