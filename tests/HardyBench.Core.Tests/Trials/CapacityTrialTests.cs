using HardyBench.Core.Findings;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Trials;

namespace HardyBench.Core.Tests.Trials;

public sealed class CapacityTrialTests
{
    private const int Frames = 300;

    [Fact]
    public async Task A_passage_that_holds_and_one_that_does_not_have_their_pace_and_what_sets_it()
    {
        var (done, answer) = await PlayAsync(cores: 4, times: 3);

        Assert.All(done, outcome => Assert.Equal(PlayingPolicy.Unpaced, outcome.Header.Settings.Policy));
        Assert.Equal(["1 of 3", "2 of 3", "3 of 3"], done.Select(outcome => outcome.Role.Label));
        var finding = done[0].Findings[0];
        Assert.Null(finding.Verdict);
        Assert.Equal(Limiter.ProcessorDecode, finding.Limiter!.Limiter);
        Assert.Equal(finding.Counts.ShownRate / 25, finding.Headroom!.Value, 9);
        Assert.Matches(@"^\d+\.\d ± \d+\.\d a second, \d+\.\d+ times the required rate$", answer.Rows[0].Words);
        Assert.Contains("Without a clock", answer.Words, StringComparison.Ordinal);
    }

    /// <summary>The headroom of a bare run is reckoned by the utilisation law; without a clock it is measured. Within a tenth: services
    /// vary and the pictures that stand alone cost more.</summary>
    [Theory]
    [InlineData(4)]
    [InlineData(12)]
    public async Task Headroom_reckoned_from_a_bare_run_is_the_capacity_that_is_measured(int cores)
    {
        var bare = RunFindings.Of(
            await new StandInPlayback(TimeProvider.System).PlayAsync(Plan(cores), new NoObserver(), CancellationToken.None)
        )[0];
        var (done, _) = await PlayAsync(cores, times: 1);

        Assert.Equal(Verdict.Holds, bare.Verdict);
        Assert.InRange(done[0].Findings[0].Headroom!.Value / bare.Headroom!.Value, 0.9, 1.1);
    }

    [Fact]
    public async Task Twice_the_cores_go_further_where_decoding_sets_the_pace()
    {
        var (few, _) = await PlayAsync(cores: 4, times: 1);
        var (many, _) = await PlayAsync(cores: 8, times: 1);

        Assert.True(many[0].Findings[0].Counts.ShownRate > 1.3 * few[0].Findings[0].Counts.ShownRate);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(51)]
    public void It_takes_as_many_runs_as_make_sense(int times) =>
        Assert.Throws<PlanRefusedException>(() => new TrialPlan(new CapacityTrial(times), Plan(4)).Checked());

    private static async Task<(List<StepOutcome> Done, TrialAnswer Answer)> PlayAsync(int cores, int times)
    {
        var (trial, done) = (
            new TrialPlan(new CapacityTrial(times), Plan(cores)).Checked(),
            new List<StepOutcome>()
        );
        while (trial.Next(done, TimeSpan.Zero) is { } step)
        {
            done.Add(
                new StepOutcome(
                    step.Role,
                    await new StandInPlayback(TimeProvider.System).PlayAsync(step.Plan, new NoObserver(), CancellationToken.None)
                )
            );
        }

        return (done, Scripted.Kind(TrialKind.Capacity).Answer(trial.Start.Timeline, done));
    }

    private static PlaybackPlan Plan(int cores)
    {
        var plan = Samples.Plan(Samples.Machine(cores: cores, speed: 2), Samples.HdAvc);
        return plan with { Timeline = plan.Timeline with { Passages = [plan.Timeline.Passages[0] with { FrameCount = Frames }] } };
    }
}
