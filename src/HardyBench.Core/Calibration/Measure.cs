using HardyBench.Core.Footage;

namespace HardyBench.Core.Calibration;

/// <summary>What a passage of a calibration is played for.</summary>
public enum MeasureKind
{
    /// <summary>Decoding alone, on one thread.</summary>
    OneThread,

    /// <summary>Decoding alone, on as many threads as there are cores.</summary>
    AllThreads,

    /// <summary>Decoding and one kind of treatment, on all cores.</summary>
    Treatment,
}

/// <summary>One passage of a calibration and how fast it went.</summary>
/// <param name="Clip">The id of its clip.</param>
/// <param name="Work">What treats it: the id of an effect, or the name of work that comes with none; null for nothing.</param>
/// <param name="Pixels">That the treatment works on.</param>
/// <param name="Deep">Whether it is treated at more than 8 bits a sample.</param>
/// <param name="FramesPerSecond">Sustained, without a clock; 0 where there were too few frames to tell.</param>
/// <param name="DecodeSeconds">Processor time of the decoding threads for each frame. What waits, for others or for a host, does not
/// count.</param>
/// <param name="EffectsSeconds">The same of the effects threads.</param>
public sealed record Measure(
    MeasureKind Kind, string Clip, ClipFormat Format, string? Work, double Pixels, bool Deep, double FramesPerSecond = 0,
    double DecodeSeconds = 0, double EffectsSeconds = 0)
{
    /// <summary>The cost of decoding that it tells of: each codec has one at 8 bits a sample and one above.</summary>
    public (Codec Codec, bool Deep) DecodesAs => (Format.Codec, Format.BitDepth > 8);

    /// <summary>Whether there were frames and processor time enough to tell.</summary>
    public bool IsUsable => FramesPerSecond > 0 && DecodeSeconds > 0;
}
