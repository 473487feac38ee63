using HardyBench.Core.Calibration;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Wording;
using HardyBench.Server.Live;

namespace HardyBench.Server.Calibration;

/// <summary>What is known of this machine by measuring it.</summary>
/// <param name="Now">How measuring stands.</param>
/// <param name="Newest">Null before the first calibration.</param>
/// <param name="Predictions">Of the newest calibration.</param>
/// <param name="Words">How good predictions were, in words; null without any.</param>
public sealed record CalibrationView(
    CreationView Now, MeasuredView? Newest, string? Words, PredictionFigures Figures, IReadOnlyList<Prediction> Predictions)
{
    internal static CalibrationView Of(
        CreationView now, MachineCalibration? newest, IReadOnlyList<Prediction> predictions, Machine machine)
    {
        // What an earlier twin predicted says nothing of this one.
        List<Prediction> its = [.. predictions.Where(prediction => prediction.Calibration == newest?.Id)];
        var figures = PredictionFigures.Of(its);
        return new CalibrationView(
            now, newest is null ? null : MeasuredView.Of(newest, machine), CalibrationWords.Of(figures), figures, its);
    }
}

/// <summary>A calibration as a page shows it.</summary>
/// <param name="TwinId">The stand-in that plays by it.</param>
/// <param name="CoreSpeed">Of a core against the reference core.</param>
/// <param name="Band">Of predictions, as a share.</param>
/// <param name="Seconds">How long measuring took.</param>
public sealed record MeasuredView(
    DateTimeOffset At, string TwinId, string Words, double CoreSpeed, double Band, double? ReadMegabytesPerSecond, double Seconds,
    IReadOnlyList<DecodeRow> Decoding, IReadOnlyList<CostRow> Costs, IReadOnlyList<TreatingRow> Treating)
{
    /// <summary>That the machine has changed since, and what to do, in words; null where it has not.</summary>
    public string? Outdated { get; init; }

    internal static MeasuredView Of(MachineCalibration calibration, Machine machine) => new(
        calibration.At, calibration.Twin.Id, CalibrationWords.Of(calibration), calibration.CoreSpeed, calibration.Twin.Costs!.Band,
        calibration.ReadMegabytesPerSecond, calibration.Took.TotalSeconds,
        [
            .. calibration.Decodes.Select(decode => new DecodeRow(
                decode.Clip, $"{decode.Format.Encoding}, {decode.Format.Raster}, {decode.Format.DataRate}", decode.Measured * 1000,
                decode.Fitted * 1000)),
        ],
        [
            .. calibration.Twin.Costs.Decoding.Select(cost => new CostRow(
                $"{cost.Codec.StandardName}, {(cost.Deep ? "above 8 bit" : "8 bit")}", cost.PerSampleByte * 1e9,
                cost.PerSampleByteHalf * 1e9, cost.PerBit * 1e9, cost.PerBitHalf * 1e9, cost.SerialPart,
                cost.BitsSerialPart ?? cost.SerialPart)),
        ],
        [
            .. calibration.Twin.Costs.Treating.Select(time => new TreatingRow(
                CalibrationWords.NameOf(time.Work), time.Nanoseconds, time.DeepNanoseconds)),
        ])
    {
        Outdated = calibration.Measured is { } measured ? CalibrationWords.Outdated(measured, machine) : null,
    };
}

/// <param name="MeasuredMs">Milliseconds a frame on one thread.</param>
/// <param name="FittedMs">Milliseconds a frame on one thread.</param>
public sealed record DecodeRow(string Clip, string Format, double MeasuredMs, double FittedMs);

/// <summary>Nanoseconds on the reference core, each with half of its 95 % interval.</summary>
/// <param name="SerialPart">Of the samples' work, that more cores do not shorten, 0 to 1.</param>
/// <param name="BitsSerialPart">The same of the bits' work.</param>
public sealed record CostRow(
    string Name, double PerSampleByte, double PerSampleByteHalf, double PerBit, double PerBitHalf, double SerialPart,
    double BitsSerialPart);

/// <summary>Nanoseconds a pixel on the reference core.</summary>
public sealed record TreatingRow(string Name, double? Nanoseconds, double? DeepNanoseconds);
