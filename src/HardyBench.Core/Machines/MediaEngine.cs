using System.Text.Json.Serialization;
using HardyBench.Core.Footage;

namespace HardyBench.Core.Machines;

/// <summary>A fixed-function decoder and the formats it admits; some encode as well.</summary>
public sealed record MediaEngine(string Name, double MegapixelsPerSecond, IReadOnlyList<FormatCapability> Capabilities)
{
    /// <summary>What it also encodes; null for nothing.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public IReadOnlyList<FormatCapability>? Encodes { get; init; }

    /// <summary>How fast, where it does.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public double? EncodedMegapixelsPerSecond { get; init; }

    /// <summary>Why it does not decode a format; null when it does.</summary>
    public EngineRefusal? RefusalOf(ClipFormat format)
    {
        var ofCodec = Capabilities.Where(capability => capability.Codec == format.Codec).ToList();
        var ofProfile = ofCodec.Where(capability => capability.CoversProfile(format)).ToList();
        return ofCodec.Count == 0 ? new EngineRefusal(MissingCapability.Codec, format)
            : ofProfile.Count == 0 ? new EngineRefusal(MissingCapability.Profile, format)
            : ofProfile.Exists(capability => capability.Covers(format)) ? null
            : new EngineRefusal(MissingCapability.Raster, format);
    }
}

/// <summary>What a media engine lacks for a format, the farther first.</summary>
public enum MissingCapability
{
    Codec,

    /// <summary>Its chroma or its bit depth.</summary>
    Profile,

    Raster,

    /// <summary>Nothing: the editing program does not hand it over.</summary>
    Program,
}

/// <summary>Why a media engine does not decode a format.</summary>
public sealed record EngineRefusal(MissingCapability Lack, ClipFormat Format);

/// <summary>One row of a media engine's table.</summary>
/// <param name="Chroma">The richest it takes: decoders of a profile take those of the profiles below it too (ITU-T H.264 A.2, H.265
/// A.3).</param>
public sealed record FormatCapability(Codec Codec, ChromaSubsampling Chroma, int MaxBitDepth, Raster MaxRaster)
{
    /// <summary>"AVC 4:2:0 to 8 bit, up to 3840×2160".</summary>
    [JsonIgnore]
    public string Notation => $"{Codec.StandardName} {Chroma.Notation} to {MaxBitDepth} bit, up to {MaxRaster}";

    /// <summary>Whether a format lies within it.</summary>
    public bool Covers(ClipFormat format) => CoversProfile(format) && format.Raster.FitsIn(MaxRaster);

    internal bool CoversProfile(ClipFormat format) =>
        format.Codec == Codec && Chroma.Covers(format.Chroma) && format.BitDepth <= MaxBitDepth;
}
