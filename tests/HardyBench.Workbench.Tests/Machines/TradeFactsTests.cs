using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Workbench.Demo;
using static HardyBench.Workbench.Tests.Machines.Shelf;

namespace HardyBench.Workbench.Tests.Machines;

/// <summary>Further facts that testers know, on the stand-ins that ship and from the same constants. Common practice, no source.</summary>
public sealed class TradeFactsTests
{
    private static readonly FrameRate Rate = new(25);
    private static readonly ClipFormat
        Uhd422 = new(Codec.Hevc, ChromaSubsampling.Half, 10, Raster.Uhd, new FrameRate(50), 50, DataRate.FromMegabits(200)),
        UhdLongGop = new(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Uhd, Rate, 50, DataRate.FromMegabits(100)),
        Hd = new(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd, Rate, 50, DataRate.FromMegabits(20)),
        Intermediate = new(Codec.Rdd36, ChromaSubsampling.Half, 10, Raster.Uhd, Rate, 1, DataRate.FromMegabits(500));

    private static readonly Effect Grade = Effect.Of("primary-grade"), Calm = Effect.Of("noise-reduction");

    /// <summary>Outside the media engine 50 frames a second are too much, 25 play, at about half the load.</summary>
    [Fact]
    public void Half_the_frame_rate_about_halves_the_processor_load_and_plays()
    {
        var machine = Of("avocet-tower") with { MediaEngines = [] };
        var (whole, half) = (
            Play(machine, [Uhd422], new FrameRate(50), 500),
            Play(machine, [Uhd422 with { Rate = Rate, DataRate = DataRate.FromMegabits(100) }], Rate, 250));

        var loads = CoreSeconds(whole) / CoreSeconds(half);
        Assert.InRange(loads, 1.7, 2.3);
        Assert.Equal(Verdict.Holds, RunFindings.Of(half)[0].Verdict);
    }

    /// <summary>Noise reduction on a laptop takes a graded UHD passage from 25 frames a second to about 10; a pre-render restores
    /// it.</summary>
    [Fact]
    public void A_pre_render_restores_what_noise_reduction_takes()
    {
        var machine = Of("sandpiper-slate");
        var heavy = Play(machine, [Intermediate], Rate, 250, PreviewScale.Full, Raster.Uhd, Grade, Calm);
        var rendered = Play(machine, [Intermediate], Rate, 250, PreviewScale.Full, Raster.Uhd);

        Assert.Equal(Limiter.GraphicsEffects, RunFindings.Of(heavy)[0].Limiter!.Limiter);
        Assert.InRange(RunFindings.Of(heavy)[0].Counts.ShownRate, 6, 16);
        Assert.Equal(Verdict.Holds, RunFindings.Of(rendered)[0].Verdict);
    }

    /// <summary>16 GB for light work, 32 for demanding work, 64 where heavy programs stay open beside it.</summary>
    [Theory]
    [InlineData(16, 0, 2, false)]
    [InlineData(8, 4, 2, true)]
    [InlineData(16, 12, 8, true)]
    [InlineData(32, 12, 8, false)]
    [InlineData(32, 28, 8, true)]
    [InlineData(64, 28, 8, false)]
    public void Memory_tiers_follow_from_what_stays_open_beside_it(int gigabytes, double others, int layers, bool swaps)
    {
        var clips = Enumerable.Repeat(Intermediate with { Chroma = ChromaSubsampling.Full, BitDepth = 12 }, layers).ToArray();
        var plan = PlanOf(Of($"heron-{gigabytes}"), clips, Rate, 100, PreviewScale.Full, Raster.Uhd, [Grade]);
        plan = plan with { Settings = plan.Settings with { Others = others > 0 ? new OtherPrograms(0, others) : null } };

        Assert.Equal(swaps, CostModel.DemandOf(plan, plan.Timeline.Passages[0]).SwapBytesPerFrame > 0);
    }

    /// <summary>Four streams of HD hold on a small machine on which UHD long-GOP and grades are work.</summary>
    [Fact]
    public void Four_streams_of_hd_hold_on_four_cores() =>
        Assert.Equal(
            Verdict.Holds,
            RunFindings.Of(
                Play(Of("heron-16") with { MediaEngines = [] }, [Hd, Hd, Hd, Hd], Rate, 250, PreviewScale.Full, Raster.Hd))[0].Verdict);

    /// <summary>Four cores without a discrete graphics unit: UHD long-GOP plays at half scale, with a grade at a quarter, as an
    /// intermediate whole, and so do four streams of HD beside each other.</summary>
    [Fact]
    public void Each_kind_of_work_has_the_preview_scale_that_four_cores_hold()
    {
        var light = new ClipFormat(Codec.Vc3, ChromaSubsampling.Half, 8, Raster.Uhd, Rate, 1, DataRate.FromMegabits(145));
        var quarter = Effect.Of(EffectCatalogue.Placement, ("size", 0.5));

        Assert.Equal(PreviewScale.Half, LargestThatHolds([UhdLongGop], Raster.Uhd));
        Assert.Equal(PreviewScale.Quarter, LargestThatHolds([UhdLongGop], Raster.Uhd, Grade));
        Assert.Equal(PreviewScale.Full, LargestThatHolds([light], Raster.Uhd));
        Assert.Equal(PreviewScale.Full, LargestThatHolds([Hd, Hd, Hd, Hd], Raster.Hd, quarter));

        static PreviewScale? LargestThatHolds(ClipFormat[] layers, Raster raster, params Effect[] effects) =>
            Enum.GetValues<PreviewScale>().Order().Select(scale => (PreviewScale?)scale).FirstOrDefault(scale =>
                RunFindings.Of(PlayOf(InBrailwork(PlanOf(Of("stint-laptop"), layers, Rate, 250, scale!.Value, raster, effects))))[0].Verdict
                == Verdict.Holds);

        static PlaybackPlan InBrailwork(PlaybackPlan plan) =>
            plan with { Settings = plan.Settings with { Program = DemoPrograms.Brailwork } };
    }

    /// <summary>A smaller timeline changes nothing for footage that decoding limits.</summary>
    [Fact]
    public void Halving_the_timeline_raster_changes_no_drop_where_decoding_limits()
    {
        var machine = Of("sandpiper-slate") with { MediaEngines = [] };
        var shown = new[] { Raster.Uhd, Raster.Hd }
            .Select(raster => Play(machine, [UhdLongGop, UhdLongGop, UhdLongGop], Rate, 250, PreviewScale.Full, raster))
            .Select(run => RunFindings.Of(run)[0]).ToList();

        Assert.All(shown, passage => Assert.NotEqual(Verdict.Holds, passage.Verdict));
        Assert.InRange(Math.Abs(shown[0].Counts.Shown - shown[1].Counts.Shown), 0, 5);
    }

    /// <summary>A machine without a fan may hold light work for an hour, and gets slower under heavy work after some minutes.</summary>
    [Fact]
    public void Without_a_fan_light_work_holds_for_an_hour_and_heavy_work_heats_it_to_its_limit()
    {
        var slate = Of("sandpiper-slate");
        var light = Play(slate, [Hd], Rate, 3600 * 25, PreviewScale.Full, Raster.Hd);
        Assert.Equal(Verdict.Holds, RunFindings.Of(light)[0].Verdict);
        Assert.All(light.Loads.Where(load => load.Kind == LoadKind.Temperature), load => Assert.InRange(load.Value, 20, 91.9));

        var heavy = Play(slate with { MediaEngines = [] }, [UhdLongGop, UhdLongGop], Rate, 900 * 25);
        var fallen = heavy.Loads.FirstOrDefault(load => load.Kind == LoadKind.Clock && load.Value < 0.95 * 2.4e9);
        Assert.InRange(fallen.At, TimeSpan.FromMinutes(2), TimeSpan.FromMinutes(14));
    }

    /// <summary>Under sustained load fans come up after about a minute; without one there is none to hear.</summary>
    [Theory]
    [InlineData("curlew-desk")]
    [InlineData("heron-16")]
    [InlineData("dunlin-laptop-plain")]
    public void Fans_come_up_after_about_a_minute_of_sustained_load(string id)
    {
        var run = Play(Of(id) with { MediaEngines = [] }, [UhdLongGop, UhdLongGop, UhdLongGop, UhdLongGop], Rate, 240 * 25);
        var fan = run.Loads.Where(load => load.Kind == LoadKind.FanSpeed).ToList();

        Assert.Equal(0, fan[0].Value);
        Assert.InRange(fan.First(load => load.Value > 0).At, TimeSpan.FromSeconds(20), TimeSpan.FromSeconds(100));
        Assert.DoesNotContain(Play(Of("sandpiper-slate"), [Hd], Rate, 50).Loads, load => load.Kind == LoadKind.FanSpeed);
    }

    /// <summary>That the player took of the processor in each second.</summary>
    private static double CoreSeconds(Run run) =>
        LoadMeans.Over(run.Loads, TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(8)).Of(LoadKind.OwnProcess)!.Value;

    private static Run Play(
        Machine machine, ClipFormat[] layers, FrameRate rate, int frames, PreviewScale scale = PreviewScale.Full, Raster? raster = null,
        params Effect[] effects) =>
        PlayOf(PlanOf(machine, layers, rate, frames, scale, raster ?? Raster.Uhd, effects));
}
