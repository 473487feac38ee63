using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Media.Aids;
using HardyBench.Player.Course;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;
using HardyBench.Player.Playing;

namespace HardyBench.Player.Tests.Playing;

/// <summary>Facts that testers of editing machines go by, shown by counting the work that is done: frames decoded, pixels treated. How
/// long that takes is measured in the benchmarks. Common practice, without a source.</summary>
public sealed class CommonPracticeTests
{
    private static readonly Raster Small = Raster.Hd.DividedBy(3);
    private static readonly FrameRate Rate = new(25);

    [Fact]
    public async Task Half_the_frame_rate_treats_half_as_many_frames_a_second()
    {
        var plan = await PlanAsync(new Passage("asked", 20, [new Layer("hd-avc-25", [Effect.Of("blur")])], []));
        var half = plan with { Timeline = plan.Timeline.AtHalfRate() };

        var (full, halved) = (await WorkAsync(plan), await WorkAsync(half));

        Assert.Equal(full.Treated, halved.Treated);
        Assert.Equal(2 * plan.Timeline.Rate.StartOf(20), half.Timeline.Rate.StartOf(20));
    }

    [Fact]
    public async Task Scrubbing_long_GOP_footage_decodes_many_frames_for_one_and_all_intra_footage_one()
    {
        var clips = await TestData.ClipsAsync();
        long[] places = [0, 33, 12, 47, 20, 41, 5, 29, 49, 16];
        var decoded = new Dictionary<string, double>();
        foreach (var id in new[] { "hd-avc-25", "hd-mezz-25" })
        {
            using var layer = new ReachableLayer(ClipSource.Of(clips.Clips[id], clips), 1, null, new Layer(id, []));
            foreach (var place in places)
            {
                layer.Reach(place, Rate).Dispose();
            }

            decoded[id] = (double)layer.Decoded / places.Length;
        }

        Assert.Equal(1, decoded["hd-mezz-25"]);
        Assert.InRange(decoded["hd-avc-25"], 10, 30);
    }

    [Fact]
    public async Task A_smaller_timeline_raster_leaves_decoding_as_it_is_and_shrinks_effects()
    {
        var plan = await PlanAsync(new Passage("asked", 12, [new Layer("uhd-hevc-25", [Effect.Of("blur")])], []), Raster.Hd.DividedBy(2));

        var full = await WorkAsync(plan);
        var quarter = await WorkAsync(plan with { Settings = plan.Settings with { Scale = PreviewScale.Quarter } });

        Assert.Equal(full.DecodedPixels, quarter.DecodedPixels);
        Assert.Equal(1.0 / 16, (double)quarter.TreatedPixels / full.TreatedPixels, 0.01);
    }

    [Fact]
    public async Task A_proxy_of_a_quarter_raster_decodes_a_sixteenth_of_the_pixels_and_treats_as_many()
    {
        var clips = await TestData.ClipsAsync();
        var folder = new AidFolder(TestData.NewFolder("aids"), clips);
        var clip = clips.Clips["uhd-hevc-25"];
        await new ProxyCreator(folder).MakeAsync(clip, clips.PathOf(clip), Proxies.Quarter, CancellationToken.None);
        var plan = await PlanAsync(new Passage("asked", 12, [new Layer(clip.Id, [])], []));

        var bare = await WorkAsync(plan, folder);
        var aided = await WorkAsync(folder.Apply(plan with { Settings = plan.Settings with { Proxies = Proxies.Quarter } }), folder);

        Assert.Equal(1.0 / 16, (double)aided.DecodedPixels / bare.DecodedPixels, 0.01);
        Assert.Equal(bare.TreatedPixels, aided.TreatedPixels);
    }

    private static async Task<Counted> WorkAsync(PlaybackPlan plan, IClipFiles? files = null)
    {
        var counted = new Counted();
        var course = new PassageCourse(new RunClock(), plan.Timeline.Rate, 0, plan.Timeline.Passages[0].FrameCount, keepsTime: false);
        var passage = plan.Played(0);
        using var pipeline = new PassagePipeline(
            plan,
            passage,
            course,
            files ?? await TestData.ClipsAsync(),
            new PassageGraph(Plans.Filters),
            1
        );
        for (var position = 0; position < passage.FrameCount; position++)
        {
            var frames = pipeline.Take(position)!;
            using var picture = pipeline.Treat(frames, position)!;
            counted.Treated++;
            counted.DecodedPixels += frames.Sum(frame => frame.Picture.Raster.Pixels);
            counted.TreatedPixels += picture.Raster.Pixels;
            frames.ToList().ForEach(frame => frame.Dispose());
        }

        return counted;
    }

    private static Task<PlaybackPlan> PlanAsync(Passage passage, Raster? raster = null) =>
        Plans.PlanAsync(new Timeline("t", "T", raster ?? Small, Rate, [passage]), new PlaybackSettings());

    private sealed class Counted
    {
        public int Treated { get; set; }

        public long DecodedPixels { get; set; }

        public long TreatedPixels { get; set; }
    }
}
