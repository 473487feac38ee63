using System.Globalization;
using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>Passages of the demo timeline that are too much for this machine: what FFmpeg's own command gets through, what keep frames
/// does, and what keep time shows, how evenly, and with how much work in vain. Promises: keep frames at least 0.9 of FFmpeg; keep time at
/// least 0.8 of keep frames, 0.6 in long-GOP footage; frames shown vary by less than 15 % from play to play on an idle machine.</summary>
internal static class OverloadBenchmark
{
    /// <summary>Shown of the rate above which a passage is not too much.</summary>
    private const double Enough = 0.95;

    /// <summary>The share of the processor that a host may take from a play that counts.</summary>
    private const double Undisturbed = 0.01;

    public static async Task RunAsync(Bench bench)
    {
        var plays = int.TryParse(Environment.GetEnvironmentVariable("PLAYS"), CultureInfo.InvariantCulture, out var asked) ? asked : 10;
        Console.WriteLine(
            $"\nToo much: frames a second; lowest and highest of {plays} plays, their deviation; in vain; gaps, deviation beside "
                + "mean; limiters named"
        );
        var plan = await bench.Plays.PlanAsync("touring-night", "this", new PlaybackSettings());
        var kept = await PlayAsync(bench, plan with { Settings = new PlaybackSettings(Policy: PlayingPolicy.KeepFrames) });
        var rounds = new List<IReadOnlyList<PassageFinding>>();
        var disturbed = 0;
        while (rounds.Count < plays && disturbed < plays)
        {
            var stolen = new Stolen();
            var round = await PlayAsync(bench, plan);
            if (stolen.Share < Undisturbed)
            {
                rounds.Add(round);
            }
            else
            {
                disturbed++;
            }
        }

        if (rounds.Count == 0)
        {
            throw new MeasuringException("a host took from every play; measure on an idle machine");
        }

        for (var index = 0; index < plan.Timeline.Passages.Count; index++)
        {
            var all = rounds.ConvertAll(round => round[index]);
            if (all.Average(finding => finding.Counts.ShownRate) < Enough * plan.Timeline.Rate.FramesPerSecond)
            {
                Show(all, kept[index].Counts.ShownRate, Ffmpeg(bench, plan, plan.Timeline.Passages[index]));
            }
        }

        Console.WriteLine(
            FormattableString.Invariant(
                $"  {rounds.Count} plays; {disturbed} more in which a host took over {Undisturbed:0%} of the processor are left out"
            )
        );
    }

    private static void Show(List<PassageFinding> plays, double kept, double? ffmpeg)
    {
        var rates = plays.ConvertAll(finding => finding.Counts.ShownRate);
        var mean = rates.Average();
        var deviation = Math.Sqrt(rates.Average(rate => (rate - mean) * (rate - mean)));
        var gaps = plays.Average(finding => finding.Counts.GapDeviation.TotalSeconds * finding.Counts.ShownRate);
        var limiters = plays
            .GroupBy(finding => finding.Limiter?.Limiter.ToString() ?? "none")
            .OrderByDescending(group => group.Count())
            .Select(group => $"{group.Key} {group.Count()}");
        Console.Write(FormattableString.Invariant(
            $"  {plays[0].Index + 1,2} {plays[0].Passage.Question,-34} FFmpeg {ffmpeg,5:0.0}  keep frames {kept,5:0.0}  "));
        Console.Write(FormattableString.Invariant(
            $"keep time {mean,5:0.0} ({rates.Min():0.0} to {rates.Max():0.0}, {deviation / Math.Max(mean, 1e-9):0%})  "));
        Console.Write(FormattableString.Invariant($"in vain {plays.Average(finding => finding.InVain.Share ?? 0):0%}  gaps {gaps:0.00}  "));
        Console.WriteLine(FormattableString.Invariant(
            $"longest {plays.Max(finding => finding.Counts.LongestFreeze.TotalSeconds):0.0} s  {string.Join(", ", limiters)}"));
    }

    /// <exception cref="MeasuringException">It did not play to its end.</exception>
    private static async Task<IReadOnlyList<PassageFinding>> PlayAsync(Bench bench, PlaybackPlan plan)
    {
        var run = (await bench.Plays.PlayAsync(plan, null, CancellationToken.None)).Run;
        return run.Ending == RunEnding.Finished && run.Failures.Count == 0
            ? RunFindings.Of(run)
            : throw new MeasuringException(
                $"'{plan.Timeline.Title}' did not play: {string.Join("; ", run.Failures.Select(failure => failure.Message))}"
            );
    }

    /// <summary>The same graph by FFmpeg's own command, as fast as it goes; null for passages of several layers or of another speed,
    /// whose footage its command reads otherwise.</summary>
    private static double? Ffmpeg(Bench bench, PlaybackPlan plan, Passage passage)
    {
        if (passage.Layers.Any(layer => layer.Retime is not null) || passage.Transition is not null)
        {
            return null;
        }

        var inputs = passage
            .Layers.Select(layer => bench.Clips.PathOf(bench.Clips.Clips[layer.ClipId]))
            .SelectMany(file => (string[])["-stream_loop", "-1", "-i", file]);
        var links = string.Concat(passage.Layers.Select((_, index) => $"[{index}:v]null[in{index}];"));
        var run = MeasuredProcess.Run(
            "ffmpeg",
            [
                "-v",
                "error",
                .. inputs,
                "-filter_complex",
                links + Graphs.Of(bench).Describe(plan, passage),
                "-map",
                "[out]",
                "-frames:v",
                $"{passage.FrameCount}",
                "-f",
                "null",
                "-",
            ]
        );
        return passage.FrameCount / run.Took.TotalSeconds;
    }
}
