using HardyBench.Core.Footage;

namespace HardyBench.Core.Machines;

/// <summary>A fixed-function decoder and the formats it admits.</summary>
public sealed record MediaEngine(string Name, double MegapixelsPerSecond, IReadOnlyList<DecodeCapability> Capabilities)
{
    /// <summary>Whether the engine decodes a format, and if not, why not.</summary>
    /// <returns>Null when it does; otherwise a reason such as "no 10-bit 4:2:2 for HEVC".</returns>
    public string? RefusalOf(ClipFormat format)
    {
        var ofCodec = Capabilities.Where(capability => capability.Codec == format.Codec).ToList();
        if (ofCodec.Count == 0)
        {
            return $"no {format.Codec.StandardName}";
        }

        var ofProfile = ofCodec.Where(capability =>
            capability.Chroma.Covers(format.Chroma) && format.BitDepth <= capability.MaxBitDepth).ToList();
        if (ofProfile.Count == 0)
        {
            return $"no {format.BitDepth}-bit {format.Chroma.Notation} for {format.Codec.StandardName}";
        }

        return ofProfile.Exists(capability => format.Raster.FitsIn(capability.MaxRaster))
            ? null
            : $"{format.Raster} is larger than it takes for {format.Codec.StandardName}";
    }
}

/// <summary>One row of a media engine's table.</summary>
/// <param name="Chroma">The richest it takes: decoders of a profile take those of the profiles below it too (ITU-T H.264 A.2, H.265 A.3).</param>
public sealed record DecodeCapability(Codec Codec, ChromaSubsampling Chroma, int MaxBitDepth, Raster MaxRaster);
