namespace HardyBench.Core.Footage;

/// <summary>What a clip is made of, as far as playing it is concerned.</summary>
/// <param name="BitDepth">Bits a sample: 8 to 16, or 32 for samples that are fractions.</param>
/// <param name="GopLength">Frames from one picture that stands alone to the next; 1 is all-intra.</param>
/// <param name="DataRate">Compressed bits a second of running time, as measured of the file.</param>
public sealed record ClipFormat(
    Codec Codec,
    ChromaSubsampling Chroma,
    int BitDepth,
    Raster Raster,
    FrameRate Rate,
    int GopLength,
    DataRate DataRate)
{
    /// <summary>Whether every frame stands alone.</summary>
    public bool IsAllIntra => GopLength <= 1;

    /// <summary>Seconds from one picture that stands alone to the next; null where every one does.</summary>
    public double? KeySeconds => IsAllIntra ? null : GopLength / Rate.FramesPerSecond;

    /// <summary>Samples in one frame: pixels × samples a pixel.</summary>
    public double SamplesPerFrame => Raster.Pixels * Chroma.SamplesPerPixel;

    /// <summary>Bytes a decoded sample takes: 1 up to 8 bit, 2 up to 16, else 4.</summary>
    public int BytesPerSample => BitDepth <= 8 ? 1 : BitDepth <= 16 ? 2 : 4;

    /// <summary>Bytes one decoded frame takes in memory.</summary>
    public double BytesPerDecodedFrame => SamplesPerFrame * BytesPerSample;

    /// <summary>Mean compressed bits of one frame.</summary>
    public double BitsPerFrame => DataRate.BitsPerSecond / Rate.FramesPerSecond;

    /// <summary>Codec, depth and chroma in one breath: "HEVC 10-bit 4:2:2".</summary>
    public string Encoding => $"{Codec.StandardName} {BitDepth}-bit {Chroma.Notation}";

    /// <summary>Raster and rate in one breath: "UHD 25".</summary>
    public string RasterAndRate => $"{Raster} {Rate}";
}
