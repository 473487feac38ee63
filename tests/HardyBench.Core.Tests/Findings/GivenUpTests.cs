using HardyBench.Core.Findings;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Tests.Trials;
using HardyBench.Core.Trials;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Findings;

/// <summary>A chart that shows an idle machine while frames are missed needs a sentence that says why.</summary>
public sealed class GivenUpTests
{
    [Theory]
    [InlineData(DropReason.DecodeSkipped, true)]
    [InlineData(DropReason.PassedOver, true)]
    [InlineData(DropReason.NotReady, false)]
    public void A_rest_that_was_passed_over_without_work_is_told(DropReason reason, bool told)
    {
        var finding = RunFindings.Of(With(reason, share: 0.6))[0];

        Assert.Equal(told ? Samples.Ms(59 * 40) : null, finding.GivenUpFrom);
        Assert.Equal(
            told,
            LimiterWords.Evidence(finding)!.Contains("From 2.4 s on no work was done", StringComparison.Ordinal));
    }

    [Fact]
    public void A_few_frames_at_the_end_are_no_rest() =>
        Assert.Null(RunFindings.Of(With(DropReason.DecodeSkipped, share: 0.95))[0].GivenUpFrom);

    [Fact]
    public void The_seconds_of_a_limiter_are_those_in_which_it_was_read()
    {
        var run = With(DropReason.NotReady, share: 0.6);
        var loads = Enumerable.Range(1, 40).SelectMany(n => new[]
        {
            new LoadReading(Samples.Ms(100 * n), LoadKind.Core, 0, 1), new LoadReading(Samples.Ms(100 * n), LoadKind.OwnDecode, 0, 1),
            new LoadReading(Samples.Ms(100 * n), LoadKind.OwnEffects, 0, 0),
        }).ToList();
        run = run with { Loads = loads, Header = run.Header with { Conditions = run.Header.Conditions with { UsableCores = [0] } } };

        // Slots from 2.4 s on are missed; the work for the first of them was done in the 0.3 s before.
        Assert.Equal(
            (Samples.Ms(2200), Samples.Ms(4000)),
            RunFindings.Of(run)[0].Limiter!.Evidence is var evidence ? (evidence.From, evidence.To) : default);
    }

    private static Run With(DropReason reason, double share)
    {
        var run = Scripted.Run(new TrialStep(StepRole.Only, Scripted.Plan(1)), _ => share);
        return run with
        {
            Frames = [.. run.Frames.Select(frame => frame.Status == FrameStatus.Dropped ? frame with { Reason = reason } : frame)],
        };
    }
}
