using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using HardyBench.Core.Footage;

namespace HardyBench.Media.Clips;

/// <summary>How a clip is made from the master. The same recipe gives the same pictures on every machine.</summary>
/// <param name="Family">Recipes of one family share pictures and differ in one thing.</param>
/// <param name="TargetRate">Data rate the encoder is asked for; null where the encoder sets its own.</param>
/// <param name="Grade">Which of the data rates of an intermediate, from 0, the lowest.</param>
/// <param name="BidirectionalFrames">B frames between two others that a long-GOP encoder may set.</param>
public sealed record ClipRecipe(
    string Id,
    string Title,
    string Family,
    Codec Codec,
    ChromaSubsampling Chroma,
    int BitDepth,
    Raster Raster,
    FrameRate Rate,
    int FrameCount,
    int GopLength,
    DataRate? TargetRate)
{
    /// <summary>Raised whenever the master's pictures or the encoders' settings change, so that old files are made again.</summary>
    private const int Version = 4;

    public int Grade { get; init; }

    public int BidirectionalFrames { get; init; } = 3;

    public MasterLook Look { get; init; } = MasterLook.Plain;

    /// <summary>Whether pictures carry the index strip and the timecode.</summary>
    public bool Strip { get; init; } = true;

    /// <summary>The first eight hex digits of the recipe's SHA-256: part of the file's name, so that a changed recipe
    /// never passes an old file off as its own.</summary>
    public string Digest => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Create(
        CultureInfo.InvariantCulture,
        $"{Version}|{Id}|{Codec}|{Chroma}|{BitDepth}|{Raster.Width}x{Raster.Height}|{Rate.Numerator}/{Rate.Denominator}|{FrameCount}|{GopLength}|{TargetRate?.BitsPerSecond}|{Grade}|{BidirectionalFrames}|{Look.MotionPercent}|{Look.DetailPercent}|{Look.GrainPercent}|{Strip}"
    ))))[..8];

    /// <summary>Name of the made file.</summary>
    public string FileName => $"{Id}-{Digest}{Encoders.Container(Codec)}";

    /// <summary>The format that the recipe asks for; a made clip's own format is measured.</summary>
    public ClipFormat Asked => new(Codec, Chroma, BitDepth, Raster, Rate, GopLength, TargetRate ?? EstimatedRate);

    /// <summary>Bytes to reserve before making it.</summary>
    public long EstimatedBytes => (long)(Asked.DataRate.BitsPerSecond / 8.0 * Rate.StartOf(FrameCount).TotalSeconds * 1.5);

    /// <summary>Where encoders set their own rate: bits a pixel near what they land at on this master.</summary>
    private DataRate EstimatedRate => new((long)(Raster.Pixels * Rate.FramesPerSecond * Encoders.EstimatedBitsPerPixel(Codec, Grade)));
}
