using HardyBench.Core.Footage;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Tests.Timelines;

public sealed class OffAndOpacityTests
{
    private static readonly Passage Treated = new(
        "asked",
        100,
        [new Layer("c", [Effect.Of("sharpen") with { IsOff = true }, Effect.Of("blur")]), new Layer("c", []) { Opacity = 0.5 }],
        [Effect.Of("glow") with { IsOff = true }]);

    private static readonly IReadOnlyDictionary<string, Clip> Clips = Samples.Plan(Samples.Machine(), Samples.HdAvc).Clips;

    [Fact]
    public void What_is_off_is_kept_and_neither_played_nor_reckoned()
    {
        var played = Treated.WithoutOff();

        Assert.Equal(["blur"], played.AllEffects().Select(effect => effect.Id));
        Assert.Equal(3, Treated.AllEffects().Count());
        Assert.Equal(WeightOf(played), WeightOf(Treated));
        Assert.True(WeightOf(Treated with { Over = [Effect.Of("glow")] }).EffectsCores > WeightOf(Treated).EffectsCores);
        Assert.Same(played, played.WithoutOff());
        var plan = Samples.Plan(Samples.Machine(), Samples.HdAvc);
        Assert.Equal(played.AllEffects(), (plan with { Timeline = plan.Timeline with { Passages = [Treated] } }).Played(0).AllEffects());
    }

    [Theory]
    [InlineData(0.0, null, null)]
    [InlineData(1.0, null, null)]
    [InlineData(0.5, Transition.Dissolve, null)]
    [InlineData(-0.1, null, "allowed: 0 to 100 %")]
    [InlineData(1.01, null, "allowed: 0 to 100 %")]
    [InlineData(double.NaN, null, "allowed: 0 to 100 %")]
    [InlineData(0.5, Transition.Wipe, "a wipe needs opaque layers")]
    [InlineData(0.5, Transition.Dip, "a dip needs opaque layers")]
    public void Opacity_is_a_share_that_a_dissolve_can_have_and_a_wipe_cannot(double opacity, Transition? transition, string? problem)
    {
        var passage = new Passage("asked", 100, [new Layer("c", []), new Layer("c", []) { Opacity = opacity }], [], transition);

        var problems = TimelineCheck.ProblemsOf(passage, Clips).ToList();

        Assert.Equal(problem is null ? 0 : 1, problems.Count);
        Assert.Contains(problem ?? string.Empty, string.Concat(problems), StringComparison.Ordinal);
    }

    [Fact]
    public void The_lowest_layer_lets_nothing_through() => Assert.Contains(
        "nothing below it",
        Assert.Single(TimelineCheck.ProblemsOf(new Passage("asked", 100, [new Layer("c", []) { Opacity = 0.5 }], []), Clips)),
        StringComparison.Ordinal
    );

    private static PassageWeight WeightOf(Passage passage) =>
        PassageWeight.Of(passage, new Timeline("t", "T", Raster.Hd, Samples.Rate, [passage]), Clips);
}
