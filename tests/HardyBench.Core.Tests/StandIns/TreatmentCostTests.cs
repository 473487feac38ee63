using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Tests.StandIns;

/// <summary>What treating a frame asks. Figures are those that `make bench WHAT=costs` measured on the reference core.</summary>
public sealed class TreatmentCostTests
{
    /// <summary>One pass of noise reduction over HD took 9.8 ms of a core, so 25 of them keep a quarter of a core busy and not
    /// 23.</summary>
    [Theory]
    [InlineData("noise-reduction", 0.245)]
    [InlineData("sharpen", 0.50)]
    [InlineData("stabilise", 1.83)]
    [InlineData("lut", 1.85)]
    [InlineData("title", 0.024)]
    public void An_effect_is_said_to_ask_what_it_was_measured_to_take(string id, double cores) =>
        Assert.Equal(cores, Weight(new Layer("c", [Effect.Of(id)])).EffectsCores, 0.25 * cores);

    /// <summary>Measured: grade, curves and LUT apart 15.2, 11.6 and 35.6 ns a pixel, in a row 45.1.</summary>
    [Fact]
    public void Effects_on_red_green_and_blue_share_the_way_there_and_back_only_in_a_row()
    {
        Effect grade = Effect.Of("primary-grade"), curves = Effect.Of("curves"), lut = Effect.Of("lut"), blur = Effect.Of("blur");
        double Cores(params Effect[] effects) => Weight(new Layer("c", effects)).EffectsCores;
        var way = EffectCost.ToColourAndBack.Nanoseconds!.Value * 1e-9 * Raster.Hd.Pixels * 25;

        Assert.Equal(Cores(grade) + Cores(curves) + Cores(lut) - (2 * way), Cores(grade, curves, lut), 9);
        Assert.Equal(Cores(grade) + Cores(curves) + Cores(blur), Cores(grade, blur, curves), 9);
        Assert.Equal(45.1, Cores(grade, curves, lut) / 25 / Raster.Hd.Pixels * 1e9, 4.0);
    }

    [Fact]
    public void A_layer_costs_by_the_size_at_which_it_is_treated_its_scaling_and_its_laying_over()
    {
        var (below, blurred) = (new Layer("c", []), new Layer("c", [Effect.Of("blur")]));
        var small = new Layer("c", [Effect.Of(EffectCatalogue.Placement, ("size", 0.5)), Effect.Of("blur")]);
        double Cores(params Layer[] layers) => Weight(layers).EffectsCores;

        Assert.Equal(0, Cores(below));
        Assert.True(Cores(below, below) > 0);
        Assert.True(Cores(below, below with { Opacity = 0.5 }) > Cores(below, below));
        var scaling = EffectCost.Scaling.Nanoseconds!.Value * 1e-9 * Raster.Hd.Pixels * 25;
        Assert.Equal((Cores(below, blurred) / 4) + scaling, Cores(below, small), 9);
    }

    [Theory]
    [InlineData(1e308)]
    [InlineData(-5)]
    [InlineData(double.NaN)]
    public void A_size_that_cannot_be_played_counts_as_the_whole_raster(double size) =>
        Assert.Equal(
            Weight(new Layer("c", [Effect.Of("blur")])).EffectsCores,
            Weight(new Layer("c", [Effect.Of(EffectCatalogue.Placement, ("size", size)), Effect.Of("blur")])).EffectsCores, 9);

    [Theory]
    [InlineData(1e308)]
    [InlineData(-1)]
    [InlineData(double.NaN)]
    public void A_speed_that_cannot_be_played_counts_as_shot(double speed) =>
        Assert.Equal(Weight(new Layer("c", [])), Weight(new Layer("c", [], Retime: new Retime(speed))));

    /// <summary>The bars of the page and the simulation go by the same figures: a stand-in that is one reference core.</summary>
    [Theory]
    [InlineData("noise-reduction")]
    [InlineData("glow")]
    [InlineData("transform")]
    public void A_stand_in_of_one_reference_core_takes_what_the_passage_is_said_to_ask(string id)
    {
        var plan = Samples.Plan(Samples.Machine(cores: 1), Samples.HdAvc, effects: Effect.Of(id));
        var demand = CostModel.DemandOf(plan, plan.Timeline.Passages[0]);

        var effects = demand.Visits.Where(visit => visit.Kind == VisitKind.Effects).Sum(visit => visit.MeanService.TotalSeconds);

        Assert.Equal(PassageWeight.Of(plan.Timeline.Passages[0], plan.Timeline, plan.Clips).EffectsCores / 25, effects, 6);
    }

    private static PassageWeight Weight(params Layer[] layers) => PassageWeight.Of(
        new Passage("asked", 100, layers, []),
        new Timeline("t", "T", Raster.Hd, Samples.Rate, []),
        Samples.Plan(Samples.Machine(), Samples.HdAvc).Clips
    );
}
