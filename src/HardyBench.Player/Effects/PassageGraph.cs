using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Player.Native;
using static System.FormattableString;

namespace HardyBench.Player.Effects;

/// <summary>Writes the filter graph of a passage: inputs in0, in1 … bottom first, one output, out.</summary>
public class PassageGraph(EffectFilters filters)
{
    /// <summary>Each layer is brought to the processed raster (or its place in it), treated, laid over those below;
    /// then come the effects over all of them.</summary>
    /// <exception cref="NotSupportedException">This player has no filter for an effect.</exception>
    public string Describe(PlaybackPlan plan, Passage passage) => new Writer(filters, plan, passage).Write();

    /// <summary>The running graph of a passage.</summary>
    /// <param name="like">A frame of each layer.</param>
    /// <exception cref="MediaException">It cannot be built.</exception>
    public virtual Treatment Open(PlaybackPlan plan, Passage passage, IReadOnlyList<FrameHandle> like, int threads)
    {
        var description = Describe(plan, passage);
        return new Treatment(
            description, like, plan.Timeline.Rate, threads, DeviceFilters.IsUsedIn(description) ? plan.Settings.EffectsOn : null);
    }

    /// <summary>Where each effect of a timeline runs.</summary>
    /// <param name="device">Null for the processor.</param>
    /// <param name="deviceRefusal">Why the device can't be used at all; null where it can.</param>
    public static IReadOnlyDictionary<string, EffectState> PlacesOf(PlaybackPlan plan, string? device, string? deviceRefusal)
    {
        return plan.Timeline.Passages.Index().Select(passage => plan.Played(passage.Index))
            .SelectMany(passage => passage.AllEffects().Select(effect =>
            (
                effect.Id,
                Refusal: device is null ? null : deviceRefusal ?? DeviceFilters.RefusalOf(device, effect, plan.IsDeep(passage)))))
            .Where(effect => effect.Id != EffectCatalogue.Placement)
            .GroupBy(effect => effect.Id, effect => effect.Refusal)
            .ToDictionary(effect => effect.Key, effect => StateOf(device, [.. effect]));
    }

    private static EffectState StateOf(string? device, IReadOnlyList<string?> refusals)
    {
        var refusal = refusals.FirstOrDefault(one => one is not null);
        return refusal is null ? new EffectState(device ?? WorkPlace.Processor, null)
            : refusals.Contains(null) ? new EffectState($"{WorkPlace.Processor} in part", refusal)
            : new EffectState(WorkPlace.Processor, refusal);
    }

    private sealed class Writer(EffectFilters filters, PlaybackPlan plan, Passage passage)
    {
        private readonly Raster raster = plan.Settings.ProcessedRaster(plan.Timeline.Raster);
        private readonly IReadOnlyList<Clip> clips = plan.ClipsOf(passage);
        private int effects;

        private bool Deep { get; } = plan.IsDeep(passage);

        private double Seconds => plan.Timeline.Rate.StartOf(passage.FrameCount).TotalSeconds;

        public string Write()
        {
            var parts = passage.Layers.Select((layer, i) => LayerChain(layer, clips[i].Format, i)).ToList();
            var top = "l0";
            for (var i = 1; i < passage.Layers.Count; i++)
            {
                parts.Add($"[{top}][l{i}]{Joint(i)}[o{i}]");
                top = $"o{i}";
            }

            parts.Add($"[{top}]{string.Join(',', passage.Over.Select(effect => Filter(effect, raster))
                .Append($"format={WorkingFormat.Of(Deep)}"))}[out]");
            return string.Join(';', parts);
        }

        private string LayerChain(Layer layer, ClipFormat format, int index)
        {
            var chain = new List<string>();
            var size = SizeOf(layer);
            if (format.Raster != size)
            {
                chain.Add($"scale={size.Width}:{size.Height}:flags=bilinear");
            }

            chain.AddRange(layer.Effects.Select(effect => Filter(effect, size)));
            var transparent = index > 0 && (layer.IsTranslucent || layer.Effects.Any(EffectFilters.HasTransparency));
            chain.Add($"format={(transparent ? WorkingFormat.TransparentOf(Deep) : WorkingFormat.Of(Deep))}");
            if (transparent && layer.IsTranslucent)
            {
                chain.Add(Invariant($"lutyuv=a=val*{layer.Opacity}"));
            }

            if (passage.Transition == Transition.Dissolve && index == 1)
            {
                chain.Add(Invariant($"format={WorkingFormat.TransparentOf(Deep)},fade=t=in:st=0:d={Seconds}:alpha=1"));
            }

            return $"[in{index}]{string.Join(',', chain)}[l{index}]";
        }

        /// <summary>How a layer meets those below it.</summary>
        private string Joint(int index) => (passage.Transition, index) switch
        {
            (Transition.Wipe, 1) => Invariant($"xfade=transition=wiperight:duration={Seconds}:offset=0"),
            (Transition.Dip, 1) => Invariant($"xfade=transition=fadeblack:duration={Seconds}:offset=0"),
            _ => $"overlay={Corner(passage.Layers[index])}:format={(Deep ? "yuv422p10" : "yuv420")}",
        };

        private string Filter(Effect effect, Raster on)
        {
            var context = new EffectContext(on, (double)raster.Width / plan.Timeline.Raster.Width, Deep, effects++);
            return DeviceFilters.Of(plan.Settings.EffectsOn, effect, context) ?? filters.Of(effect, context);
        }

        private Raster SizeOf(Layer layer) => PlacementOf(layer) is { } placed
            ? new Raster(EvenShare(raster.Width, placed["size"]), EvenShare(raster.Height, placed["size"]))
            : raster;

        private string Corner(Layer layer) => PlacementOf(layer) is { } placed
            ? $"x={(int)(raster.Width * placed["left"]) & ~1}:y={(int)(raster.Height * placed["top"]) & ~1}"
            : "x=0:y=0";
    }

    private static Effect? PlacementOf(Layer layer) => layer.Effects.FirstOrDefault(effect => effect.Id == EffectCatalogue.Placement);

    private static int EvenShare(int side, double share) => Math.Max(2, (int)(side * share) & ~1);
}
