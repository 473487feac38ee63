using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Wording;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;
using HardyBench.Player.Native;
using HardyBench.Player.Tests.Playing;

namespace HardyBench.Player.Tests.Effects;

/// <summary>Where decoding and effects ran in fact, and what happens when a device does not do its part.</summary>
public sealed class DeviceTests
{
    private static readonly Passage Sharpened = new("asked", 20, [new Layer("hd-avc-25", [Effect.Of("sharpen"), Effect.Of("blur")])], []);

    [Fact]
    public async Task A_run_tells_for_each_effect_where_it_ran_and_why_not_on_the_device()
    {
        var run = await PlayAsync(Sharpened, new PlaybackSettings(EffectsOn: "opencl"));

        Assert.Equal(new EffectState("opencl", null), run.Header.Conditions.Effects!["sharpen"]);
        Assert.Equal(new EffectState("processor", "there is no filter for it on opencl"), run.Header.Conditions.Effects["blur"]);
        Assert.Contains("blur was done on the processor: there is no filter for it on opencl", RunWords.NotesOf(run));
        Assert.All(run.Frames, frame => Assert.NotNull(frame.Shown));
    }

    [Fact]
    public async Task A_filter_that_takes_8_bits_only_leaves_deeper_pictures_to_the_processor()
    {
        var deep = Sharpened with { Layers = [new Layer("hd-mezz-25", [Effect.Of("sharpen")])] };
        var run = await PlayAsync(deep, new PlaybackSettings(EffectsOn: "opencl"));

        Assert.Equal(
            new EffectState("processor", "its filter on opencl supports at most 8 bits a sample"),
            run.Header.Conditions.Effects!["sharpen"]
        );
        Assert.Empty(run.Failures);
    }

    [Fact]
    public async Task A_device_that_is_not_there_leaves_everything_to_the_processor_with_the_reason()
    {
        var run = await PlayAsync(Sharpened, new PlaybackSettings(EffectsOn: "no-such-device", DecodeOn: "no-such-device"));

        Assert.All(run.Header.Conditions.Effects!.Values, effect => Assert.Equal("processor", effect.RanOn));
        var footage = run.Header.Conditions.Footage!["hd-avc-25"];
        Assert.Equal(("processor", "these libraries know no device 'no-such-device'"), (footage.DecodedOn, footage.Refusal));
        Assert.Empty(run.Failures);
        Assert.All(run.Frames, frame => Assert.NotNull(frame.Shown));
    }

    /// <summary>The device's software stand-in does not decode anything, so the refusal comes with the format.</summary>
    [Fact]
    public async Task A_device_that_decodes_no_such_format_falls_back_and_says_why()
    {
        var run = await PlayAsync(Sharpened, new PlaybackSettings(DecodeOn: "opencl"));

        Assert.Equal("there is no decoder of this codec for opencl", run.Header.Conditions.Footage!["hd-avc-25"].Refusal);
        Assert.Contains(RunWords.NotesOf(run), note => note.StartsWith("hd-avc-25 was decoded on the processor", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_graphics_device_lost_in_mid_run_hands_over_to_the_processor_and_no_frame_is_missing()
    {
        var plan = (await Plans.OfAsync(Sharpened, new FrameRate(25))) with { Settings = new PlaybackSettings(EffectsOn: "opencl") };
        var clips = await TestData.ClipsAsync();
        var graph = new LosingGraph(after: 5);
        using var treatment = new PassageTreatment(graph, plan, Sharpened, threads: 1);
        using var decoder = new ClipDecoder(clips.PathOf(clips.Clips["hd-avc-25"]), 1);

        for (var position = 0; position < 12; position++)
        {
            using var frame = decoder.Next();
            using var picture = treatment.Treat([frame], position);

            Assert.NotNull(picture);
            Assert.Equal(position >= 5, treatment.DeviceFailure is not null);
        }

        Assert.Equal(
            "effects on opencl failed: Treating a frame failed: the device is gone. The processor took over",
            treatment.DeviceFailure
        );
        Assert.Equal([true, false], graph.Devices);
    }

    [Fact]
    public void Devices_are_listed_with_why_they_cannot_be_used()
    {
        Assert.Contains(Devices.All, device => device is { Name: "opencl", Refusal: null });
        Assert.Contains(Devices.All, device => device is { Name: "vulkan", Refusal: null });
        Assert.All(
            Devices.All.Where(device => device.Refusal is not null),
            device => Assert.StartsWith($"Opening {device.Name} failed", device.Refusal, StringComparison.Ordinal)
        );
    }

    private static async Task<Run> PlayAsync(Passage passage, PlaybackSettings settings) =>
        await Plans.PlayAsync(
            (await Plans.OfAsync(passage, new FrameRate(25))) with
            {
                Settings = settings with { Policy = PlayingPolicy.KeepFrames },
            }
        );

    /// <summary>A graph whose device is gone after some frames.</summary>
    private sealed class LosingGraph(int after) : PassageGraph(Plans.Filters)
    {
        public List<bool> Devices { get; } = [];

        public override Treatment Open(PlaybackPlan plan, Passage passage, IReadOnlyList<FrameHandle> like, int threads)
        {
            var (description, device) = (Describe(plan, passage), plan.Settings.EffectsOn);
            Devices.Add(device is not null);
            return device is null
                ? base.Open(plan, passage, like, threads)
                : new Losing(description, like, plan.Timeline.Rate, threads, device, after);
        }
    }

    private sealed class Losing(string description, IReadOnlyList<FrameHandle> like, FrameRate rate, int threads, string device, int after)
        : Treatment(description, like, rate, threads, device)
    {
        public override FrameHandle? Treat(IReadOnlyList<DecodedFrame> layers, long position) =>
            position < after ? base.Treat(layers, position) : throw new MediaException("Treating a frame failed: the device is gone.");
    }
}
