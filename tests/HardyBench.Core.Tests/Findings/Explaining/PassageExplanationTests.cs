using HardyBench.Core.Findings.Explaining;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using HardyBench.Core.Tests.Trials;
using HardyBench.Core.Trials;

namespace HardyBench.Core.Tests.Findings.Explaining;

/// <summary>Examples worked out by hand.</summary>
public sealed class PassageExplanationTests
{
    /// <summary>100 slots of 40 ms, 4 s on two cores: 8 core seconds. Decoding takes 1.2 cores (4.8 s), effects 0.3 (1.2 s), presenting
    /// 0.05 (0.2 s); the cores are busy for 0.9 + 0.8 of their time (6.8 s), so others took 0.6 s and 1.2 s were idle.</summary>
    [Fact]
    public void The_seconds_of_the_cores_add_up()
    {
        var run = Scripted.Run(new TrialStep(StepRole.Only, Scripted.Plan(1)), _ => 1);
        var loads = Enumerable.Range(1, 40).SelectMany(n => new LoadReading[]
        {
            new(Samples.Ms(100 * n), LoadKind.Core, 0, 0.9f), new(Samples.Ms(100 * n), LoadKind.Core, 1, 0.8f),
            new(Samples.Ms(100 * n), LoadKind.OwnDecode, 0, 1.2f), new(Samples.Ms(100 * n), LoadKind.OwnEffects, 0, 0.3f),
            new(Samples.Ms(100 * n), LoadKind.OwnPresenting, 0, 0.05f),
        }).ToList();
        run = run with { Loads = loads, Header = run.Header with { Conditions = run.Header.Conditions with { UsableCores = [0, 1] } } };

        var cores = PassageExplanation.Of(run)[0].Cores!;

        Assert.Equal(
            [8, 4.8, 1.2, 0.2, 0.6, 1.2],
            new[] { cores.Length, cores.Decode!.Value, cores.Effects!.Value, cores.Presenting!.Value, cores.Others, cores.Idle }
                .Select(value => Math.Round(value, 3)));
        Assert.Null(cores.Encode);
    }

    [Fact]
    public void Without_a_load_nothing_is_said_of_the_cores() =>
        Assert.Null(PassageExplanation.Of(Scripted.Run(new TrialStep(StepRole.Only, Scripted.Plan(1)), _ => 1))[0].Cores);

    /// <summary>Frame 0 took 100 ms where 60 were expected, frame 1 took 90 where 80 were; frame 2 was given up. Frame 100 is of the next
    /// passage.</summary>
    [Fact]
    public void Times_are_compared_with_what_was_expected()
    {
        var run = Scripted.Run(new TrialStep(StepRole.Only, Scripted.Plan(2)), _ => 1);
        Decision[] log =
        [
            Chosen(0, 0, 60), new(Samples.Ms(0), DecisionAct.Begun, 0), Chosen(10, 1, 80), new(Samples.Ms(10), DecisionAct.Begun, 1),
            Chosen(20, 2, 80), new(Samples.Ms(20), DecisionAct.Begun, 2), new(Samples.Ms(100), DecisionAct.Finished, 0),
            new(Samples.Ms(100), DecisionAct.Finished, 1), new(Samples.Ms(110), DecisionAct.GivenUp, 2),
            new(Samples.Ms(200), DecisionAct.Begun, 100),
        ];

        var explained = PassageExplanation.Of(run, log);

        Assert.Equal(new DecidedFrames(3, 2, 1, Samples.Ms(95), Samples.Ms(25), Samples.Ms(40)), explained[0].Decided);
        Assert.Equal(new DecidedFrames(1, 0, 0, null, null, null), explained[1].Decided);
        Assert.Null(PassageExplanation.Of(run)[0].Decided);
    }

    private static Decision Chosen(double at, long frame, double expected) => new(Samples.Ms(at), DecisionAct.Chosen, frame)
    {
        Basis = new ChoiceBasis(null, Samples.Ms(expected), default, default, 0, 0),
    };
}
