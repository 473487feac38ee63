using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Player.Decoding;
using HardyBench.Player.Playing;
using HardyBench.Player.Tests.Playing;
using HardyBench.Telemetry;

namespace HardyBench.Player.Tests.Effects;

/// <summary>A run that asks for no device takes those of the machine that pass the check. The devices here are the processor's own
/// implementations of OpenCL and Vulkan; a made-up node stands for graphics hardware.</summary>
public sealed class OwnDevicesTests : IDisposable
{
    private static readonly Passage Sharpened = new("asked", 10, [new Layer("hd-avc-25", [Effect.Of("sharpen")])], []);
    private static readonly Passage Graded = new("asked", 10, [new Layer("hd-avc-25", [Effect.Of("primary-grade")])], []);

    private readonly string root = Directory.CreateTempSubdirectory("hardybench-own-devices-").FullName;

    public void Dispose() => Directory.Delete(root, recursive: true);

    [Fact]
    public async Task Without_hardware_behind_it_no_device_is_used_unless_it_is_asked_for()
    {
        Assert.DoesNotContain(Devices.On(new SystemFiles(root)), device => device.IsOwn);
        Assert.Equal((null, null), await EffectsOfAsync(Sharpened));
        Assert.Equal(("opencl", null), await EffectsOfAsync(Sharpened, "opencl"));
    }

    [Fact]
    public async Task With_hardware_effects_run_on_the_device_that_makes_the_processors_picture()
    {
        AddHardware();

        Assert.Contains(Devices.On(new SystemFiles(root)), device => device is { Name: "opencl", IsOwn: true });
        Assert.Equal(("opencl", null), await EffectsOfAsync(Sharpened));
        Assert.Equal((null, null), await EffectsOfAsync(Graded));
    }

    [Fact]
    public async Task Processor_only_uses_no_device_whatever_there_is()
    {
        AddHardware();

        Assert.Equal((null, null), await EffectsOfAsync(Sharpened, WorkPlace.Processor));
        Assert.Equal((null, null), await DecoderOfAsync("hd-avc-25", WorkPlace.Processor));
    }

    [Fact]
    public async Task What_no_device_decodes_the_processor_does_and_each_refusal_is_told()
    {
        AddHardware();

        var (device, refusal) = await DecoderOfAsync("hd-avc-25", asked: null);

        Assert.Null(device);
        Assert.Contains("opencl: there is no decoder of this codec for opencl", refusal);
    }

    /// <summary>Intermediates are decoded on the processor everywhere, so nothing is missing.</summary>
    [Fact]
    public async Task That_no_device_decodes_an_intermediate_is_not_told()
    {
        AddHardware();

        Assert.Equal((null, null), await DecoderOfAsync("hd-mezz-25", asked: null));
        Assert.NotNull((await DecoderOfAsync("hd-mezz-25", "opencl")).Refusal);
    }

    [Fact]
    public void A_picture_that_differs_by_more_than_rounding_is_another()
    {
        Assert.True(OwnDevices.IsSame([10, 20, 30], [11, 19, 30]));
        Assert.False(OwnDevices.IsSame([10, 20, 30], [16, 20, 33]));
        Assert.False(OwnDevices.IsSame([10, 20, 30], [10, 20]));
    }

    private void AddHardware()
    {
        Directory.CreateDirectory(Path.Combine(root, "dev/dri"));
        File.WriteAllText(Path.Combine(root, "dev/dri/renderD128"), string.Empty);
    }

    private async Task<(string? Device, string? Refusal)> EffectsOfAsync(Passage passage, string? asked = null) =>
        new OwnDevices(new SystemFiles(root), Plans.Filters).ForEffects(
            (await Plans.OfAsync(passage, new FrameRate(25))) with { Settings = new PlaybackSettings(EffectsOn: asked) },
            await TestData.ClipsAsync());

    private async Task<(string? Device, string? Refusal)> DecoderOfAsync(string id, string? asked)
    {
        var clips = await TestData.ClipsAsync();
        var clip = clips.Clips[id];
        return new OwnDevices(new SystemFiles(root), Plans.Filters).DecoderFor(ClipSource.Of(clip, clips), clip.Format.IsAllIntra, asked);
    }
}
