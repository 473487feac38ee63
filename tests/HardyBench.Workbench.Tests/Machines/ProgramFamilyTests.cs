using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Programs;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Workbench.Demo;

namespace HardyBench.Workbench.Tests.Machines;

/// <summary>Editing programs lead to different winners on different footage: common practice, no source. The same constants of machines
/// serve all of them.</summary>
public sealed class ProgramFamilyTests
{
    private static readonly FrameRate Rate = new(25);
    private static readonly ClipFormat
        Camera = new(Codec.Hevc, ChromaSubsampling.Half, 10, Raster.Uhd, Rate, 50, DataRate.FromMegabits(120)),
        Plain = new(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd, Rate, 50, DataRate.FromMegabits(20)),
        Intermediate = new(Codec.Rdd36, ChromaSubsampling.Half, 10, Raster.Uhd, Rate, 1, DataRate.FromMegabits(700));

    [Fact]
    public void Long_gop_that_only_an_engine_keeps_up_with_goes_best_in_the_program_that_hands_it_over() =>
        Assert.Equal("Gantry", Winner("dunlin-laptop", [Camera]));

    [Fact]
    public void Treatment_goes_best_in_the_program_that_leaves_it_to_graphics() =>
        Assert.Equal(
            "Flyloft",
            Winner("avocet-tower-twin", [Plain], [.. Enumerable.Repeat(Effect.Of("noise-reduction"), 4), Effect.Of("lut")]));

    [Fact]
    public void Intermediates_without_treatment_go_best_in_the_program_that_uses_every_core() =>
        Assert.Equal("Brailwork", Winner("avocet-tower", [Intermediate]));

    /// <summary>By the bottleneck law, without a clock.</summary>
    private static string Winner(string machine, ClipFormat[] layers, params Effect[] effects)
    {
        var rates = DemoPrograms.All.ToDictionary(program => program.Name, program => Sustained(machine, program, layers, effects));
        var best = rates.MaxBy(rate => rate.Value);
        Assert.All(rates.Where(rate => rate.Key != best.Key), rate => Assert.True(best.Value > 1.1 * rate.Value, $"{best} and {rate}"));
        return best.Key;
    }

    private static double Sustained(string machine, EditingProgram program, ClipFormat[] layers, Effect[] effects)
    {
        var clips = layers
            .Index()
            .ToDictionary(layer => $"c{layer.Index}", layer => new Clip($"c{layer.Index}", "clip", layer.Item, 100, null));
        var passage = new Passage("asked", 100, [.. clips.Keys.Select(id => new Layer(id, effects))], []);
        var plan = new PlaybackPlan(
            new Timeline("t", "T", Raster.Hd, Rate, [passage]), clips, DemoMachines.All.Single(one => one.Id == machine),
            new PlaybackSettings { Program = program });
        return CostModel
            .DemandOf(plan, passage)
            .ThroughputBound(1e6, Math.Max(1, Math.Min(plan.Machine.Composing.Count, program.GraphicsUnits)));
    }
}
