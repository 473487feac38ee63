using System.Diagnostics;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Media.EffectFiles;
using HardyBench.Player.Decoding;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>The estimated demand of passages, which stand-ins use, against what it takes this player on one thread of this
/// machine: every effect at 8 and at 10 bits, every codec of the recipes that are made. A core that is faster or slower than the reference
/// core is so by the same share everywhere, so that share (the median of all) is taken out. Promise: within a quarter.</summary>
internal static class CostBenchmark
{
    private const int Frames = 40, Warm = 6;
    private static readonly TimeSpan AtLeast = TimeSpan.FromSeconds(0.6);

    public static async Task RunAsync(Bench bench)
    {
        var plan = await bench.Plays.PlanAsync("touring-night", "this", new PlaybackSettings(Policy: PlayingPolicy.KeepFrames));
        var rows = new List<(string Name, double Estimated, double Measured)>();
        foreach (var clip in new[] { "hd-avc-25", "hd-mezz-25" })
        {
            var bits = bench.Clips.Clips[clip].Format.BitDepth;
            var (bare, _) = Treated(bench, plan, clip, []);
            foreach (
                var kind in EffectCatalogue.All.Where(kind =>
                    kind.RunsOn != EffectPlace.StandInsOnly && kind.Id != EffectCatalogue.Placement
                )
            )
            {
                var effect = new Effect(
                    kind.Id,
                    new Dictionary<string, double>(),
                    kind.TextLabel switch
                    {
                        null => null,
                        "look" => Looks.WarmStage,
                        _ => "Low tide",
                    }
                );
                var (took, estimated) = Treated(bench, plan, clip, [effect]);
                rows.Add(($"{kind.Label}, {bits} bit", estimated, took - bare));
            }

            Effect[] colour =
            [
                Effect.Of("primary-grade"),
                Effect.Of("curves"),
                new("lut", new Dictionary<string, double>(), Looks.WarmStage),
            ];
            var (all, said) = Treated(bench, plan, clip, colour);
            rows.Add(($"grade, curves and LUT, {bits} bit", said, all - bare));
        }

        foreach (var recipe in bench.Clips.Recipes.Where(recipe => File.Exists(bench.Clips.FileOf(recipe))))
        {
            var format = bench.Clips.Clips[recipe.Id].Format;
            rows.Add(($"decode {recipe.Id}", DecodeCost.Of(format.Codec).MeanCoreSeconds(format), Decoded(bench.Clips.FileOf(recipe))));
        }

        var shares = rows.Select(row => row.Measured / row.Estimated).Order().ToList();
        var machine = shares[shares.Count / 2];
        Console.WriteLine(
            $"\nCost of a frame on one core, ms: estimated, measured, share of it with this machine's own {1 / machine:0.00} of the "
                + "reference core taken out"
        );
        foreach (var (name, estimated, measured) in rows)
        {
            var share = estimated * machine / measured;
            Console.WriteLine(
                $"  {name, -34} {estimated * 1000, 7:0.00} {measured * 1000, 7:0.00} "
                    + $"{share, 6:0.00}{(share is < 0.75 or > 1.25 ? "  outside a quarter" : "")}   "
                    + $"{measured * 1e9 / Raster.Hd.Pixels:0.00} ns a pixel"
            );
        }
    }

    /// <summary>Processor seconds that a frame's treatment takes, measured and estimated.</summary>
    private static (double Took, double Estimated) Treated(Bench bench, PlaybackPlan plan, string clip, Effect[] effects)
    {
        var passage = new Passage("cost", Frames, [new Layer(clip, effects)], []);
        plan = plan with { Timeline = plan.Timeline with { Passages = [passage], Raster = Raster.Hd } };
        using var decoder = new ClipDecoder(bench.Clips.PathOf(bench.Clips.Clips[clip]), 1);
        var frames = Enumerable.Range(0, Frames).Select(_ => decoder.Next()).ToList();
        using var treatment = Graphs.Of(bench).Open(plan, passage, [frames[0].Picture], 1);
        var position = 0L;
        var took = PerFrame(() => treatment.Treat([frames[(int)(position % Frames)]], position++)?.Dispose());
        frames.ForEach(frame => frame.Dispose());
        return (took, PassageWeight.Of(passage, plan.Timeline, bench.Clips.Clips).EffectsCores / plan.Timeline.Rate.FramesPerSecond);
    }

    private static double Decoded(string file)
    {
        using var decoder = new ClipDecoder(file, 1);
        return PerFrame(() => decoder.Next().Dispose());
    }

    /// <summary>The least of three measurements: whatever disturbs one only adds to it.</summary>
    private static double PerFrame(Action work)
    {
        for (var i = 0; i < Warm; i++)
        {
            work();
        }

        return Enumerable.Range(0, 3).Min(_ => OnePerFrame(work));
    }

    private static double OnePerFrame(Action work)
    {
        using var self = Process.GetCurrentProcess();
        var (began, busy, count) = (Stopwatch.GetTimestamp(), self.TotalProcessorTime, 0);
        // Whole GOPs of every recipe, so that pictures that stand alone count as often as they come.
        for (; count < Frames || Stopwatch.GetElapsedTime(began) < AtLeast || count % 50 != 0; count++)
        {
            work();
        }

        self.Refresh();
        return (self.TotalProcessorTime - busy).TotalSeconds / count;
    }
}
