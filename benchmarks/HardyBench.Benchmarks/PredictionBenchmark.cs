using HardyBench.Core.Calibration;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Wording;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>How well a calibration predicts timelines and clips that it was not made with: sustained rates without a clock, verdicts with
/// one. To be run on unlike machines: with taskset(1) on one core, in control groups with a quota or little memory. Promise: the median of
/// rates within a tenth, nine verdicts of ten the same.</summary>
internal static class PredictionBenchmark
{
    /// <summary>So many that there is a verdict.</summary>
    private const int PacedFrames = 75;

    /// <summary>So many that there is a rate: those that count, and those at either cut that do not.</summary>
    private const int Counting = 30, Cuts = 2 * 10 + 1;

    public static async Task RunAsync(Bench bench)
    {
        var calibration = await bench.Calibrations.MeasureAsync(null, CancellationToken.None);
        Console.WriteLine($"\nPrediction, after {calibration.Took.TotalSeconds:0} s of calibration");
        Console.WriteLine($"  {CalibrationWords.Of(calibration)}");
        foreach (var timeline in new[] { "touring-night", "closing-gala" })
        {
            foreach (var policy in new[] { PlayingPolicy.KeepTime, PlayingPolicy.Unpaced })
            {
                var plan = await bench.Plays.PlanAsync(timeline, "this", new PlaybackSettings(Policy: policy, Cache: FileCache.Warm));
                var passages = plan.Timeline.Passages.Select(passage => passage with
                {
                    FrameCount = policy == PlayingPolicy.Unpaced ? WholeGops(plan, passage) : Math.Min(PacedFrames, passage.FrameCount),
                });
                plan = plan with { Timeline = plan.Timeline with { Passages = [.. passages], Marks = null } };
                await bench.Plays.PlayAsync(plan, null, CancellationToken.None);
            }
        }

        var predictions = (await bench.Calibrations.PredictionsAsync()).Where(one => one.Calibration == calibration.Id).ToList();
        foreach (var prediction in predictions)
        {
            Console.WriteLine($"  {prediction.Timeline}{(prediction.IsUnpaced ? ", without a clock" : "")}{(prediction.IsDisturbed ? ", disturbed" : "")}");
            foreach (var passage in prediction.Passages)
            {
                Console.WriteLine(
                    $"    {passage.Question, -56} {passage.Predicted, 7:0.0} {passage.Measured, 7:0.0} {passage.Predicted / passage.Measured, 6:0.00} "
                        + $"{passage.PredictedVerdict, 7} {passage.MeasuredVerdict, 7}{(passage.Extrapolates ? " outside" : "")}");
            }
        }

        Console.WriteLine($"  {CalibrationWords.Of(PredictionFigures.Of(predictions))}");
    }

    /// <summary>A frame that stands alone costs far more than others, so the frames that count are whole GOPs.</summary>
    private static int WholeGops(PlaybackPlan plan, Passage passage)
    {
        var gop = passage.Layers.Max(layer =>
            (int)Math.Ceiling(plan.Clips[layer.ClipId].Format.GopLength * plan.Timeline.Rate.FramesPerSecond
                / plan.Clips[layer.ClipId].Format.Rate.FramesPerSecond));
        return Cuts + (Counting + gop - 1) / gop * gop;
    }
}
