using HardyBench.Core.Footage;
using HardyBench.Core.Playback.Exports;

namespace HardyBench.Core.StandIns;

/// <summary>What encoding costs on a processor, by the picture alone: that pictures are harder or easier to encode is left aside.</summary>
/// <param name="NanosecondsPerPixel">On one reference core.</param>
/// <param name="SerialPart">The part of the work that no second thread can share (Amdahl 1967).</param>
/// <param name="UsableThreads">Threads beyond which the encoder gains nothing.</param>
/// <param name="HeldFrames">Frames that it looks back at and ahead into.</param>
public sealed record EncodeCost(double NanosecondsPerPixel, double SerialPart, int UsableThreads, int HeldFrames)
{
    /// <summary>Frames that a media engine holds while it encodes. An estimate, no source.</summary>
    public const int HeldByEngine = 8;

    /// <summary>Times of FFmpeg's encoders with the arguments of a real export, on one thread, over the starter pack's pictures at
    /// 1280×720 and 1920×1080, rounded (see docs/model.md). What they share out and hold is by their own default settings, from
    /// memory.</summary>
    public static EncodeCost Of(ExportFormat format) => format switch
    {
        ExportFormat.Avc => new EncodeCost(68, 0.02, 24, 60),
        ExportFormat.Hevc => new EncodeCost(180, 0.03, 24, 40),
        ExportFormat.Rdd36 => new EncodeCost(30, 0.01, 32, 2),
        _ => throw new ArgumentOutOfRangeException(nameof(format), format, "Its cost is not known."),
    };

    /// <summary>Core-seconds a frame on the reference core.</summary>
    public double CoreSeconds(Raster raster) => NanosecondsPerPixel * 1e-9 * raster.Pixels;

    /// <summary>How many times faster than one core <paramref name="cores"/> are.</summary>
    public double SpeedUp(double cores) => Amdahl.SpeedUp(SerialPart, cores, UsableThreads);
}
