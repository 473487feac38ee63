using HardyBench.Core.Calibration;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Machines;
using HardyBench.Core.Timelines.Effects;
using MathNet.Numerics.Statistics;
using static System.FormattableString;
using static HardyBench.Core.Figures;

namespace HardyBench.Core.Wording;

/// <summary>A calibration in words.</summary>
public static class CalibrationWords
{
    private const double WorthSaying = 0.98;

    /// <summary>What came out, in two sentences or three.</summary>
    public static string Of(MachineCalibration calibration)
    {
        var off = calibration.Decodes.Select(decode => Math.Abs(decode.Fitted / decode.Measured - 1)).Median();
        return Invariant($"A core of this machine is {calibration.CoreSpeed:0.00} times the reference core, by {calibration.Decodes.Count} ")
            + $"clips that were decoded on one thread; the median error of the fit is {Percent(off)}. "
            + $"{(calibration.Twin.Costs!.AllBusy < WorthSaying ? $"While all cores are busy each keeps {Percent(calibration.Twin.Costs.AllBusy)} of its speed. " : string.Empty)}"
            + $"Predictions from it are within {Percent(calibration.Twin.Costs.Band)} in 95 of 100 cases.";
    }

    /// <summary>That a machine is no longer what was measured, and what to do; null where it is.</summary>
    public static string? Outdated(Machine measured, Machine now) =>
        LikeForLike.Differences(measured, now) is { Count: > 0 } differences
            ? $"This machine has changed since: {string.Join("; ", differences.Select(ComparisonWords.Change))}. "
                + "These costs and the twin are of the machine before. Measure again."
            : null;

    /// <summary>How good predictions were; null where none can be judged.</summary>
    public static string? Of(PredictionFigures figures)
    {
        string?[] said =
        [
            figures.MedianError is { } error
                ? $"The sustained rates of {Count(figures.Rates, "passage")} had a median error of {Percent(error)}."
                : null,
            figures.Verdicts > 0
                ? $"Of {Count(figures.Verdicts, "passage")} that could be judged {figures.Same} came out as predicted, "
                    + $"{Percent((double)figures.Same / figures.Verdicts)}."
                : null,
        ];
        return said.OfType<string>().ToList() is { Count: > 0 } sentences ? string.Join(' ', sentences) : null;

        static string Count(int count, string what) => count == 1 ? $"1 {what}" : Invariant($"{count} {what}s");
    }

    /// <summary>How a kind of work is called: an effect by its label.</summary>
    public static string NameOf(string work) => EffectCatalogue.Find(work)?.Label ?? work switch
    {
        StandIns.TreatmentCost.Scaling => "scaling",
        StandIns.TreatmentCost.Blend => "laying over another",
        StandIns.TreatmentCost.ToColourAndBack => "to red, green, blue and back",
        _ => work,
    };
}
