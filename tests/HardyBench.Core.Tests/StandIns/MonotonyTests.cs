using CsCheck;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Tests.Advice;

namespace HardyBench.Core.Tests.StandIns;

/// <summary>Service times are drawn by passage, frame and station, so that what is made lighter or faster changes nothing else.</summary>
public sealed class MonotonyTests
{
    private sealed record Change(string Name, Func<PlaybackPlan, PlaybackPlan> Apply);

    private static readonly Change[] Changes =
    [
        new("half scale", plan => plan with { Settings = plan.Settings with { Scale = PreviewScale.Half } }),
        new("faster cores", plan => plan with
        {
            Machine = plan.Machine with
            {
                Processor = plan.Machine.Processor with { RelativeCoreSpeed = 1.3 * plan.Machine.Processor.FastSpeed },
            },
        }),
        new("no effects", plan => plan with
        {
            Timeline = plan.Timeline with
            {
                Passages = [.. plan.Timeline.Passages.Select(passage => passage with
                {
                    Layers = [.. passage.Layers.Select(layer => layer with { Effects = [] })],
                })],
            },
        }),
    ];

    /// <summary>Where no station is asked for more, no frame comes later on the whole.</summary>
    [Theory]
    [InlineData(PlayingPolicy.Unpaced)]
    [InlineData(PlayingPolicy.KeepFrames)]
    public void Lighter_work_and_better_parts_never_take_longer(PlayingPolicy policy)
    {
        var (held, faster) = (0, 0);
        Gen.Select(Gen.Int[0, 100_000], Gen.Int[0, Changes.Length - 1]).Sample(
            (seed, which) =>
            {
                var before = PlanOf(seed, policy);
                var after = Changes[which].Apply(before);
                if (AsksMore(before, after))
                {
                    return;
                }

                var (first, second) = (Last(Play(before)), Last(Play(after)));
                Assert.True(second <= first + 1e-6, $"{Changes[which].Name}: {first:0.000} s became {second:0.000} s");
                Interlocked.Increment(ref held);
                Interlocked.Add(ref faster, second < 0.99 * first ? 1 : 0);
            },
            iter: 400);

        Assert.True(held > 250 && faster > 50, $"{held} pairs, {faster} of them faster, say too little");
    }

    /// <summary>One in ten may be lost where decoding of long-GOP footage is barely too slow: leaving out unreferenced frames costs more
    /// frames than giving up the end of a GOP, and which of the two it comes to depends on when it falls behind. Two may be lost at
    /// cuts, after which nothing of a passage is shown.</summary>
    [Fact]
    public void Lighter_work_and_better_parts_never_show_fewer_frames()
    {
        var (held, more) = (0, 0);
        Gen.Select(Gen.Int[0, 100_000], Gen.Int[0, Changes.Length - 1]).Sample(
            (seed, which) =>
            {
                var before = PlanOf(seed, PlayingPolicy.KeepTime);
                var after = Changes[which].Apply(before);
                if (AsksMore(before, after))
                {
                    return;
                }

                var (first, second) = (Play(before), Play(after));
                var (one, other) = (Shown(first), Shown(second));
                Assert.True(other >= (0.9 * one) - 2, $"{Changes[which].Name}: {one} frames became {other}");
                Interlocked.Add(ref more, other > one ? 1 : 0);
                Interlocked.Increment(ref held);
            },
            iter: 1000);

        Assert.True(held > 250 && more > 50, $"{held} pairs, {more} of them with more frames, say too little");
    }

    private static int Shown(Run run) => run.Frames.Count(frame => frame.Shown is not null);

    private static PlaybackPlan PlanOf(int seed, PlayingPolicy policy)
    {
        var random = new Random(seed);
        var graphics = random.Next(2) == 0 ? null : new Graphics("g", 500 + random.Next(5000), 100, 8, 8);
        var plan = ShortlistTests.Work(seed, new Brief("b", "B", ["t"]))[0];
        return plan with
        {
            Machine = Samples.Machine(cores: 2 + random.Next(10), speed: 0.4 + random.NextDouble(), graphics: graphics),
            // An editing program would decide the policy.
            Settings = plan.Settings with { Policy = policy, Program = null },
        };
    }

    /// <summary>Whether some station has more to do: a picture that is made smaller has to be scaled.</summary>
    private static bool AsksMore(PlaybackPlan before, PlaybackPlan after) => before.Timeline.Passages.Index().Any(passage =>
    {
        var (one, other) = (Demand(before, passage.Index), Demand(after, passage.Index));
        return one.Zip(other).Any(pair => pair.Second > pair.First * (1 + 1e-9));
    });

    private static IReadOnlyList<double> Demand(PlaybackPlan plan, int passage)
    {
        var played = plan with { Settings = plan.Settings.Effective() };
        return [.. CostModel.DemandOf(played, played.Played(passage)).SecondsByStation()];
    }

    private static double Last(Run run) => run.Frames.Select(frame => frame.Shown).OfType<TimeSpan>().Max().TotalSeconds;

    private static Run Play(PlaybackPlan plan) =>
        new StandInPlayback(TimeProvider.System).PlayAsync(plan, new NoObserver(), CancellationToken.None).Result;
}
