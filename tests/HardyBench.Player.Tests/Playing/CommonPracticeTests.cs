using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Lags;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Hand;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Trials;
using HardyBench.Player.Aids;
using HardyBench.Player.Decoding;
using MathNet.Numerics.Statistics;

namespace HardyBench.Player.Tests.Playing;

/// <summary>Tests that compare loads or times of this machine run alone, so that no other test loads it meanwhile.</summary>
[CollectionDefinition(Name, DisableParallelization = true)]
public sealed class Alone
{
    public const string Name = "alone";
}

/// <summary>Facts that testers of editing machines go by, shown on the machine that runs the tests, each as a ratio of two things
/// measured alike. Common practice, without a source.</summary>
[Collection(Alone.Name)]
public sealed class CommonPracticeTests
{
    private static readonly Raster Small = Raster.Hd.DividedBy(3);
    private static readonly FrameRate Rate = new(25);

    [Fact]
    public async Task Half_the_frame_rate_about_halves_the_load()
    {
        var plan = await PlanAsync(new Passage("asked", 75, [new Layer("hd-avc-25", [Effect.Of("noise-reduction"), Effect.Of("blur")])], []));

        // The median of three pairs, so that a moment in which the host is busy elsewhere does not decide.
        var ratios = new List<double>();
        for (var pair = 0; pair < 3; pair++)
        {
            var full = TrialAnswers.WorkOf(await Plans.PlayAsync(plan))!.Value;
            var half = TrialAnswers.WorkOf(await Plans.PlayAsync(plan with { Timeline = plan.Timeline.AtHalfRate() }))!.Value;
            ratios.Add(half / full);
        }

        Assert.InRange(ratios.Median(), 0.35, 0.7);
    }

    [Fact]
    public async Task Scrubbing_long_GOP_footage_decodes_many_frames_for_one_and_all_intra_footage_one()
    {
        var clips = await TestData.ClipsAsync();
        long[] places = [0, 33, 12, 47, 20, 41, 5, 29, 49, 16];
        var decoded = new Dictionary<string, double>();
        foreach (var id in new[] { "hd-avc-25", "hd-mezz-25" })
        {
            using var layer = new ReachableLayer(clips.PathOf(clips.Clips[id]), 1, null, new Layer(id, []));
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
    public async Task The_hand_waits_longer_for_long_GOP_footage_than_for_all_intra()
    {
        var moves = HandScripts.Scrub((await PlanAsync(Of("hd-avc-25"))).Timeline).Where(move => move.Kind == MoveKind.Jump).ToList();
        var (longGop, allIntra) = (await FarAsync("hd-avc-25"), await FarAsync("hd-mezz-25"));

        Assert.True(longGop > 1.3 * allIntra, $"{longGop} ms for long GOP, {allIntra} ms for all-intra");

        async Task<double> FarAsync(string clip)
        {
            var run = await Plans.PlayAsync((await PlanAsync(Of(clip))) with { Hand = moves });
            return LagFindings.Of(run).Single(finding => finding.Name == "to a far frame").Median!.Value.TotalMilliseconds;
        }
    }

    [Fact]
    public async Task A_smaller_timeline_raster_leaves_decoding_as_it_is_and_shrinks_effects()
    {
        var plan = await PlanAsync(new Passage("asked", 30, [new Layer("uhd-hevc-25", [Effect.Of("noise-reduction"), Effect.Of("blur")])], []), Raster.Hd.DividedBy(2));
        var (full, quarter) = (await TimesAsync(PreviewScale.Full), await TimesAsync(PreviewScale.Quarter));

        Assert.InRange(quarter.Decode / full.Decode, 0.5, 1.5);
        Assert.True(quarter.Effects < 0.5 * full.Effects, $"{quarter.Effects} ms of {full.Effects} ms");

        async Task<(double Decode, double Effects)> TimesAsync(PreviewScale scale)
        {
            var run = await Plans.PlayAsync(plan with { Settings = new PlaybackSettings(scale, PlayingPolicy.KeepFrames, Threads: 1) });
            return (run.Frames.Select(frame => frame.Decode.TotalMilliseconds).Median(), run.Frames.Select(frame => frame.Effects.TotalMilliseconds).Median());
        }
    }

    [Fact]
    public async Task A_proxy_makes_a_passage_that_breaks_play()
    {
        var clips = await TestData.ClipsAsync();
        var folder = new AidFolder(TestData.NewFolder("aids"), clips);
        var clip = clips.Clips["uhd-hevc-25"];
        await new ProxyMaker(folder).MakeAsync(clip, clips.PathOf(clip), Proxies.Quarter, CancellationToken.None);
        var layers = await LayersToBreakAsync(clips.PathOf(clip));
        var plan = await PlanAsync(new Passage("asked", 75, [.. Enumerable.Repeat(new Layer(clip.Id, []), layers)], []), Small.DividedBy(4));

        var bare = await Plans.PlayAsync(plan, files: folder);
        var aided = await Plans.PlayAsync(folder.Apply(plan with { Settings = new PlaybackSettings(Proxies: Proxies.Quarter) }), files: folder);

        Assert.Equal(Verdict.Breaks, RunFindings.Of(bare)[0].Verdict);
        Assert.True(Dropped(aided) < 0.25 * Dropped(bare), $"{Dropped(aided)} of {Dropped(bare)} drops are left with proxies of {layers} layers");

        static int Dropped(Run run) => run.Frames.Count(frame => frame.Status == FrameStatus.Dropped);
    }

    /// <summary>As many layers as take twice the time there is, on all cores.</summary>
    private static async Task<int> LayersToBreakAsync(string path)
    {
        const int Frames = 30;
        using var decoder = new ClipDecoder(path, 1);
        var spent = TimeSpan.Zero;
        await Task.Run(() =>
        {
            for (var i = 0; i < Frames; i++)
            {
                using var frame = decoder.Next();
                spent += frame.Decode;
            }
        });
        return (int)Math.Ceiling(2 * Environment.ProcessorCount * Rate.FrameDuration / (spent / Frames));
    }

    private static Passage Of(string clip) => new("asked", 50, [new Layer(clip, [])], []);

    private static Task<PlaybackPlan> PlanAsync(Passage passage, Raster? raster = null) =>
        Plans.PlanAsync(new Timeline("t", "T", raster ?? Small, Rate, [passage]), new PlaybackSettings());
}
