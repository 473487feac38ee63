using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>What the trade expects of any machine, as loads on this one: common practice, no source. Half the frame rate asks about half,
/// more layers ask more, a smaller raster decodes no cheaper. Loads waver with what else runs, so they are shown here and not
/// tested.</summary>
internal static class PracticeBenchmark
{
    private const int Frames = 150, Rounds = 3;

    public static async Task RunAsync(Bench bench)
    {
        Console.WriteLine("\nCommon practice, cores of decoding and effects (the median of three)");
        var plan = await bench.Plays.PlanAsync("touring-night", "this", new PlaybackSettings());
        var one = plan.Timeline with { Passages = [new Passage("one", Frames, [new Layer("hd-avc-25", [])], [])], Marks = null };
        var three = one with { Passages = [one.Passages[0] with { Layers = [.. Enumerable.Repeat(one.Passages[0].Layers[0], 3)] }] };
        var whole = await CoresAsync(bench, plan, one);
        Show("half the rate", await CoresAsync(bench, plan, one.AtHalfRate()), whole, "about 0.5");
        Show("three layers", await CoresAsync(bench, plan, three), whole, "more than 1");
        Show(
            "a quarter of each side",
            await CoresAsync(bench, plan, one with { Raster = one.Raster.DividedBy(4) }),
            whole,
            "decoding alone stays"
        );
    }

    private static void Show(string what, double cores, double whole, string expected) =>
        Console.WriteLine(FormattableString.Invariant($"  {what,-24} {cores:0.000} / {whole:0.000} = {cores / whole:0.00}   {expected}"));

    /// <exception cref="MeasuringException">It did not play to its end.</exception>
    private static async Task<double> CoresAsync(Bench bench, PlaybackPlan plan, Timeline timeline)
    {
        var cores = new List<double>();
        for (var round = 0; round < Rounds; round++)
        {
            var run = (await bench.Plays.PlayAsync(plan with { Timeline = timeline }, null, CancellationToken.None)).Run;
            if (run.Ending != RunEnding.Finished || run.Failures.Count > 0)
            {
                throw new MeasuringException(
                    $"'{timeline.Passages[0].Question}' did not play: {string.Join("; ", run.Failures.Select(failure => failure.Message))}"
                );
            }

            var means = LoadMeans.Over(run.Loads, TimeSpan.FromMilliseconds(500), timeline.Rate.StartOf(timeline.FrameCount));
            cores.Add(
                (means.Of(LoadKind.OwnDecode) ?? throw new MeasuringException("Loads cannot be read here."))
                    + (means.Of(LoadKind.OwnEffects) ?? 0)
            );
        }

        return cores.Order().ElementAt(Rounds / 2);
    }
}
