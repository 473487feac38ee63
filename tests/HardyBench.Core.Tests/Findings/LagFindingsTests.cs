using HardyBench.Core.Findings.Lags;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Tests.Trials;
using HardyBench.Core.Trials;
using HardyBench.Core.Trials.Kinds;

namespace HardyBench.Core.Tests.Findings;

public sealed class LagFindingsTests
{
    [Fact]
    public void Lags_are_told_by_passage_and_gesture_and_what_was_passed_over_apart()
    {
        var finding = LagFindings.Of(With([.. Enumerable.Range(1, 9).Select(n => Lag(n, 20 * n)), Lag(3, null), Lag(150, 2000)]));

        Assert.Equal([(0, 10), (1, 1)], finding.Select(one => (one.PassageIndex, one.Asked)));
        Assert.Equal((1, Samples.Ms(100), Samples.Ms(180)), (finding[0].PassedOver, finding[0].Median, finding[0].Longest));
        // Quantiles by linear interpolation, Hyndman and Fan's definition 7: 0.95 of 20 to 180 lies at 20 + 8 · 0.95 · 20.
        Assert.Equal(172, finding[0].NinetyFifth!.Value.TotalMilliseconds, 3);
        Assert.Equal((5.0 / 9, 1), (finding[0].WithinTenth, finding[0].WithinSecond));
        Assert.Equal((0, 0), (finding[1].WithinTenth, finding[1].WithinSecond));
    }

    [Fact]
    public void A_gesture_of_which_nothing_came_has_no_times()
    {
        var finding = Assert.Single(LagFindings.Of(With([Lag(1, null), Lag(2, null)])));

        Assert.Equal((2, 2), (finding.Asked, finding.PassedOver));
        Assert.Null(finding.Median);
        Assert.Null(finding.Longest);
        Assert.Equal(0, finding.WithinSecond);
    }

    /// <summary>Three starts a passage make no percentages.</summary>
    [Fact]
    public void A_start_lag_says_what_is_usual_and_what_takes_longest()
    {
        var run = With([Lag(1, 300), Lag(2, 280), Lag(3, 320), Lag(150, 900), Lag(151, 3500), Lag(152, null)]);
        var answer = Scripted.Kind(TrialKind.StartLag).Answer(run.Header.Timeline, [new StepOutcome(StepRole.Only, run)]);

        Assert.Equal(
            "Usually 1.25 s from the key to a moving picture; passage 2, “asked 2”, up to 3.5 s; 1 of 6 never came.", answer.Words);
        Assert.Equal(["usually 0.3 s, up to 0.32 s", "usually 2.2 s, up to 3.5 s, 1 of 3 never came"], answer.Rows.Select(row => row.Words));
        Assert.Contains("half-raster proxies", answer.NextStep, StringComparison.Ordinal);
    }

    [Fact]
    public void A_place_that_the_hand_left_is_not_late()
    {
        const TrialKind kind = TrialKind.Scrub;
        var run = With([Lag(1, 40), Lag(2, 85), Lag(3, null), Lag(4, null)]);
        var answer = Scripted.Kind(kind).Answer(run.Header.Timeline, [new StepOutcome(StepRole.Only, run)]);

        Assert.Equal(
            "100 % of the 2 pictures that were shown came at once (0.1 s), 100 % within a second; the longest took 85 ms; 2 of 4 "
                + "requests were skipped because a later one replaced them.",
            answer.Words);
        Assert.Equal("100 % within 0.1 s, 100 % within 1 s, 2 of 4 requests skipped", answer.Rows[0].Words);
        var none = With([Lag(1, null)]);
        Assert.Equal(
            "None of the requested pictures was shown.",
            Scripted.Kind(kind).Answer(none.Header.Timeline, [new StepOutcome(StepRole.Only, none)]).Words
        );
    }

    private static LagReading Lag(int frame, double? ms) =>
        new(GestureKind.Jump, "to a far frame", frame, TimeSpan.FromSeconds(frame), ms is { } known ? Samples.Ms(known) : null);

    private static Run With(LagReading[] lags) =>
        Scripted.Run(new TrialStep(StepRole.Only, Scripted.Plan(2)), _ => 0) with { Lags = lags };
}
