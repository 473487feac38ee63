using System.Globalization;
using HardyBench.Core.Calibration;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Workbench;
using MathNet.Numerics.Statistics;

namespace HardyBench.Benchmarks;

/// <summary>Passages of the demo timelines that are too much for this machine: its capacity without a clock, beside that of FFmpeg's own
/// command; what keep time shows of it, and how that differs from play to play; and what the twin of this machine shows, where there is
/// one. Promises: keep time shows at least 0.85 of the capacity, 0.75 in long-GOP footage; twin and machine differ by less than 15 %;
/// frames shown vary by less than 10 % from play to play.</summary>
internal static class OverloadBenchmark
{
    private const double MinShown = 0.85, MinShownOfLongGop = 0.75, MaxApart = 0.15, MaxDeviation = 0.1;

    /// <summary>Shown of the rate above which a passage is not too much.</summary>
    private const double RealTimeShare = 0.95;

    /// <summary>The share of the processor that a host may take from a play that counts.</summary>
    private const double Undisturbed = 0.01;

    public static async Task RunAsync(Bench bench)
    {
        var plays = int.TryParse(Environment.GetEnvironmentVariable("PLAYS"), CultureInfo.InvariantCulture, out var asked) ? asked : 10;
        var twin = (await bench.Machines.AllAsync()).Any(machine => machine.Id == Twin.IdOf(bench.Machines.Host.Id));
        Console.WriteLine($"\nToo much, frames a second; keep time over {plays} plays");
        if (!twin)
        {
            Console.WriteLine("  This machine has no twin. make bench WHAT=prediction makes one.");
        }

        var broken = new List<string>();
        foreach (var timeline in (Environment.GetEnvironmentVariable("TIMELINES") ?? "touring-night,closing-gala").Split(','))
        {
            broken.AddRange(await MeasureAsync(bench, timeline, plays, twin));
        }

        if (broken.Count > 0)
        {
            throw new MeasuringException($"promises not kept:\n  {string.Join("\n  ", broken)}");
        }
    }

    /// <returns>The promises that were not kept.</returns>
    private static async Task<IReadOnlyList<string>> MeasureAsync(Bench bench, string timeline, int plays, bool twin)
    {
        var plan = await bench.Plays.PlanAsync(timeline, bench.Machines.Host.Id, new PlaybackSettings(Cache: FileCache.Warm));
        var unpaced = plan with { Settings = plan.Settings with { Policy = PlayingPolicy.Unpaced } };
        var before = await PlayAsync(bench, unpaced);
        var predicted = twin
            ? await PlayAsync(bench, await bench.Plays.PlanAsync(timeline, Twin.IdOf(bench.Machines.Host.Id), new PlaybackSettings()))
            : null;
        var (rounds, stolen) = await RoundsAsync(bench, plan, plays);
        // A host may be slower for minutes without saying so: what the capacity did meanwhile is part of the result.
        var after = await PlayAsync(bench, unpaced);
        Console.WriteLine(FormattableString.Invariant(
            $"  {plan.Timeline.Title}, {rounds.Count} plays; the host took up to {stolen:0.0%} of the processor from one"));
        Console.WriteLine(
            "     passage                                   FFmpeg before  after  shown ratio deviation  twin overdue freeze  wasted  verdicts, limiters");
        var broken = new List<string>();
        for (var index = 0; index < plan.Timeline.Passages.Count; index++)
        {
            var all = rounds.ConvertAll(round => round[index]);
            if (all.Average(finding => finding.Counts.ShownRate) < RealTimeShare * plan.Timeline.Rate.FramesPerSecond)
            {
                var passage = plan.Timeline.Passages[index];
                var least = passage.Layers.All(layer => plan.Clips[layer.ClipId].Format.IsAllIntra) ? MinShown : MinShownOfLongGop;
                var capacities = (before[index].Counts.ShownRate, after[index].Counts.ShownRate);
                var row = new Row(all, capacities, predicted?[index].Counts.ShownRate, Ffmpeg(bench, plan, passage));
                Console.WriteLine(row.ToString());
                broken.AddRange(row.Broken(least).Select(words => $"{plan.Timeline.Title}, {passage.Question}: {words}"));
            }
        }

        return broken;
    }

    /// <summary>Plays from which the host took nothing; where there are too few after twice as many plays, those from which it took
    /// least.</summary>
    /// <returns>The plays, and the largest share of the processor that the host took from one.</returns>
    private static async Task<(List<IReadOnlyList<PassageFinding>> Rounds, double Stolen)> RoundsAsync(
        Bench bench, PlaybackPlan plan, int plays)
    {
        var all = new List<(IReadOnlyList<PassageFinding> Round, double Stolen)>();
        while (all.Count(one => one.Stolen < Undisturbed) < plays && all.Count < 2 * plays)
        {
            var stolen = new Stolen();
            var round = await PlayAsync(bench, plan);
            all.Add((round, stolen.Share));
        }

        var least = all.OrderBy(one => one.Stolen).Take(plays).ToList();
        return (least.ConvertAll(one => one.Round), least[^1].Stolen);
    }

    /// <summary>What was found of one passage.</summary>
    /// <param name="Capacities">Before the plays and after them.</param>
    private sealed record Row(
        List<PassageFinding> Plays, (double Before, double After) Capacities, double? Predicted, double? Ffmpeg)
    {
        private double Capacity => (Capacities.Before + Capacities.After) / 2;

        private double Shown => Plays.Average(finding => finding.Counts.ShownRate);

        private double Deviation => Plays.Select(finding => finding.Counts.ShownRate).PopulationStandardDeviation() / Math.Max(Shown, 1e-9);

        public IEnumerable<string> Broken(double least)
        {
            if (Shown < least * Capacity)
            {
                yield return FormattableString.Invariant($"{Shown:0.0} of {Capacity:0.0} frames a second shown");
            }

            if (Deviation > MaxDeviation)
            {
                yield return FormattableString.Invariant($"plays differ by {Deviation:0%}");
            }

            if (Predicted is { } twin && Math.Abs(twin - Shown) > MaxApart * Shown)
            {
                yield return FormattableString.Invariant($"{Shown:0.0} shown, {twin:0.0} by the twin");
            }
        }

        public override string ToString()
        {
            var found = Plays.GroupBy(finding => $"{finding.Verdict} {finding.Limiter?.Limiter}").OrderByDescending(group => group.Count());
            var overdue = Plays.Average(finding => finding.Counts.OverdueBy.Median.TotalSeconds);
            var freeze = Plays.Max(finding => finding.Counts.LongestFreeze.TotalSeconds);
            return FormattableString.Invariant(
                $"  {Plays[0].Index + 1,2} {Plays[0].Passage.Question,-40} {Ffmpeg,6:0.0} {Capacities.Before,6:0.0} {Capacities.After,6:0.0} {Shown,6:0.0} {Shown / Capacity,5:0.00} ")
                + FormattableString.Invariant($"{Deviation,9:0%} {Predicted,5:0.0} {overdue,5:0.00} s {freeze,4:0.0} s ")
                + FormattableString.Invariant($"{Plays.Average(finding => finding.Wasted.Share ?? 0),7:0%}  ")
                + string.Join(", ", found.Select(group => $"{group.Count()} {group.Key}"));
        }
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
