using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback.Subjects;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.StandIns;
using HardyBench.Core.Trials;
using HardyBench.Core.Trials.Kinds;

namespace HardyBench.Core.Tests.Trials;

/// <summary>Writing a film in every way that a machine has, and what is said of it.</summary>
public sealed class ExportTrialTests
{
    private static readonly Machine WithEngine = Samples.Machine() with
    {
        MediaEngines =
        [
            new MediaEngine("block", 1000, [])
            {
                Encodes = [new FormatCapability(Codec.Hevc, ChromaSubsampling.Quarter, 10, Raster.Uhd)], EncodedMegapixelsPerSecond = 100,
            },
        ],
    };

    [Fact]
    public void Every_format_is_written_by_every_encoder_that_there_is_each_round_anew()
    {
        var trial = Of(WithEngine, times: 2);

        var done = Scripted.Course(trial, (_, _) => 1);

        string[] round =
        [
            "AVC 8-bit 4:2:0 by the processor", "HEVC 10-bit 4:2:0 by the processor", "RDD 36 10-bit 4:2:2 by the processor",
            "HEVC 10-bit 4:2:0 by the media engine",
        ];
        Assert.Equal(8, trial.StepCount);
        Assert.Equal(
            [.. round.Select(name => $"{name}, 1 of 2"), .. round.Select(name => $"{name}, 2 of 2")],
            done.Select(one => one.Role.Label));
        Assert.All(done, one => Assert.Equal(PlayingPolicy.Unpaced, one.Header.Settings.Policy));
    }

    [Fact]
    public void Times_are_ranked_with_their_spread_and_against_the_running_time()
    {
        var trial = Of(WithEngine, times: 2);
        var done = Scripted.Course(trial, (_, _) => 1).Select((outcome, run) => Lasting(outcome, run switch
        {
            0 or 4 => 4, 1 => 9, 5 => 11, 2 or 6 => 2, _ => 1,
        })).ToList();

        Assert.Equal(
            "Fastest first:\n1. HEVC 10-bit 4:2:0 by the media engine, 1.0 ± 0.0 s (0.25 times the running time)\n2. RDD 36 10-bit 4:2:2 by "
            + "the processor, 2.0 ± 0.0 s (0.50 times the running time)\n3. AVC 8-bit 4:2:0 by the processor, 4.0 ± 0.0 s (1.00 times the "
            + "running time)\n4. HEVC 10-bit 4:2:0 by the processor, 10.0 ± 12.7 s (2.50 times the running time)\nThe slowest takes 10.0 "
            + "times as long as the fastest.",
            Scripted.Kind(TrialKind.Export).Answer(trial.Start.Timeline, done).Words);
    }

    /// <summary>A frame that is missing, or a file that is wrong, leaves no time.</summary>
    [Fact]
    public void What_was_not_written_whole_has_no_time()
    {
        var trial = Of(Samples.Machine(), times: 1);
        var done = Scripted.Course(trial, (step, _) => step.Role.Label.StartsWith("AVC", StringComparison.Ordinal) ? 0.5 : 1);
        var wrong = done[1].Header;
        done[1] = new StepOutcome(done[1].Role, RunOf(wrong, 3) with { Failures = [new PassageFailure(0, "The export has 3 frames.")] });

        var words = Scripted.Kind(TrialKind.Export).Answer(trial.Start.Timeline, done).Words;

        Assert.StartsWith("Written: RDD 36 10-bit 4:2:2 by the processor,", words, StringComparison.Ordinal);
        Assert.EndsWith(
            "Not completed, so without a time: AVC 8-bit 4:2:0 by the processor; HEVC 10-bit 4:2:0 by the processor.", words,
            StringComparison.Ordinal);
    }

    [Fact]
    public void What_makes_no_export_is_refused_in_words()
    {
        Assert.StartsWith("An export trial writes", Refusal(Of(WithEngine, 11)), StringComparison.Ordinal);
        Assert.Contains("full scale", Refusal(Of(WithEngine, 1, settings: new PlaybackSettings(PreviewScale.Half))), StringComparison.Ordinal);
        Assert.Contains("unknown format or encoder", Refusal(Of(WithEngine, 1, (ExportFormat)9)), StringComparison.Ordinal);
        Assert.Equal(
            "No media engine of M encodes AVC 8-bit 4:2:0 at HD. Let the processor encode, or choose a machine whose engine does.",
            Refusal(Of(WithEngine with { Name = "M" }, 1, ExportFormat.Avc, EncoderPlace.MediaEngine)));
        var here = Samples.Machine() with { Kind = MachineKind.Real };
        Assert.Contains(
            "neither cold nor warm", Refusal(Of(here, 1, ExportFormat.Avc, settings: new PlaybackSettings(Cache: FileCache.Cold))),
            StringComparison.Ordinal);
        Assert.Equal(
            "On this machine only the processor encodes. Choose it, or a stand-in.",
            Refusal(Of(here, 1, ExportFormat.Avc, EncoderPlace.MediaEngine)));
        Assert.Contains(
            "no clock", (WrittenAs(ExportFormat.Avc) with { Settings = new PlaybackSettings() }).Problem, StringComparison.Ordinal);
    }

    /// <summary>X = 1 / max D over the stations (Denning and Buzen 1978), the encoder among them: with constant services the time that an
    /// export takes is that of its bottleneck.</summary>
    [Theory]
    [InlineData(EncoderPlace.Processor, ExportFormat.Hevc)]
    [InlineData(EncoderPlace.Processor, ExportFormat.Rdd36)]
    [InlineData(EncoderPlace.MediaEngine, ExportFormat.Hevc)]
    public void An_export_goes_at_the_rate_of_its_bottleneck(EncoderPlace place, ExportFormat format)
    {
        var plan = WrittenAs(format, place);
        var passage = plan.Timeline.Passages[0];
        var demand = CostModel.DemandOf(plan, passage) with { FrameCount = 500 };
        var bare = CostModel.DemandOf(plan with { Settings = new PlaybackSettings(), Subject = Subject.Play }, passage);

        var shown = new Simulation([demand], plan.Timeline.Rate, plan.Settings, ServiceSpread.None, null).Play()
            .Select(frame => frame.Shown!.Value.TotalSeconds).ToList();

        Assert.Equal(demand.ThroughputBound(1e9), 400 / (shown[450] - shown[50]), 1.0);
        var station = place == EncoderPlace.Processor ? Station.Processor : Station.EncodingEngine;
        Assert.Equal(
            place == EncoderPlace.Processor
                ? EncodeCost.Of(format).CoreSeconds(Raster.Hd) / EncodeCost.Of(format).SpeedUp(plan.Machine.Processor.InFastCores)
                    / plan.Machine.Processor.FastSpeed
                : Raster.Hd.Pixels / 100e6,
            demand.DemandSeconds(station) - bare.DemandSeconds(station), 6);
    }

    [Fact]
    public void Every_format_has_an_encoding_and_a_cost() => Assert.All(Enum.GetValues<ExportFormat>(), format =>
    {
        Assert.True(new Export(format).Written(Raster.Hd, Samples.Rate).DataRate.BitsPerSecond > 0);
        Assert.True(EncodeCost.Of(format).CoreSeconds(Raster.Hd) > 0);
    });

    private static PlaybackPlan WrittenAs(ExportFormat format, EncoderPlace place = EncoderPlace.Processor) =>
        Of(WithEngine, 1, format, place).Next([], TimeSpan.Zero)!.Plan;

    private static TrialPlan Of(
        Machine machine, int times, ExportFormat? format = null, EncoderPlace place = EncoderPlace.Processor,
        PlaybackSettings? settings = null) =>
        new(new ExportTrial(times, format, place), Scripted.Plan(1, settings) with { Machine = machine });

    private static string Refusal(TrialPlan plan) => Assert.Throws<PlanRefusedException>(() => plan.Checked()).Message;

    private static StepOutcome Lasting(StepOutcome outcome, double seconds) => new(outcome.Role, RunOf(outcome.Header, seconds));

    /// <summary>Of which the last frame comes after so many seconds.</summary>
    private static Run RunOf(RunHeader header, double seconds)
    {
        var frames = Enumerable.Range(1, (int)header.Timeline.FrameCount).Select(frame =>
        {
            var at = TimeSpan.FromSeconds(seconds * frame / header.Timeline.FrameCount);
            return new FrameRecord(frame - 1, at, at, at, FrameStatus.OnTime, DropReason.None, default, default, default, default, 0);
        });
        return new Run(header, RunEnding.Finished, TimeSpan.Zero, [.. frames], [], []);
    }
}
