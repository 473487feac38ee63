using HardyBench.Core.Footage.Levels;

namespace HardyBench.Core.Footage;

/// <summary>What a clip's format means for those who work with it.</summary>
/// <param name="SamplesPerSecond">Brightness and colour samples.</param>
/// <param name="Uncompressed">Data rate of the decoded samples at their own depth, without padding.</param>
/// <param name="BitsPerPixel">Compressed.</param>
/// <param name="CompressionRatio">Uncompressed ÷ compressed.</param>
/// <param name="Standard">Profile and level, or null for codecs without.</param>
/// <param name="MeanRandomAccess">Frames to decode to reach a frame picked at random: (G + 1) ÷ 2 in a GOP of G.</param>
/// <param name="WorstRandomAccess">Frames to decode to reach the last frame of a GOP: G.</param>
/// <param name="GigabytesPerHour">10⁹ bytes.</param>
/// <param name="MemoryPerSecond">Bytes that a second of decoded frames takes in memory, where a sample above 8 bit takes two.</param>
public sealed record ClipFacts(
    double SamplesPerSecond,
    DataRate Uncompressed,
    double BitsPerPixel,
    double CompressionRatio,
    ProfileAndLevel? Standard,
    double MeanRandomAccess,
    int WorstRandomAccess,
    double GigabytesPerHour,
    double MemoryPerSecond)
{
    public static ClipFacts Of(ClipFormat format)
    {
        var rate = format.Rate.FramesPerSecond;
        var samples = format.SamplesPerFrame * rate;
        var uncompressed = new DataRate((long)(samples * format.BitDepth));
        var compressed = Math.Max(1, format.DataRate.BitsPerSecond);
        return new ClipFacts(
            samples,
            uncompressed,
            compressed / (format.Raster.Pixels * rate),
            (double)uncompressed.BitsPerSecond / compressed,
            LevelTables.Of(format),
            (format.GopLength + 1) / 2.0,
            format.GopLength,
            format.DataRate.BitsPerSecond / 8.0 * 3600 / 1e9,
            format.BytesPerDecodedFrame * rate);
    }

    /// <summary>Source frames to decode for each frame of a timeline: long-GOP all that run by, all-intra those shown.</summary>
    /// <param name="speed">Playing speed, 1 as shot.</param>
    public static double SourceFramesPerTimelineFrame(ClipFormat format, FrameRate timeline, double speed = 1)
    {
        var running = speed * format.Rate.FramesPerSecond / timeline.FramesPerSecond;
        return format.IsAllIntra ? Math.Min(1, running) : running;
    }

    /// <summary>Streams of this clip that a drive can feed, seeks aside.</summary>
    public static int StreamsFrom(ClipFormat format, double driveMegabytesPerSecond) =>
        (int)(driveMegabytesPerSecond * 8e6 / Math.Max(1, format.DataRate.BitsPerSecond));
}
