using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.StandIns;

public sealed class CostModelTests
{
    private static readonly Graphics Strong = new("g", 10000, 500, 8, 12);

    private static readonly MediaEngine Old = new("e", 500, [new FormatCapability(Codec.Hevc, ChromaSubsampling.Quarter, 10, Raster.Uhd)]);

    /// <summary>Common practice, no source: 10-bit 4:2:2 is what media engines leave out.</summary>
    [Fact]
    public void A_format_outside_the_media_engine_lands_on_the_processor_and_says_so()
    {
        var demand = Demand(Samples.Machine(engine: Old), Samples.UhdHevc422);

        Assert.Equal(0, demand.DemandSeconds(Station.MediaEngine));
        Assert.True(demand.DemandSeconds(Station.Processor) > 0);
        Assert.Equal(["no 10-bit 4:2:2 for HEVC"], demand.SilentFallbacks.Select(MachineWords.Of));
    }

    [Fact]
    public void A_format_inside_it_leaves_the_processor_alone()
    {
        var format = Samples.UhdHevc422 with { Chroma = ChromaSubsampling.Quarter };
        var demand = Demand(Samples.Machine(engine: Old, graphics: Strong), format);

        Assert.Equal(0, demand.DemandSeconds(Station.Processor));
        Assert.Equal(Raster.Uhd.Pixels / 500e6, demand.DemandSeconds(Station.MediaEngine), 6);
    }

    /// <summary>Common practice, no source.</summary>
    [Fact]
    public void Half_the_frame_rate_halves_the_processor_load_of_decoding()
    {
        var at50 = Samples.HdAvc with { Rate = new FrameRate(50), DataRate = DataRate.FromMegabits(40) };

        var (twice, once) = (Demand(Samples.Machine(), at50), Demand(Samples.Machine(), Samples.HdAvc));

        Assert.Equal(2, Decoding(twice) / Decoding(once), 1);
    }

    /// <summary>Common practice, no source: popular advice that does nothing.</summary>
    [Fact]
    public void Half_the_timeline_raster_leaves_decoding_as_it_is_and_quarters_effects()
    {
        var machine = Samples.Machine();
        // So many that bringing the clip to the smaller raster, which costs what the clip has, does not matter.
        Effect[] effects = [.. Enumerable.Repeat(Effect.Of("primary-grade"), 20), .. Enumerable.Repeat(Effect.Of("noise-reduction"), 20)];

        var whole = CostModel.DemandOf(
            Samples.Plan(machine, Samples.UhdHevc422, raster: Raster.Uhd, effects: effects),
            Samples.Plan(machine, Samples.UhdHevc422, effects: effects).Timeline.Passages[0]
        );
        var half = CostModel.DemandOf(
            Samples.Plan(machine, Samples.UhdHevc422, raster: Raster.Hd, effects: effects),
            Samples.Plan(machine, Samples.UhdHevc422, effects: effects).Timeline.Passages[0]
        );

        Assert.Equal(Decoding(whole), Decoding(half));
        Assert.InRange(Effects(half) / Effects(whole), 0.24, 0.27);
    }

    [Fact]
    public void Too_little_memory_turns_into_traffic_to_the_drive()
    {
        Assert.Equal(0, Demand(Samples.Machine(), Samples.UhdIntermediate).SwapBytesPerFrame);
        Assert.True(Demand(Samples.Machine(memory: new Memory(4, 3.9, 1, 2400)), Samples.UhdIntermediate).SwapBytesPerFrame > 0);
    }

    /// <summary>Amdahl 1967: 1 / (s + (1 − s)/p).</summary>
    [Theory]
    [InlineData(0.1, 1, 1)]
    [InlineData(0.1, 4, 3.0769)]
    [InlineData(0.1, 16, 6.4)]
    [InlineData(0, 8, 8)]
    public void Speed_up_follows_amdahl(double serial, int cores, double expected) =>
        Assert.Equal(expected, new DecodeCost(1, 1, serial, 64).SpeedUp(cores), 4);

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(12)]
    [InlineData(50)]
    [InlineData(99)]
    public void A_gop_shares_out_just_its_bits(int gop) =>
        Assert.Equal(1, Enumerable.Range(0, gop).Average(position => DecodeCost.BitShare(position, gop)), 9);

    /// <summary>Williams, Waterman, Patterson 2009: min(peak, intensity × bandwidth), here as time.</summary>
    [Theory]
    [InlineData(100, 10, 1e9, 1e9, 100e-9)]
    [InlineData(10, 100, 1e9, 1e9, 100e-9)]
    public void Effects_follow_the_roofline(double flop, double bytes, double peak, double bandwidth, double secondsAPixel) =>
        Assert.Equal(secondsAPixel, new EffectCost(flop, bytes, 0).Seconds(1, peak, bandwidth), 12);

    private static PassageDemand Demand(Machine machine, ClipFormat format)
    {
        var plan = Samples.Plan(machine, format);
        return CostModel.DemandOf(plan, plan.Timeline.Passages[0]);
    }

    private static double Decoding(PassageDemand demand) =>
        demand.Visits.Where(visit => visit.Kind == VisitKind.Decode).Sum(visit => visit.MeanService.TotalSeconds);

    private static double Effects(PassageDemand demand) =>
        demand.Visits.Where(visit => visit.Kind == VisitKind.Effects).Sum(visit => visit.MeanService.TotalSeconds);
}
