using HardyBench.Core.Advice;
using HardyBench.Core.Findings;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using MathNet.Numerics.Statistics;

namespace HardyBench.Core.Calibration;

/// <summary>What the twin makes of a plan that was really played, beside what came of it.</summary>
/// <param name="Calibration">The id of the calibration that it goes by.</param>
/// <param name="IsUnpaced">Whether it was played without a clock, which tells how much could be done; else how much was shown.</param>
/// <param name="IsDisturbed">Whether the run says nothing of its machine.</param>
public sealed record Prediction(
    long RunId, string Calibration, string Timeline, DateTimeOffset StartedAt, bool IsUnpaced, bool IsDisturbed,
    IReadOnlyList<PredictedPassage> Passages)
{
    /// <summary>Whether the twin can speak of a run: played through, by the product's own player on the processor.</summary>
    public static bool Speaks(Run run) =>
        run.Ending == RunEnding.Finished
        && run.Header is { IsByHand: false, Settings.Pictures: false, Conditions: var conditions }
        && (conditions.Footage?.Values.All(clip => clip.DecodedOn == WorkPlace.Processor) ?? true)
        && (conditions.Effects?.Values.All(effect => effect.RanOn == WorkPlace.Processor) ?? true);

    /// <param name="runId">The number of the run.</param>
    /// <param name="plan">As it was played, aids with it.</param>
    public static Prediction Of(long runId, Run run, PlaybackPlan plan, MachineCalibration calibration)
    {
        var predicted = RunFindings.Of(new StandInPlayback(TimeProvider.System).Played(plan with { Machine = calibration.Twin }));
        var measured = RunFindings.Of(run);
        return new Prediction(
            runId,
            calibration.Id,
            run.Header.Timeline.Title,
            run.Header.StartedAt,
            run.Header.Settings.Policy == PlayingPolicy.Unpaced,
            Disturbance.Of(run, measured) is not null,
            [
                .. measured.Zip(predicted).Where(pair => pair.First.Counts.Slots > 0).Select(pair => new PredictedPassage(
                    pair.First.Index,
                    pair.First.Passage.Question,
                    pair.Second.Counts.ShownRate,
                    pair.First.Counts.ShownRate,
                    pair.Second.Verdict,
                    pair.First.Verdict,
                    plan.ClipsOf(plan.Played(pair.First.Index)).Any(clip => calibration.Twin.Costs!.Extrapolates(clip.Format)))),
            ]);
    }
}

/// <summary>One passage of it.</summary>
/// <param name="Index">Its place in the timeline, from 0.</param>
/// <param name="Predicted">Frames a second.</param>
/// <param name="Measured">Frames a second.</param>
/// <param name="Extrapolates">Whether its footage lies outside what was measured.</param>
public sealed record PredictedPassage(
    int Index, string Question, double Predicted, double Measured, Verdict? PredictedVerdict, Verdict? MeasuredVerdict, bool Extrapolates);

/// <summary>How good predictions were, over runs that say something of the machine.</summary>
/// <param name="Rates">Passages whose sustained rate was measured.</param>
/// <param name="MedianError">Of their rates, as a share of what was measured; null without any.</param>
/// <param name="Verdicts">Passages with a verdict of either kind.</param>
/// <param name="Same">Of those, where both are the same.</param>
public sealed record PredictionFigures(int Rates, double? MedianError, int Verdicts, int Same)
{
    public static PredictionFigures Of(IEnumerable<Prediction> predictions)
    {
        var counted = predictions.Where(prediction => !prediction.IsDisturbed).ToList();
        var errors = counted.Where(prediction => prediction.IsUnpaced).SelectMany(prediction => prediction.Passages)
            .Where(passage => passage is { Measured: > 0, Predicted: > 0 })
            .Select(passage => Math.Abs(passage.Predicted / passage.Measured - 1)).ToList();
        var verdicts = counted.SelectMany(prediction => prediction.Passages)
            .Where(passage => passage is { PredictedVerdict: not null, MeasuredVerdict: not null }).ToList();
        return new PredictionFigures(
            errors.Count, errors.Count > 0 ? errors.Median() : null, verdicts.Count,
            verdicts.Count(passage => passage.PredictedVerdict == passage.MeasuredVerdict));
    }
}
