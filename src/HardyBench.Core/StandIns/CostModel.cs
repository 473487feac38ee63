using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.StandIns;

/// <summary>Turns a passage and a machine into what each frame asks of each station.</summary>
public static class CostModel
{
    /// <summary>Share of a graphics unit's peak that picture work reaches. Common practice, no source.</summary>
    private const double ReachedShareOfPeak = 0.25;

    /// <summary>Time to start one effect on a graphics unit.</summary>
    private static readonly TimeSpan GraphicsLaunch = TimeSpan.FromMicroseconds(20);

    /// <summary>Bytes a pixel takes while effects work on it: four components of 16 bits.</summary>
    private const double WorkingBytesPerPixel = 8;

    /// <summary>Positions of a GOP told apart, so that very long GOPs stay cheap to hold.</summary>
    private const int MostPositions = 300;

    public static PassageDemand DemandOf(PlaybackPlan plan, Passage passage)
    {
        var machine = plan.Machine;
        var layers = plan.ClipsOf(passage).Select(clip => clip.Format).ToList();
        var refusals = layers.Select(format => machine.MediaEngine?.RefusalOf(format)).ToList();
        var onEngine = layers.Where((format, i) => machine.MediaEngine is not null && refusals[i] is null).ToList();
        var onProcessor = layers.Where((format, i) => machine.MediaEngine is null || refusals[i] is not null).ToList();
        var positions = Math.Min(MostPositions, KeyInterval(layers, plan.Timeline.Rate));
        var memory = MemoryBytes(plan, passage, layers);
        var swap = SwapBytes(machine.Memory, memory, layers);
        var readBytes = layers.Sum(format => format.DataRate.BitsPerSecond / 8.0 / plan.Timeline.Rate.FramesPerSecond);

        var visits = new List<Visit>();
        Add(Station.Drive, VisitKind.Read, _ => machine.MediaDrive is { } drive
            ? (readBytes + swap) / (drive.MegabytesPerSecond * 1e6) + SeekSeconds(drive, layers.Count)
            : 0);
        Add(Station.MediaEngine, VisitKind.Decode, _ => onEngine.Sum(format =>
            SourceFrames(format, plan.Timeline.Rate).Decoded * format.Raster.Pixels
            / (machine.MediaEngine!.MegapixelsPerSecond * 1e6)));
        Add(Station.Processor, VisitKind.Decode, position => onProcessor.Sum(format =>
            DecodeSeconds(format, position, plan.Timeline.Rate, machine.Processor)));
        Add(Station.Bus, VisitKind.Copy, _ => machine.Graphics?.BusGigabytesPerSecond is { } bus
            ? onProcessor.Sum(format => format.BytesPerDecodedFrame) / (bus * 1e9)
            : 0);
        Add(
            machine.Graphics is null ? Station.Processor : Station.Graphics,
            VisitKind.Effects,
            _ => EffectsSeconds(plan, passage, layers));

        return new PassageDemand(
            passage.FrameCount,
            visits,
            KeyInterval(layers, plan.Timeline.Rate),
            memory,
            machine.Graphics is null ? 0 : GraphicsMemoryBytes(plan, passage),
            readBytes,
            swap,
            [.. refusals.OfType<string>().Distinct()]);

        void Add(Station station, VisitKind kind, Func<int, double> seconds)
        {
            var byPosition = kind == VisitKind.Decode && positions > 1
                ? Enumerable.Range(0, positions).Select(seconds).ToArray()
                : [seconds(0)];
            if (byPosition.Max() > 0)
            {
                visits.Add(new Visit(station, kind, [.. byPosition.Select(s => TimeSpan.FromSeconds(s))]));
            }
        }
    }

    /// <summary>Source frames for each timeline frame. Long-GOP must decode all of them, all-intra only those shown.</summary>
    public static (double Running, double Decoded) SourceFrames(ClipFormat format, FrameRate timeline)
    {
        var running = format.Rate.FramesPerSecond / timeline.FramesPerSecond;
        return (running, format.IsAllIntra ? Math.Min(1, running) : running);
    }

    private static double DecodeSeconds(ClipFormat format, int position, FrameRate timeline, Processor processor)
    {
        var cost = DecodeCost.Of(format.Codec);
        var perFrame = SourceFrames(format, timeline).Decoded;
        var seconds = format.IsAllIntra
            ? perFrame * cost.CoreSeconds(format, 0)
            : SourceFramesAt(position, perFrame).Sum(frame => cost.CoreSeconds(format, frame % format.GopLength));
        return seconds / (processor.RelativeCoreSpeed ?? 1) / cost.SpeedUp(processor.Cores);
    }

    /// <summary>The source frames that become due with a timeline frame.</summary>
    private static IEnumerable<int> SourceFramesAt(int position, double perFrame)
    {
        var (from, to) = ((int)(position * perFrame), (int)((position + 1) * perFrame));
        return Enumerable.Range(from, to - from);
    }

    private static double EffectsSeconds(PlaybackPlan plan, Passage passage, List<ClipFormat> layers)
    {
        var raster = plan.Settings.ProcessedRaster(plan.Timeline.Raster);
        var costs = new List<EffectCost>();
        costs.AddRange(layers.Where(format => format.Raster != raster).Select(_ => EffectCost.Scaling));
        costs.AddRange(passage.Layers.Skip(1).Select(_ => EffectCost.Blend));
        costs.AddRange(passage.Layers.SelectMany(layer => layer.Effects).Concat(passage.Over).Select(EffectCost.Of));

        if (plan.Machine.Graphics is { } graphics)
        {
            return costs.Sum(cost => GraphicsLaunch.TotalSeconds + cost.Seconds(
                raster.Pixels,
                graphics.PeakGigaflops * 1e9 * ReachedShareOfPeak,
                graphics.BandwidthGigabytesPerSecond * 1e9));
        }

        var speed = (plan.Machine.Processor.RelativeCoreSpeed ?? 1) * plan.Machine.Processor.Cores;
        return costs.Sum(cost => cost.Seconds(raster.Pixels, ReferenceCore.FlopPerSecond * speed, ReferenceCore.BytesPerSecond * speed));
    }

    /// <summary>Several streams on one mechanical drive make it seek for each of them.</summary>
    private static double SeekSeconds(Drive drive, int streams) => streams > 1 ? drive.Latency.TotalSeconds * streams : 0;

    /// <summary>Timeline frames until decoding of all layers can start afresh.</summary>
    private static int KeyInterval(List<ClipFormat> layers, FrameRate timeline) =>
        layers.Max(format => format.IsAllIntra
            ? 1
            : Math.Max(1, (int)Math.Ceiling(format.GopLength / SourceFrames(format, timeline).Running)));

    private static double MemoryBytes(PlaybackPlan plan, Passage passage, List<ClipFormat> layers)
    {
        var decoded = layers.Sum(format => format.BytesPerDecodedFrame) * (PlaybackSettings.DecodeAhead + ReferenceFrames);
        return decoded + WorkingBytes(plan) * (plan.Settings.LookAhead + HeldFrames(passage));
    }

    private static double GraphicsMemoryBytes(PlaybackPlan plan, Passage passage) =>
        WorkingBytes(plan) * (passage.Layers.Count + plan.Settings.LookAhead + HeldFrames(passage));

    private static double WorkingBytes(PlaybackPlan plan) =>
        plan.Settings.ProcessedRaster(plan.Timeline.Raster).Pixels * WorkingBytesPerPixel;

    private static int HeldFrames(Passage passage) =>
        passage.Layers.SelectMany(layer => layer.Effects).Concat(passage.Over).Sum(effect => EffectCost.Of(effect).HeldFrames);

    /// <summary>Frames a decoder keeps for reference, whatever the codec.</summary>
    private const int ReferenceFrames = 4;

    /// <summary>Memory above what is free: its share of all touches goes to the swap drive.</summary>
    private static double SwapBytes(Memory memory, double needed, List<ClipFormat> layers)
    {
        var free = (memory.Gigabytes - memory.InUseGigabytes) * 1e9;
        var overflow = needed > free ? (needed - free) / needed : 0;
        return overflow * layers.Sum(format => format.BytesPerDecodedFrame) * 2;
    }
}
