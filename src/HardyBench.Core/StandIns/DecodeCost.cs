using HardyBench.Core.Footage;
using HardyBench.Core.Machines;

namespace HardyBench.Core.StandIns;

/// <summary>What decoding costs on a processor: core-seconds a frame = perSampleByte · S·w + perBit · bits on the
/// reference core, where S is samples a frame and w bytes a sample.</summary>
/// <param name="SerialPart">The part of the work that no second thread can share (Amdahl 1967).</param>
/// <param name="UsableThreads">Threads beyond which the decoder gains nothing.</param>
public sealed record DecodeCost(double PerSampleByte, double PerBit, double SerialPart, int UsableThreads)
{
    /// <summary>How unevenly a GOP shares its bits: an I frame, a referenced P frame, an unreferenced B frame.
    /// Common practice, no source: I well above P, P above B.</summary>
    private const double IntraWeight = 6, PredictedWeight = 1.5, BidirectionalWeight = 0.5;

    /// <summary>The coefficients of a codec. Fitted by least squares to single-thread decodes of the starter pack
    /// and its smaller sisters with the product's own player (see docs/model.md); the reference core is the one they
    /// were timed on.</summary>
    public static DecodeCost Of(Codec codec) => codec switch
    {
        Codec.Avc => new DecodeCost(2.3e-9, 10.4e-9, 0.02, 16),
        Codec.Hevc => new DecodeCost(1.6e-9, 30e-9, 0.02, 16),
        Codec.Rdd36 => new DecodeCost(0.44e-9, 3.8e-9, 0.01, 32),
        Codec.Vc3 => new DecodeCost(0.70e-9, 2.7e-9, 0.01, 32),
        Codec.Vc5 => new DecodeCost(0.81e-9, 3.5e-9, 0.01, 16),

        // One clip of each was timed, which settles the sum; how it is shared between samples and bits is an estimate. No published source.
        Codec.Av1 => new DecodeCost(2.6e-9, 17.9e-9, 0.03, 16),
        Codec.Vp9 => new DecodeCost(3.1e-9, 14.6e-9, 0.05, 8),
        Codec.Mpeg2 => new DecodeCost(0.8e-9, 3e-9, 0.02, 16),
        Codec.MotionJpeg => new DecodeCost(0.77e-9, 3.2e-9, 0.01, 32),
        Codec.Jpeg2000 => new DecodeCost(7.4e-9, 41.7e-9, 0.01, 32),
        Codec.Ffv1 => new DecodeCost(2.28e-9, 13.7e-9, 0.02, 16),

        // Not timed: estimates. No published source.
        Codec.Png => new DecodeCost(1.5e-9, 4e-9, 1, 1),
        Codec.CameraRaw => new DecodeCost(9e-9, 6e-9, 0.01, 32),
        _ => new DecodeCost(3.6e-9, 8.5e-9, 0.05, 8),
    };

    /// <summary>What it takes on a machine: as measured on it, else as on all.</summary>
    public static DecodeCost Of(ClipFormat format, Machine machine) => machine.Costs?.Of(format) is { } measured
        ? new DecodeCost(measured.PerSampleByte, measured.PerBit, measured.SerialPart, Of(format.Codec).UsableThreads)
        {
            BitsSerialPart = measured.BitsSerialPart,
        }
        : Of(format.Codec);

    /// <summary>Where the bits' work is shared out less or better than the samples', its own such part.</summary>
    public double? BitsSerialPart { get; init; }

    /// <summary>Core-seconds on the reference core for the source frame at <paramref name="position"/> of its GOP.</summary>
    public double CoreSeconds(ClipFormat format, int position) => Seconds(format, position, 1);

    /// <summary>Seconds that it takes on so many reference cores.</summary>
    public double Seconds(ClipFormat format, int position, double cores) => Seconds(format, BitShare(position, format.GopLength), cores);

    private double Seconds(ClipFormat format, double bitShare, double cores) =>
        PerSampleByte * format.SamplesPerFrame * format.BytesPerSample / SpeedUp(cores)
        + PerBit * format.BitsPerFrame * bitShare
            / Amdahl.SpeedUp(BitsSerialPart ?? SerialPart, cores, UsableThreads);

    /// <summary>The same on average over a GOP.</summary>
    public double MeanSeconds(ClipFormat format, double cores) => Seconds(format, 1.0, cores);

    /// <summary>Mean core-seconds on the reference core over a GOP.</summary>
    public double MeanCoreSeconds(ClipFormat format) =>
        PerSampleByte * format.SamplesPerFrame * format.BytesPerSample + PerBit * format.BitsPerFrame;

    /// <summary>How many times faster than one core <paramref name="cores"/> are.</summary>
    public double SpeedUp(double cores) => Amdahl.SpeedUp(SerialPart, cores, UsableThreads);

    /// <summary>Whether other frames refer to the one at this place of a GOP. Stand-ins take the plain pattern
    /// I B P B P …, in which every second frame can be left out.</summary>
    public static bool IsReferenced(int position, int gopLength) => gopLength <= 1 || position % 2 == 0;

    /// <summary>Bits of a frame against the mean of its GOP, which averages 1 over the GOP.</summary>
    public static double BitShare(int position, int gopLength)
    {
        if (gopLength <= 1)
        {
            return 1;
        }

        var bidirectional = gopLength / 2;
        var predicted = gopLength - 1 - bidirectional;
        var whole = IntraWeight + predicted * PredictedWeight + bidirectional * BidirectionalWeight;
        var weight = position == 0 ? IntraWeight
            : IsReferenced(position, gopLength) ? PredictedWeight
            : BidirectionalWeight;
        return weight * gopLength / whole;
    }
}
