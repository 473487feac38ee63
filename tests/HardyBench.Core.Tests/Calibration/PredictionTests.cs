using HardyBench.Core.Calibration;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback.Subjects;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Calibration;

public sealed class PredictionTests
{
    private static readonly DateTimeOffset Now = new(2026, 11, 27, 12, 0, 0, TimeSpan.Zero);
    private static readonly CodecCost Avc = new(Codec.Avc, false, 2.3e-9, 10.4e-9, 0, 0, 0.02, 4e6, 4e6);

    private static readonly Machine Twin = Samples.Machine("twin") with
    {
        Costs = new MachineCosts([Avc], [new WorkTime("blur", 5, null)], 0.1, Now),
    };

    private static readonly MachineCalibration Calibration = new("c", Now, Twin, 1, [], [], null, TimeSpan.Zero);

    /// <summary>Of the twin itself the twin predicts just what comes.</summary>
    [Theory]
    [InlineData(PlayingPolicy.KeepTime)]
    [InlineData(PlayingPolicy.Unpaced)]
    public void What_is_predicted_stands_beside_what_came(PlayingPolicy policy)
    {
        var plan = Samples.Plan(Twin, Samples.HdAvc, new PlaybackSettings(Policy: policy), null, Effect.Of("blur"));
        var prediction = Prediction.Of(7, Play(plan), plan with { Machine = Samples.Machine("this") }, Calibration);

        var passage = Assert.Single(prediction.Passages);
        Assert.Equal((7, "c", policy == PlayingPolicy.Unpaced), (prediction.RunId, prediction.Calibration, prediction.IsUnpaced));
        Assert.Equal((passage.Measured, passage.MeasuredVerdict), (passage.Predicted, passage.PredictedVerdict));
        Assert.Equal(policy == PlayingPolicy.Unpaced ? null : Verdict.Holds, passage.PredictedVerdict);
        Assert.False(passage.Extrapolates);
    }

    [Fact]
    public void Footage_outside_what_was_measured_is_marked()
    {
        var plan = Samples.Plan(Twin, Samples.UhdHevc422);
        Assert.True(Assert.Single(Prediction.Of(1, Play(plan), plan, Calibration).Passages).Extrapolates);
    }

    /// <summary>Of a run by hand, on a device, with pictures, or stopped, the twin cannot speak.</summary>
    [Fact]
    public void It_speaks_only_of_runs_that_it_plays_too()
    {
        var run = Play(Samples.Plan(Twin, Samples.HdAvc));

        Assert.True(Prediction.Speaks(run));
        Assert.False(Prediction.Speaks(run with { Ending = RunEnding.Stopped }));
        Assert.False(Prediction.Speaks(run with { Header = run.Header with { Subject = new ByHand([]) } }));
        Assert.False(Prediction.Speaks(Under(run, conditions => conditions with
        {
            Footage = new Dictionary<string, FootageState> { ["c"] = new(null, null, null, "vaapi", null) },
        })));
        Assert.False(Prediction.Speaks(Under(run, conditions => conditions with
        {
            Effects = new Dictionary<string, EffectState> { ["blur"] = new("opencl", null) },
        })));
        Assert.False(Prediction.Speaks(run with { Header = run.Header with { Settings = new PlaybackSettings(Pictures: true) } }));
    }

    private static Run Under(Run run, Func<Conditions, Conditions> change) =>
        run with { Header = run.Header with { Conditions = change(run.Header.Conditions) } };

    /// <summary>Rates count where there was no clock, verdicts where there was one; disturbed runs count for nothing.</summary>
    [Fact]
    public void How_good_they_were_is_told_without_disturbed_runs()
    {
        Prediction[] all =
        [
            Of(true, false, (30, 20, null, null), (10, 10, null, null), (11, 10, null, null), (10, 0, null, null)),
            Of(false, false, (25, 25, Verdict.Holds, Verdict.Holds), (25, 24, Verdict.Holds, Verdict.Wavers), (9, 9, null, Verdict.Breaks)),
            Of(true, true, (100, 1, null, null)),
            Of(false, true, (25, 1, Verdict.Holds, Verdict.Breaks)),
        ];
        var figures = PredictionFigures.Of(all);

        Assert.Equal(3, figures.Rates);
        Assert.Equal(0.1, figures.MedianError!.Value, 9);
        Assert.Equal((2, 1), (figures.Verdicts, figures.Same));
        Assert.Equal(
            "The sustained rates of 3 passages had a median error of 10 %. Of 2 passages that could be judged 1 came out as predicted, 50 %.",
            CalibrationWords.Of(figures));
        Assert.Null(CalibrationWords.Of(PredictionFigures.Of([])));

        static Prediction Of(bool unpaced, bool disturbed, params (double, double, Verdict?, Verdict?)[] passages) => new(
            1, "c", "T", Now, unpaced, disturbed,
            [.. passages.Select(one => new PredictedPassage(0, "asked", one.Item1, one.Item2, one.Item3, one.Item4, false))]);
    }

    [Fact]
    public void A_machine_that_changed_after_it_was_measured_is_told_with_what_changed()
    {
        var machine = Samples.Machine(cores: 4);
        var upgraded = machine with { Memory = machine.Memory with { Gigabytes = 64 } };

        Assert.Null(CalibrationWords.Outdated(machine, machine with { Name = "Another name" }));
        Assert.Equal(
            $"This machine has changed since: memory {machine.Memory.Gigabytes} GB → 64 GB. These costs and the twin are of the machine "
            + "before. Measure again.",
            CalibrationWords.Outdated(machine, upgraded));
    }

    private static readonly CodecCost[] Impossible =
    [
        Avc with { PerSampleByte = -1 }, Avc with { PerBit = double.NaN }, Avc with { PerSampleByte = 0, PerBit = 0 },
        Avc with { SerialPart = 1.1 }, Avc with { MostBits = double.PositiveInfinity }, Avc with { Codec = (Codec)99 },
    ];

    public static TheoryData<int> Wrong => new(Enumerable.Range(0, Impossible.Length));

    [Theory]
    [MemberData(nameof(Wrong))]
    public void Costs_that_cannot_be_are_refused(int place)
    {
        Assert.Empty(MachineLimits.Problems(Twin));
        Assert.Single(MachineLimits.Problems(Twin with { Costs = Twin.Costs! with { Decoding = [Impossible[place]] } }));
        Assert.Single(MachineLimits.Problems(Twin with { Costs = Twin.Costs with { Treating = [new WorkTime("blur", -1, null)] } }));
        Assert.Single(MachineLimits.Problems(Twin with { Costs = Twin.Costs with { Decoding = null! } }));
        Assert.Single(MachineLimits.Problems(Twin with { Costs = Twin.Costs with { Band = 0 } }));
    }

    private static Run Play(PlaybackPlan plan) =>
        new StandInPlayback(TimeProvider.System).PlayAsync(plan, new NoObserver(), CancellationToken.None).Result;
}
