using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Workbench.Demo;

namespace HardyBench.Workbench.Tests.Machines;

/// <summary>What testers know of machines comes out of the stand-ins that ship, all from one set of constants. Common practice, no source,
/// unless a test says otherwise.</summary>
public sealed class FamilyTests
{
    private static readonly FrameRate Rate = new(25);
    private static readonly ClipFormat
        UhdLongGop = new(Codec.Hevc, ChromaSubsampling.Quarter, 10, Raster.Uhd, Rate, 50, DataRate.FromMegabits(80)),
        Uhd422 = UhdLongGop with { Chroma = ChromaSubsampling.Half, DataRate = DataRate.FromMegabits(120) },
        UhdIntermediate = new(Codec.Rdd36, ChromaSubsampling.Half, 10, Raster.Uhd, Rate, 1, DataRate.FromMegabits(700));

    private static readonly int[] Gigabytes = [8, 16, 32, 64];
    private static readonly string[] Drives = ["sata", "nvme", "array"];
    private static readonly Effect Grade = Effect.Of("primary-grade"),
        Calm = Effect.Of("noise-reduction"),
        Style = Effect.Of("learned-style");

    [Fact]
    public void Eight_gigabytes_swap_where_sixteen_do_not_and_more_gains_nothing()
    {
        var layers = Enumerable.Repeat(UhdIntermediate with { Chroma = ChromaSubsampling.Full, BitDepth = 12 }, 8).ToArray();
        var shown = Gigabytes.Select(gigabytes => Play($"heron-{gigabytes}", layers, PreviewScale.Full, Grade)).ToList();

        Assert.Equal(Limiter.Memory, shown[0].Limiter!.Limiter);
        // Where decoding limits as well, reading back from the drive does not make it slower still.
        Assert.True(shown[0].Counts.Shown <= shown[1].Counts.Shown, $"{shown[0].Counts.Shown} and {shown[1].Counts.Shown}");
        Assert.All(
            shown.Skip(1),
            passage => Assert.Equal((false, shown[1].Counts.Shown), (passage.Limiter?.Limiter == Limiter.Memory, passage.Counts.Shown))
        );
    }

    [Fact]
    public void A_second_graphics_unit_changes_nothing_where_decoding_limits()
    {
        var (one, two) = (Play("avocet-tower", [Camera], PreviewScale.Full), Play("avocet-tower-twin", [Camera], PreviewScale.Full));

        Assert.Equal(Limiter.ProcessorDecode, one.Limiter!.Limiter);
        Assert.Equal(one.Counts.Shown, two.Counts.Shown);
    }

    [Fact]
    public void A_second_graphics_unit_helps_where_graphics_compute_limits()
    {
        var (one, two) = (
            Play("avocet-tower", [UhdLongGop], PreviewScale.Full, Style),
            Play("avocet-tower-twin", [UhdLongGop], PreviewScale.Full, Style)
        );

        Assert.Equal(Limiter.GraphicsEffects, one.Limiter!.Limiter);
        Assert.InRange(two.Counts.ShownRate / one.Counts.ShownRate, 1.7, 2.1);
    }

    [Fact]
    public void A_faster_drive_changes_nothing_where_decoding_limits()
    {
        var kinds = Drives.Select(kind => Play($"knot-tower-{kind}", [Camera], PreviewScale.Full)).ToList();

        Assert.All(kinds, passage => Assert.Equal(Limiter.ProcessorDecode, passage.Limiter!.Limiter));
        Assert.InRange(kinds.Max(passage => passage.Counts.Shown) - kinds.Min(passage => passage.Counts.Shown), 0, 2);
    }

    [Fact]
    public void A_mechanical_drive_is_the_limit_of_several_intermediates_that_an_array_holds()
    {
        var layers = Enumerable.Repeat(UhdIntermediate, 3).ToArray();

        Assert.Equal(Limiter.Drive, Play("knot-tower-mechanical", layers, PreviewScale.Full).Limiter!.Limiter);
        Assert.Null(Play("knot-tower-array", layers, PreviewScale.Full).Limiter);
    }

    [Fact]
    public void The_same_chip_without_its_media_engine_decodes_on_the_processor_and_breaks()
    {
        Assert.Equal(Verdict.Holds, Play("dunlin-laptop", Four(UhdLongGop), PreviewScale.Full).Verdict);
        var plain = Play("dunlin-laptop-plain", Four(UhdLongGop), PreviewScale.Full);
        Assert.NotEqual(Verdict.Holds, plain.Verdict);
        Assert.Contains(plain.Limiter!.Limiter, (Limiter[])[Limiter.ProcessorDecode, Limiter.Heat]);
    }

    [Fact]
    public void More_channels_help_built_in_graphics_only_where_memory_is_what_they_wait_for()
    {
        var (two, four) = (
            DemoMachines.All.Single(machine => machine.Id == "plover-desk-2"),
            DemoMachines.All.Single(machine => machine.Id == "plover-desk-4")
        );
        var plan = PlanOf(two, [UhdIntermediate, UhdIntermediate, UhdIntermediate], PreviewScale.Full, Grade);
        double Effects(Machine machine, params Effect[] effects) =>
            CostModel
                .DemandOf(
                    PlanOf(machine, [UhdIntermediate], PreviewScale.Full, effects),
                    plan.Timeline.Passages[0] with
                    {
                        Layers = [new Layer("c0", effects)],
                    }
                )
                .DemandSeconds(Station.Graphics);

        Assert.True(Effects(four, Grade) < Effects(two, Grade));
        Assert.Equal(Effects(two, Style), Effects(four, Style), 1e-6);
    }

    [Fact]
    public void On_its_battery_a_laptop_gets_through_less_of_what_the_processor_limits()
    {
        var (mains, battery) = (
            Play("whimbrel-laptop", [Camera], PreviewScale.Full),
            Play("whimbrel-laptop-battery", [Camera], PreviewScale.Full)
        );

        Assert.True(battery.Counts.Shown < 0.85 * mains.Counts.Shown, $"{battery.Counts.Shown} of {mains.Counts.Shown}");
        var run = RunOf("whimbrel-laptop-battery", [Camera], PreviewScale.Full);
        Assert.Contains(RunNotes.Of(run), note => note is RanFromBattery);
    }

    [Fact]
    public void Ten_bit_422_outside_the_media_engine_fills_the_processor_while_graphics_idle_and_the_run_says_so()
    {
        var run = RunOf("turnstone-laptop", [.. Four(Uhd422), Uhd422, Uhd422], PreviewScale.Full);
        var loads = LoadMeans.Over(run.Loads, TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(8));

        Assert.InRange(loads.Cores(run.Header.Conditions.UsableCores).Average(), 0.9, 1);
        Assert.InRange(loads.Of(LoadKind.GraphicsBusy)!.Value, 0, 0.1);
        Assert.Contains(RunNotes.Of(run), note => note is NotOnEngine { Lacks.Lack: MissingCapability.Profile });
    }

    [Fact]
    public void A_smaller_preview_scale_changes_nothing_where_decoding_limits()
    {
        Assert.Equal(
            Play("turnstone-laptop", Four(Uhd422), PreviewScale.Full).Counts.Shown,
            Play("turnstone-laptop", Four(Uhd422), PreviewScale.Quarter).Counts.Shown
        );
    }

    /// <summary>Heavy enough to limit the largest processor of the shelf, and taken by no media engine.</summary>
    private static ClipFormat Camera =>
        new(Codec.CameraRaw, ChromaSubsampling.None, 12, new Raster(8192, 4320), Rate, 1, DataRate.FromMegabits(3000));

    private static ClipFormat[] Four(ClipFormat format) => [format, format, format, format];

    private static PassageFinding Play(string machine, ClipFormat[] layers, PreviewScale scale, params Effect[] effects) =>
        RunFindings.Of(RunOf(machine, layers, scale, effects))[0];

    private static Run RunOf(string id, ClipFormat[] layers, PreviewScale scale, params Effect[] effects) =>
        Shelf.PlayOf(PlanOf(Shelf.Of(id), layers, scale, effects));

    private static PlaybackPlan PlanOf(Machine machine, ClipFormat[] layers, PreviewScale scale, params Effect[] effects) =>
        Shelf.PlanOf(machine, layers, Rate, 250, scale, Raster.Uhd, effects);
}
