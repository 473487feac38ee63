using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Workbench;
using MathNet.Numerics.Statistics;

namespace HardyBench.Benchmarks;

/// <summary>What the tool itself costs while the bare HD AVC passage plays. Promises: on-time frames are shown at most
/// 2 ms (99th percentile) after their slots begin; sampling, logging and keeping take at most 2 % of a core.</summary>
internal static class PlaybackBenchmark
{
    public static async Task RunAsync(Bench bench, PlaybackSettings settings)
    {
        Console.WriteLine("\nPlaying HD AVC, bare");
        var plan = await bench.Plays.PlanAsync("touring-night", "this", settings);
        plan = plan with { Timeline = plan.Timeline with { Passages = [plan.Timeline.Passages[0] with { FrameCount = 500 }] } };
        var stolen = new Stolen();

        var (_, run) = await bench.Plays.PlayAsync(plan, null, CancellationToken.None);

        var lateness = run.Frames.Where(frame => frame.Status == FrameStatus.OnTime)
            .Select(frame => (frame.Shown!.Value - frame.SlotStart).TotalMilliseconds).ToList();
        Console.WriteLine($"  on time {lateness.Count} of {run.Frames.Count}; {stolen.SoFar()}");
        Console.WriteLine(
            $"  presenter after the slot began: median {lateness.Median():0.000} ms, 99th percentile {lateness.Percentile(99):0.000} ms"
        );
        foreach (var (from, to) in new[] { (0, 5), (5, 20) })
        {
            double Mean(LoadKind kind) => 100 * run.Loads
                .Where(load => load.Kind == kind && load.At.TotalSeconds > from && load.At.TotalSeconds <= to).Average(load => load.Value);
            Console.WriteLine(
                $"  seconds {from} to {to}: sampling, logging and keeping {Mean(LoadKind.OwnTool):0.0} %, "
                + $"presenting (mostly spinning before each slot) {Mean(LoadKind.OwnPresenting):0.0} % of a core");
        }
    }
}
