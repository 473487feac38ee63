using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Media.Aids;
using HardyBench.Player.Decoding;
using HardyBench.Player.Native;
using HardyBench.Player.Playing;
using HardyBench.Player.Tests.Playing;

namespace HardyBench.Player.Tests.Aids;

/// <summary>Proxies and pre-renders are real files that are really played, and an edit leaves them unused.</summary>
public sealed class AidTests
{
    private static readonly Passage Graded = new(
        "graded",
        12,
        [new Layer("hd-avc-25", [Effect.Of("primary-grade"), Effect.Of("blur")])],
        []
    );
    private static readonly Passage Plain = new("plain", 12, [new Layer("hd-avc-25", [])], []);

    [Theory]
    [InlineData(Proxies.Half, 2)]
    [InlineData(Proxies.Quarter, 4)]
    public async Task A_proxy_has_every_frame_in_a_smaller_raster_each_standing_alone(Proxies size, int divisor)
    {
        var folder = await FolderAsync();
        var clips = await TestData.ClipsAsync();
        var clip = clips.Clips["hd-avc-25"];

        var note = await new ProxyCreator(folder).MakeAsync(clip, clips.PathOf(clip), size, CancellationToken.None);

        using var decoder = new ClipDecoder(folder.PathOf(note.Clip), 1);
        Assert.Equal(clip.Format.Raster.DividedBy(divisor), decoder.Raster);
        Assert.Equal((clip.FrameCount, true), (decoder.FrameCount, decoder.Keys.AllIntra));
        Assert.Equal(new FileInfo(folder.PathOf(note.Clip)).Length, note.Bytes);
        Assert.True(note.Took > TimeSpan.Zero);
    }

    [Fact]
    public async Task With_proxies_on_the_proxy_is_what_is_played_and_without_one_the_clip()
    {
        var folder = await FolderAsync();
        var clips = await TestData.ClipsAsync();
        await new ProxyCreator(folder).MakeAsync(
            clips.Clips["hd-avc-25"],
            clips.PathOf(clips.Clips["hd-avc-25"]),
            Proxies.Half,
            CancellationToken.None
        );
        var plan = await PlanAsync([Plain], new PlaybackSettings(Proxies: Proxies.Half));

        var with = folder.Apply(plan);

        Assert.Equal(Raster.Hd.DividedBy(6), with.Clips["hd-avc-25"].Format.Raster);
        Assert.Equal(plan.Clips["hd-mezz-25"], with.Clips["hd-mezz-25"]);
        var run = await Plans.PlayAsync(with, files: folder);
        Assert.Empty(run.Failures);
        Assert.NotEqual(run.Header.ClipChecksums["hd-avc-25"], plan.ClipChecksums["hd-avc-25"]);
    }

    [Fact]
    public async Task A_render_plays_the_pictures_of_its_passage_but_for_what_its_coding_loses()
    {
        var folder = await FolderAsync();
        var plan = await PlanAsync([Graded, Plain], new PlaybackSettings(Policy: PlayingPolicy.KeepFrames, PreRenders: true));
        var (direct, rendered) = (new Light(), new Light());

        var note = await Renderer(folder).RenderAsync(plan, 0, null, CancellationToken.None);
        await Plans.PlayAsync(plan, direct);
        var run = await Plans.PlayAsync(folder.Apply(plan), rendered, folder);

        Assert.Equal([0], run.Header.Conditions.PreRendered!);
        Assert.Equal(note.Clip.Sha256, run.Header.ClipChecksums[note.Clip.Id]);
        Assert.Equal(24, rendered.Means.Count);
        Assert.All(direct.Means.Zip(rendered.Means), pair => Assert.Equal(pair.First, pair.Second, 1.0));
    }

    [Theory]
    [InlineData(321, 181)]
    [InlineData(320, 181)]
    [InlineData(321, 180)]
    public async Task A_render_of_an_odd_raster_loses_its_last_column_or_row(int width, int height)
    {
        var folder = await FolderAsync();
        var plan = await PlanAsync([Plain], new PlaybackSettings());

        var note = await Renderer(folder).RenderAsync(
            plan with { Timeline = plan.Timeline with { Raster = new Raster(width, height) } }, 0, null, CancellationToken.None);

        using var decoder = new ClipDecoder(folder.PathOf(note.Clip), 1);
        Assert.Equal((new Raster(320, 180), 12L), (decoder.Raster, decoder.FrameCount));
    }

    [Theory]
    [InlineData("two words\" -y \"written.mov.mp4")]
    [InlineData("-y written.mov.mp4")]
    [InlineData("%03d' ; touch written.mov.mp4")]
    public async Task A_file_s_name_is_one_argument_and_writes_nothing(string name)
    {
        var (folder, clips, beside) = (await FolderAsync(), await TestData.ClipsAsync(), TestData.NewFolder("names"));
        File.Copy(clips.PathOf(clips.Clips["hd-avc-25"]), Path.Combine(beside, name));
        var here = Directory.GetFiles(Environment.CurrentDirectory);

        var note = await new ProxyCreator(folder).MakeAsync(
            clips.Clips["hd-avc-25"],
            Path.Combine(beside, name),
            Proxies.Half,
            CancellationToken.None
        );

        Assert.True(File.Exists(folder.PathOf(note.Clip)));
        Assert.Equal([Path.Combine(beside, name)], Directory.GetFiles(beside));
        Assert.Equal(here, Directory.GetFiles(Environment.CurrentDirectory));
    }

    public static TheoryData<string, Func<PlaybackPlan, PlaybackPlan>> Edits => new()
    {
        { "a layer's effect", plan => With(plan, Graded with { Layers = [new Layer("hd-avc-25", [Effect.Of("blur")])] }) },
        {
            "the order of effects",
            plan => With(plan, Graded with { Layers = [new Layer("hd-avc-25", [Effect.Of("blur"), Effect.Of("primary-grade")])] })
        },
        { "an effect over all", plan => With(plan, Graded with { Over = [Effect.Of("sharpen")] }) },
        { "the clip", plan => With(plan, Graded with { Layers = [Graded.Layers[0] with { ClipId = "hd-avc-50" }] }) },
        { "where it starts", plan => With(plan, Graded with { Layers = [Graded.Layers[0] with { StartFrame = 3 }] }) },
        { "its speed", plan => With(plan, Graded with { Layers = [Graded.Layers[0] with { Retime = new Retime(0.5) }] }) },
        { "its length", plan => With(plan, Graded with { FrameCount = 13 }) },
        { "the timeline's raster", plan => plan with { Timeline = plan.Timeline with { Raster = Raster.Hd.DividedBy(4) } } },
        { "the timeline's rate", plan => plan with { Timeline = plan.Timeline with { Rate = new FrameRate(30) } } },
        {
            "the file of the clip",
            plan => plan with { Clips = plan.Clips.ToDictionary(clip => clip.Key, clip => clip.Value with { Sha256 = "another" }) }
        },
    };

    [Theory]
    [MemberData(nameof(Edits))]
    public async Task Any_edit_of_a_passage_leaves_its_render_unused(string what, Func<PlaybackPlan, PlaybackPlan> edit)
    {
        var plan = await PlanAsync([Graded], new PlaybackSettings(PreRenders: true));

        Assert.False(PreRenderer.KeyOf(plan, 0) == PreRenderer.KeyOf(edit(plan), 0), $"{what} makes no other render");
        Assert.Equal(PreRenderer.KeyOf(plan, 0), PreRenderer.KeyOf(With(plan, Graded with { Question = "only named otherwise" }), 0));
    }

    [Fact]
    public async Task A_render_that_was_stopped_leaves_nothing_behind()
    {
        var folder = await FolderAsync();
        using var stop = new CancellationTokenSource();
        var plan = await PlanAsync([Graded with { FrameCount = 500 }], new PlaybackSettings());

        await Assert.ThrowsAnyAsync<Exception>(() => Renderer(folder).RenderAsync(plan, 0, new After(stop), stop.Token));

        Assert.Null(folder.Find(PreRenderer.KeyOf(plan, 0)));
        Assert.Empty(Directory.EnumerateFiles(folder.Path));
    }

    private static PlaybackPlan With(PlaybackPlan plan, Passage passage) =>
        plan with
        {
            Timeline = plan.Timeline with { Passages = [passage] },
        };

    private static PreRenderer Renderer(AidFolder folder) => new(folder, new PassagePictures(folder, Plans.Filters));

    private static async Task<PlaybackPlan> PlanAsync(IReadOnlyList<Passage> passages, PlaybackSettings settings) =>
        await Plans.PlanAsync(new Timeline("t", "T", Raster.Hd.DividedBy(3), new FrameRate(25), passages), settings);

    private static async Task<AidFolder> FolderAsync() => new(TestData.NewFolder("aids"), await TestData.ClipsAsync());

    /// <summary>Notes the mean of each shown picture's first plane, 0 to 255.</summary>
    private sealed class Light : IScreen
    {
        public List<double> Means { get; } = [];

        public void Show(long frame, FrameHandle picture)
        {
            var (bytes, pixels) = (picture.CopyPlanes(), (int)picture.Raster.Pixels);
            var deep = bytes.Length > pixels * 3 / 2;
            Means.Add(deep
                ? Enumerable.Range(0, pixels).Average(i => BitConverter.ToUInt16(bytes, 2 * i)) / 4
                : bytes.Take(pixels).Average(one => (double)one));
        }
    }

    private sealed class After(CancellationTokenSource stop) : IProgress<double>
    {
        public void Report(double value) => stop.Cancel();
    }
}
