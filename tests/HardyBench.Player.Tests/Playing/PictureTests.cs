using System.Diagnostics;
using System.Globalization;
using System.Security.Cryptography;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Effects;
using HardyBench.Player.Native;
using HardyBench.Player.Playing;
using HardyBench.Player.Telemetry;
using HardyBench.Workbench.Demo;

namespace HardyBench.Player.Tests.Playing;

/// <summary>The frames that a run shows are the right ones: the picture in every slot equals, bit for bit, what
/// FFmpeg's own command gives for the same clips, positions and filters.</summary>
public sealed class PictureTests
{
    private const int Slots = 60; // the clips have 50 frames, so this loops them

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    [InlineData(7)]
    [InlineData(8)]
    public async Task Every_passage_shows_the_pictures_that_the_command_gives(int number)
    {
        var plan = await Plans.SmallAsync(number, Slots, new PlaybackSettings(Policy: PlayingPolicy.KeepFrames));
        var screen = new Camera();

        var run = await Plans.PlayAsync(plan, screen);

        Assert.Empty(run.Failures);
        Assert.Equal(Slots, screen.Digests.Count);
        Assert.Equal(await CommandAsync(plan), screen.Digests);
    }

    [Fact]
    public async Task A_smaller_preview_scale_shows_the_command_s_pictures_too()
    {
        var plan = await Plans.SmallAsync(6, Slots, new PlaybackSettings(PreviewScale.Half, PlayingPolicy.KeepFrames));
        var screen = new Camera();

        await Plans.PlayAsync(plan, screen);

        Assert.Equal(await CommandAsync(plan), screen.Digests);
    }

    private static async Task<List<string>> CommandAsync(PlaybackPlan plan)
    {
        var passage = plan.Timeline.Passages[0];
        var clips = await TestData.ClipsAsync();
        var inputs = string.Join(' ', plan.ClipsOf(passage).Select(clip => $"-stream_loop -1 -i {clips.PathOf(clip)}"));
        var rate = plan.Timeline.Rate.NominalFramesPerSecond;
        var heads = plan.ClipsOf(passage).Select((clip, i) =>
            $"[{i}:v]select='not(mod(n\\,{clip.Format.Rate.NominalFramesPerSecond / rate}))',settb=1/{rate},setpts=N[in{i}]");
        var graph = string.Join(';', heads) + ";" + new PassageGraph(Plans.Filters).Describe(plan, passage);
        using var ffmpeg = Process.Start(new ProcessStartInfo("ffmpeg")
        {
            ArgumentList = { "-v", "error" },
            RedirectStandardOutput = true,
        }.With(inputs.Split(' '), ["-filter_complex", graph, "-map", "[out]", "-frames:v", Slots.ToString(CultureInfo.InvariantCulture), "-f", "framehash", "-hash", "sha256", "-"]))!;
        var text = await ffmpeg.StandardOutput.ReadToEndAsync();
        await ffmpeg.WaitForExitAsync();
        return [.. text.Split('\n').Where(line => line.Length > 0 && line[0] != '#').Select(line => line.Split(',')[^1].Trim())];
    }

    /// <summary>Keeps a digest of every picture shown.</summary>
    private sealed class Camera : IScreen
    {
        public List<string> Digests { get; } = [];

        public void Show(long frame, FrameHandle picture) =>
            Digests.Add(Convert.ToHexStringLower(SHA256.HashData(picture.CopyPlanes())));
    }
}

/// <summary>Plans over the small pack.</summary>
internal static class Plans
{
    public static EffectFilters Filters { get; } = new(LooksFolder(), Fonts.ForTitles);

    /// <summary>One passage of the demo timeline as a timeline of its own.</summary>
    public static async Task<PlaybackPlan> SmallAsync(int number, int slots, PlaybackSettings settings)
    {
        var demo = DemoTimelines.TouringNight(Raster.Hd.DividedBy(3), 3);
        var passage = demo.Passages[number - 1] with { FrameCount = slots };
        return await PlanAsync(demo with { Passages = [passage] }, settings);
    }

    public static async Task<PlaybackPlan> PlanAsync(Timeline timeline, PlaybackSettings settings) => new(
        timeline, (await TestData.ClipsAsync()).Clips, ThisMachine.Describe(SystemFiles.Live), settings);

    public static async Task<Run> PlayAsync(
        PlaybackPlan plan, IScreen? screen = null, IClipFiles? files = null, IRunObserver? observer = null, CancellationToken stop = default) =>
        await new LocalPlayback(files ?? await TestData.ClipsAsync(), Filters, SystemFiles.Live, TimeProvider.System, screen)
            .PlayAsync(plan, observer ?? new Notes(), stop);

    public static ProcessStartInfo With(this ProcessStartInfo start, params IEnumerable<string>[] arguments)
    {
        arguments.SelectMany(part => part).ToList().ForEach(start.ArgumentList.Add);
        return start;
    }

    private static string LooksFolder()
    {
        var folder = TestData.NewFolder("looks");
        Looks.WriteTo(folder);
        return folder;
    }
}

/// <summary>Notes what a player tells.</summary>
internal sealed class Notes : IRunObserver
{
    public List<FrameRecord> Frames { get; } = [];

    public List<byte[]> Pictures { get; } = [];

    public Action? OnProgress { get; init; }

    public void Started(RunHeader header)
    {
    }

    public void Progressed(RunProgress progress)
    {
        Frames.AddRange(progress.Frames);
        OnProgress?.Invoke();
    }

    public void Pictured(int frame, byte[] jpeg) => Pictures.Add(jpeg);
}
