using HardyBench.Core.Findings.Explaining;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using HardyBench.Core.StandIns;

namespace HardyBench.Core.Tests.StandIns;

/// <summary>The log tells what the run tells, and keeping it changes nothing.</summary>
public sealed class DecisionLogTests
{
    [Fact]
    public void A_run_is_the_same_with_a_log_and_the_log_agrees_with_it()
    {
        var missed = 0;
        for (var seed = 0; seed < 60; seed++)
        {
            var plan = PlanOf(seed);
            var (run, decisions) = Play(plan with { LogsDecisions = true });

            Assert.Equal(Play(plan).Run.Frames, run.Frames);
            Assert.Empty(Play(plan).Decisions);
            var acts = decisions.ToLookup(one => one.Act);
            Assert.Equal(
                run.Frames.Select(frame => ((long)frame.Frame, frame.Status, frame.Reason)),
                decisions.Where(one => one.Act is DecisionAct.Shown or DecisionAct.Dropped)
                    .Select(one => (one.Frame, one.Status!.Value, one.Reason!.Value)));
            Assert.Equal(
                run.Frames.Where(frame => frame.Ready is not null).Select(frame => ((long)frame.Frame, frame.Ready!.Value)),
                acts[DecisionAct.Finished].Select(one => (one.Frame, one.At)).Where(one => run.Frames[(int)one.Frame].Ready == one.At)
                    .OrderBy(one => one.Frame));
            var begun = acts[DecisionAct.Begun].Select(one => one.Frame).ToHashSet();
            Assert.True(begun.IsSupersetOf(acts[DecisionAct.Finished].Select(one => one.Frame)));
            Assert.Equal(decisions.Select(one => one.At).Order(), decisions.Select(one => one.At));
            missed += run.Frames.Count(frame => frame.Status.IsMissed());
        }

        Assert.True(missed > 500, $"only {missed} frames were missed: nearly nothing was decided");
    }

    [Fact]
    public void What_was_begun_was_finished_given_up_or_still_under_way_at_the_end()
    {
        for (var seed = 0; seed < 60; seed++)
        {
            var (run, decisions) = Play(PlanOf(seed) with { LogsDecisions = true });

            foreach (var passage in PassageExplanation.Of(run, decisions))
            {
                var decided = passage.Decided!;
                var left = decided.Begun - decided.Finished - decided.GivenUp;
                Assert.InRange(left, 0, PlaybackSettings.DecodeAhead + run.Header.Settings.LookAhead);
                Assert.InRange(passage.Finished, passage.Finding.Counts.Shown, decided.Finished);
            }
        }
    }

    private static PlaybackPlan PlanOf(int seed)
    {
        var random = new Random(seed);
        var format = seed % 2 == 0 ? Samples.HdAvc : Samples.UhdIntermediate;
        return Samples.Plan(Samples.Machine(cores: 1 + random.Next(4), speed: 0.1 + (0.5 * random.NextDouble())), format);
    }

    private static (Run Run, IReadOnlyList<Decision> Decisions) Play(PlaybackPlan plan)
    {
        var heard = new Heard();
        var run = new StandInPlayback(TimeProvider.System).PlayAsync(plan, heard, CancellationToken.None).Result;
        return (run, heard.Decisions);
    }

    private sealed class Heard : IRunObserver
    {
        public IReadOnlyList<Decision> Decisions { get; private set; } = [];

        public void Progressed(RunProgress progress) => Decisions = progress.Decisions;
    }
}
