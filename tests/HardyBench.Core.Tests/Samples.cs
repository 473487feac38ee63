using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Tests;

/// <summary>Made-up clips, machines and plans for tests.</summary>
internal static class Samples
{
    public static readonly FrameRate Rate = new(25);

    public static readonly ClipFormat HdAvc =
        new(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd, Rate, 50, DataRate.FromMegabits(20));

    public static readonly ClipFormat UhdHevc422 =
        new(Codec.Hevc, ChromaSubsampling.Half, 10, Raster.Uhd, Rate, 50, DataRate.FromMegabits(120));

    public static readonly ClipFormat UhdIntermediate =
        new(Codec.Rdd36, ChromaSubsampling.Half, 10, Raster.Uhd, Rate, 1, DataRate.FromMegabits(700));

    public static Machine Machine(
        string id = "test", int cores = 4, double speed = 1, MediaEngine? engine = null, Graphics? graphics = null,
        decimal? price = 1000, Drive? drive = null, Memory? memory = null, Cooling? cooling = null) => new(
        id, id, MachineKind.StandIn, "for tests", new Processor("p", cores, cores, speed, 3), graphics is null ? [] : [graphics],
        engine is null ? [] : [engine], memory ?? new Memory(32, 4, 2, 3200),
        [drive ?? new Drive(Drive.AllRoles, "NVMe", 3000, 2500, 0.08)], cooling, price);

    public static PlaybackPlan Plan(
        Machine machine, ClipFormat format, PlaybackSettings? settings = null, Raster? raster = null, params Effect[] effects)
    {
        var clips = new Dictionary<string, Clip> { ["c"] = new("c", "clip", format, 50, null) };
        var passage = new Passage("asked", 100, [new Layer("c", effects)], []);
        return new PlaybackPlan(
            new Timeline("t", "T", raster ?? Raster.Hd, Rate, [passage]),
            clips,
            machine,
            settings ?? new PlaybackSettings()
        );
    }

    public static TimeSpan Ms(double milliseconds) => TimeSpan.FromTicks((long)(milliseconds * TimeSpan.TicksPerMillisecond));
}
