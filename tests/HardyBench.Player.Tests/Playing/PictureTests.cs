using System.Diagnostics;
using System.Globalization;
using System.Security.Cryptography;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback.Subjects;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Media.EffectFiles;
using HardyBench.Player.Effects;
using HardyBench.Player.Native;
using HardyBench.Player.Playing;
using HardyBench.Telemetry;
using HardyBench.Workbench.Demo;

namespace HardyBench.Player.Tests.Playing;

/// <summary>The frames that a run shows are the right ones: the picture in every slot equals, bit for bit, what
/// FFmpeg's own command gives for the same clips, positions and filters.</summary>
public sealed class PictureTests
{
    private const int Slots = 60; // the clips have 50 frames, so this loops them
    private const int FewSlots = 25;

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

    /// <summary>Every effect that this player has, at settings off its defaults, on a layer.</summary>
    public static TheoryData<string> Effects => new(
        EffectCatalogue.All.Where(kind => kind.RunsOn != EffectPlace.StandInsOnly).Select(kind => kind.Id));

    [Theory]
    [MemberData(nameof(Effects))]
    public async Task Every_effect_shows_the_pictures_that_the_command_gives(string id)
    {
        var effect = WithUnusualSettings(EffectCatalogue.Find(id)!);
        Assert.Empty(EffectCatalogue.Problems(effect));
        Layer[] layers = id == "key" || id == EffectCatalogue.Placement
            ? [new Layer("hd-mezz-25", []), new Layer("hd-avc-25", [effect])]
            : [new Layer("hd-mezz-25", [effect])];
        await ExpectTheCommandsPicturesAsync(new Passage(id, FewSlots, layers, []));
    }

    /// <summary>PoCL and lavapipe stand in for a graphics unit.</summary>
    [Theory]
    [InlineData("sharpen", "opencl", "hd-avc-50")]
    [InlineData("key", "opencl", "hd-mezz-25")]
    [InlineData("blur", "vulkan", "hd-mezz-25")]
    public async Task An_effect_on_a_device_shows_the_pictures_that_the_command_gives_on_it(string id, string device, string below)
    {
        const int Few = 5; // devices made of software are slow
        var layers = (Layer[])[new Layer(below, []), new Layer("hd-avc-25", [WithUnusualSettings(EffectCatalogue.Find(id)!)])];
        var plan = await Plans.OfAsync(new Passage(id, Few, layers, []), new FrameRate(25));
        plan = plan with { Settings = plan.Settings with { EffectsOn = device } };
        var screen = new Camera();

        var run = await Plans.PlayAsync(plan, screen);

        Assert.Empty(run.Failures);
        Assert.Equal(new EffectState(device, null), run.Header.Conditions.Effects![id]);
        Assert.Equal(await CommandAsync(plan, Few), screen.Digests);
    }

    [Fact]
    public void What_only_stand_ins_play_is_refused_in_words()
    {
        foreach (var kind in EffectCatalogue.All.Where(kind => kind.RunsOn == EffectPlace.StandInsOnly))
        {
            var refusal = Assert.Throws<NotSupportedException>(() =>
                Plans.Filters.Of(Effect.Of(kind.Id), new EffectContext(Raster.Hd, 1, false, 0))
            );
            Assert.Contains(kind.Label, refusal.Message, StringComparison.Ordinal);
        }
    }

    [Theory]
    [InlineData(Transition.Dissolve)]
    [InlineData(Transition.Wipe)]
    [InlineData(Transition.Dip)]
    public async Task Every_transition_shows_the_pictures_that_the_command_gives(Transition transition) =>
        await ExpectTheCommandsPicturesAsync(new Passage(
            "asked", FewSlots, [new Layer("hd-avc-25", []), new Layer("hd-mezz-25", [])], [Effect.Of("sharpen")], transition));

    /// <summary>The command is told the very source frames: 25 frames from frame 20 on, each shown as often as asked.</summary>
    [Theory]
    [InlineData(20, 0.5, 25)]
    [InlineData(7, 0, 25)]
    [InlineData(0, 2, 25)]
    [InlineData(11, 1, 50)]
    [InlineData(5, 0.4, 30)]
    public async Task A_layer_that_starts_later_or_runs_at_another_speed_shows_those_frames(int start, double speed, int rate)
    {
        var layer = new Layer("hd-avc-25", [], start, new Retime(speed));
        var plan = await Plans.OfAsync(new Passage("asked", Slots, [layer], []), new FrameRate(rate));
        var screen = new Camera();

        await Plans.PlayAsync(plan, screen);

        var source = await CommandAsync(
            await Plans.OfAsync(new Passage("asked", 200, [new Layer("hd-avc-25", [])], []), new FrameRate(25)),
            frames: 200
        );
        Assert.Equal(
            Enumerable.Range(0, Slots).Select(n => source[start + (int)Math.Floor((n * speed * 25 / rate) + 1e-9)]),
            screen.Digests);
    }

    /// <summary>The command is given the same filter on the same stretch of footage.</summary>
    [Theory]
    [InlineData(RetimeMethod.Blend, 0, 0.5, 25)]
    [InlineData(RetimeMethod.Blend, 10, 0.4, 30)]
    [InlineData(RetimeMethod.OpticalFlow, 4, 0.5, 25)]
    public async Task A_retime_that_makes_frames_shows_the_pictures_that_the_command_gives(
        RetimeMethod method,
        int start,
        double speed,
        int rate
    )
    {
        const int Few = 12;
        var layer = new Layer("hd-avc-25", [], start, new Retime(speed, method));
        var plan = await Plans.OfAsync(new Passage("asked", Few, [layer], []), new FrameRate(rate));
        var screen = new Camera();

        var run = await Plans.PlayAsync(plan, screen);

        Assert.Empty(run.Failures);
        var running = InterpolatedLayer.RunningRate(new FrameRate(25), speed);
        var head =
            $"[0:v]trim=start_frame={start},settb={running.Denominator}/{running.Numerator},setpts=N,fps={running.Numerator}/{running.Denominator},{InterpolatedLayer.Filter(method, new FrameRate(rate))},setpts=N[in0]";
        Assert.Equal(await CommandAsync(plan, Few, head), screen.Digests);
        Assert.Equal(Few, screen.Digests.Distinct().Count());
    }

    /// <summary>Numerators above four digits times a speed above three once overflowed and ended the run.</summary>
    [Theory]
    [InlineData(60000, 1001, 4.0)]
    [InlineData(240000, 1001, 99.9999)]
    [InlineData(24, 1, 0.0001)]
    public void A_running_rate_never_overflows(int numerator, int denominator, double speed)
    {
        var running = InterpolatedLayer.RunningRate(new FrameRate(numerator, denominator), speed);

        Assert.Equal((double)numerator / denominator * speed, running.FramesPerSecond, (double)numerator / denominator * speed * 1e-6);
    }

    [Fact]
    public async Task A_hand_gets_the_very_pictures_that_playing_shows()
    {
        var plan = await Plans.SmallAsync(1, Slots, new PlaybackSettings(Policy: PlayingPolicy.KeepFrames));
        var (played, reached) = (new Camera(), new Camera());
        long[] asked = [0, 59, 1, 30, 31, 29, 58, 12];

        await Plans.PlayAsync(plan, played);
        var run = await Plans.PlayAsync(plan with { Subject = new ByHand([new Gesture(GestureKind.Jump, "about", asked, TimeSpan.Zero)]) }, reached);

        Assert.Equal(asked.Select(frame => played.Digests[(int)frame]), reached.Digests);
        Assert.All(run.Lags, lag => Assert.NotNull(lag.Lag));
        Assert.Empty(run.Frames);
    }

    /// <summary>Opacity α over something is α of it and 1 − α of what is below (Porter and Duff 1984, "over"), to within the rounding of
    /// 8 bits; and the same frames as the command gives.</summary>
    [Theory]
    [InlineData(0.25)]
    [InlineData(0.75)]
    public async Task A_layer_lets_those_below_show_through_as_much_as_it_says(double opacity)
    {
        var (below, above) = (new Layer("hd-avc-25", []), new Layer("hd-avc-50", []));
        var mixed = new Passage("asked", 3, [below, above with { Opacity = opacity }], []);
        await ExpectTheCommandsPicturesAsync(mixed);

        var (a, b, both) = (await LumaAsync(below), await LumaAsync(above), await LumaAsync([.. mixed.Layers]));
        // Codes outside 16 to 235 (BT.709's nominal range) are drawn in when layers are mixed.
        var off = a.Zip(b, both)
            .Where(one => one.First is >= 16 and <= 235 && one.Second is >= 16 and <= 235)
            .Select(one => Math.Abs(((1 - opacity) * one.First) + (opacity * one.Second) - one.Third))
            .ToList();
        Assert.True(off.Max() <= 4 && off.Count > a.Length / 2 && off.Average() < 1, $"up to {off.Max()}, {off.Average()} on average");
        Assert.True(a.Zip(b, (one, other) => Math.Abs(one - other)).Max() > 20);
    }

    [Fact]
    public async Task An_effect_that_is_off_changes_no_picture()
    {
        var plan = await Plans.OfAsync(
            new Passage(
                "asked",
                3,
                [new Layer("hd-avc-25", [Effect.Of("blur") with { IsOff = true }])],
                [Effect.Of("glow") with { IsOff = true }]
            ),
            new FrameRate(25)
        );
        var (off, bare) = (new Camera(), new Camera());

        await Plans.PlayAsync(plan, off);
        await Plans.PlayAsync(await Plans.OfAsync(new Passage("asked", 3, [new Layer("hd-avc-25", [])], []), new FrameRate(25)), bare);

        Assert.Equal(bare.Digests, off.Digests);
    }

    /// <summary>The luma of the first picture of some layers.</summary>
    private static async Task<byte[]> LumaAsync(params Layer[] layers)
    {
        var plan = await Plans.OfAsync(new Passage("asked", 3, layers, []), new FrameRate(25));
        var screen = new Luma(plan.Timeline.Raster.Pixels);
        await Plans.PlayAsync(plan, screen);
        return screen.First;
    }

    private sealed class Luma(long pixels) : IScreen
    {
        public byte[] First { get; private set; } = [];

        public void Show(long frame, FrameHandle picture) =>
            First = First.Length > 0 ? First : picture.CopyPlanes()[..(int)pixels];
    }

    private static Effect WithUnusualSettings(EffectKind kind) => new(
        kind.Id,
        kind.Settings.ToDictionary(
            setting => setting.Name,
            setting => Math.Round(setting.Default + (setting.Max - setting.Default) * 0.15, 3)
        ),
        kind.TextLabel switch { null => null, "look" => Looks.WarmStage, _ => "It's 5:4, \\ 100 %" });

    private static async Task ExpectTheCommandsPicturesAsync(Passage passage)
    {
        var plan = await Plans.OfAsync(passage, new FrameRate(25));
        var screen = new Camera();

        var run = await Plans.PlayAsync(plan, screen);

        Assert.Empty(run.Failures);
        Assert.Equal(passage.FrameCount, screen.Digests.Count);
        Assert.Equal(await CommandAsync(plan, passage.FrameCount), screen.Digests);
    }

    private static async Task<List<string>> CommandAsync(PlaybackPlan plan, int frames = Slots, string? head = null)
    {
        var passage = plan.Timeline.Passages[0];
        var clips = await TestData.ClipsAsync();
        var inputs = string.Join(' ', plan.ClipsOf(passage).Select(clip => $"-stream_loop -1 -i {clips.PathOf(clip)}"));
        var rate = plan.Timeline.Rate.NominalFramesPerSecond;
        var heads = plan.ClipsOf(passage).Select((clip, i) =>
            $"[{i}:v]select='not(mod(n\\,{clip.Format.Rate.NominalFramesPerSecond / rate}))',settb=1/{rate},setpts=N[in{i}]");
        var graph = (head ?? string.Join(';', heads)) + ";" + new PassageGraph(Plans.Filters).Describe(plan, passage);
        using var ffmpeg = Process.Start(
            new ProcessStartInfo("ffmpeg") { ArgumentList = { "-v", "error" }, RedirectStandardOutput = true }.With(
                plan.Settings.EffectsOn is { } device ? ["-init_hw_device", $"{device}=there", "-filter_hw_device", "there"] : [],
                inputs.Split(' '),
                [
                    "-filter_complex",
                    graph,
                    "-map",
                    "[out]",
                    "-frames:v",
                    frames.ToString(CultureInfo.InvariantCulture),
                    "-f",
                    "framehash",
                    "-hash",
                    "sha256",
                    "-",
                ]
            )
        )!;
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

    /// <summary>One passage at small size, every frame shown.</summary>
    public static Task<PlaybackPlan> OfAsync(Passage passage, FrameRate rate) => PlanAsync(
        new Timeline("t", "T", Raster.Hd.DividedBy(3), rate, [passage]), new PlaybackSettings(Policy: PlayingPolicy.KeepFrames));

    public static async Task<PlaybackPlan> PlanAsync(Timeline timeline, PlaybackSettings settings) => new(
        timeline, (await TestData.ClipsAsync()).Clips, Telemetry.AnyMachine.This, settings);

    public static async Task<Run> PlayAsync(
        PlaybackPlan plan,
        IScreen? screen = null,
        IClipFiles? files = null,
        IRunObserver? observer = null,
        CancellationToken stop = default
    ) =>
        await new LocalPlayback(
            files ?? await TestData.ClipsAsync(),
            Filters,
            SystemFiles.Live,
            TimeProvider.System,
            screen: screen,
            rest: TimeSpan.Zero
        ).PlayAsync(plan, observer ?? new Notes(), stop);

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

    public List<Decision> Decisions { get; } = [];

    public List<byte[]> Pictures { get; } = [];

    public Action? OnProgress { get; init; }

    public void Started(RunHeader header)
    {
    }

    public void Progressed(RunProgress progress)
    {
        Frames.AddRange(progress.Frames);
        Decisions.AddRange(progress.Decisions);
        OnProgress?.Invoke();
    }

    public void Pictured(int frame, byte[] jpeg) => Pictures.Add(jpeg);
}
