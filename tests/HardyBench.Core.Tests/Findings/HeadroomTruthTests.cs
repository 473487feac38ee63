using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Tests.Findings;

/// <summary>Headroom as it is found in a run, beside the bottleneck law (Denning and Buzen 1978) of the machine that played it.</summary>
public sealed class HeadroomTruthTests
{
    private static readonly ClipFormat[] Formats =
    [
        Samples.HdAvc, Samples.HdAvc with { GopLength = 12 }, Samples.UhdHevc422 with { GopLength = 25 }, Samples.UhdIntermediate,
        Samples.UhdHevc422,
    ];

    /// <summary>Frames that were prepared before the first slot are not the machine's pace, however short the passage is.</summary>
    [Fact]
    public void Of_a_passage_that_holds_it_is_the_machines_however_short_the_passage_is()
    {
        var ratios = Ratios(PlayingPolicy.KeepTime, finding => finding.Verdict == Verdict.Holds ? finding.Headroom : null);

        Assert.True(ratios.Count > 200, $"{ratios.Count} passages say too little");
        Assert.All(ratios, ratio => Assert.InRange(ratio, 0.9, 1.12));
    }

    [Fact]
    public void Without_a_clock_it_is_the_machines_of_a_single_gop_too()
    {
        var ratios = Ratios(PlayingPolicy.Unpaced, finding => finding.Headroom);

        Assert.True(ratios.Count > 300, $"{ratios.Count} passages say too little");
        Assert.All(ratios, ratio => Assert.InRange(ratio, 0.95, 1.06));
    }

    /// <summary>Work on frames that were given up is not counted, so a part can do this at least. Where frames of a GOP were left out
    /// nothing is said of it.</summary>
    [Fact]
    public void Of_a_passage_that_does_not_hold_it_is_the_machines_or_untold()
    {
        var ratios = Ratios(PlayingPolicy.KeepTime, finding => finding.Fails ? finding.Headroom : null);

        Assert.True(ratios.Count > 20, $"{ratios.Count} passages say too little");
        Assert.All(ratios, ratio => Assert.InRange(ratio, 0.5, 1.12));
        Assert.InRange(ratios.Order().ElementAt(ratios.Count / 2), 0.97, 1.03);
    }

    /// <summary>Found ÷ true of 400 passages, where the finding says anything.</summary>
    private static List<double> Ratios(PlayingPolicy policy, Func<PassageFinding, double?> found)
    {
        var ratios = new List<double>();
        for (var seed = 0; seed < 400; seed++)
        {
            var (plan, truth) = Case(seed, policy);
            if (truth < MaxTold && found(RunFindings.Of(Play(plan))[0]) is { } headroom)
            {
                ratios.Add(headroom / truth);
            }
        }

        return ratios;
    }

    /// <summary>Parts that are hardly busy cannot be told well from readings ten times a second.</summary>
    private const double MaxTold = 15;

    private static (PlaybackPlan Plan, double Truth) Case(int seed, PlayingPolicy policy)
    {
        var random = new Random(seed);
        var format = Formats[random.Next(Formats.Length)];
        Effect[] effects = random.Next(3) switch { 0 => [], 1 => [Effect.Of("blur")], _ => [Effect.Of("primary-grade")] };
        var machine = Samples.Machine(cores: 2 + random.Next(14), speed: 0.15 + 1.4 * random.NextDouble());
        var plan = Samples.Plan(machine, format, new PlaybackSettings(Policy: policy), null, effects);
        var passage = plan.Timeline.Passages[0] with { FrameCount = 50 + random.Next(3) * 25 };
        plan = plan with { Timeline = plan.Timeline with { Passages = [passage] } };
        return (plan, 1 / (CostModel.DemandOf(plan, passage).Bottleneck().Seconds * plan.Timeline.Rate.FramesPerSecond));
    }

    private static Run Play(PlaybackPlan plan) =>
        new StandInPlayback(TimeProvider.System).PlayAsync(plan, new NoObserver(), CancellationToken.None).Result;
}
