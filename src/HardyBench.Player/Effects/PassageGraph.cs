using System.Globalization;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Player.Effects;

/// <summary>Writes the filter graph of a passage: inputs in0, in1 … bottom first, one output, out.</summary>
public sealed class PassageGraph(EffectFilters filters)
{
    /// <summary>Each layer is brought to the processed raster (or its place in it), treated, laid over those below;
    /// then come the effects over all of them.</summary>
    public string Describe(PlaybackPlan plan, Passage passage)
    {
        var raster = plan.Settings.ProcessedRaster(plan.Timeline.Raster);
        var clips = plan.ClipsOf(passage);
        var deep = clips.Any(clip => clip.Format.BitDepth > 8);
        var parts = passage.Layers.Select((layer, i) => LayerChain(passage, layer, clips[i].Format, raster, deep, plan, i)).ToList();
        var top = "l0";
        for (var i = 1; i < passage.Layers.Count; i++)
        {
            parts.Add($"[{top}][l{i}]overlay={Corner(passage.Layers[i], raster)}:format={(deep ? "yuv422p10" : "yuv420")}[o{i}]");
            top = $"o{i}";
        }

        parts.Add($"[{top}]{string.Join(',', passage.Over.Select(effect => filters.Of(effect, raster, deep))
            .Append($"format={EffectFilters.Yuv(deep)}"))}[out]");
        return string.Join(';', parts);
    }

    private string LayerChain(
        Passage passage, Layer layer, ClipFormat format, Raster raster, bool deep, PlaybackPlan plan, int index)
    {
        var chain = new List<string>();
        var size = SizeOf(layer, raster);
        if (format.Raster != size)
        {
            chain.Add($"scale={size.Width}:{size.Height}:flags=bilinear");
        }

        chain.AddRange(layer.Effects.Select(effect => filters.Of(effect, size, deep)));
        chain.Add($"format={EffectFilters.Yuv(deep)}");
        if (passage.Dissolve && index == 1)
        {
            var seconds = plan.Timeline.Rate.StartOf(passage.FrameCount).TotalSeconds;
            chain.Add(string.Create(CultureInfo.InvariantCulture,
                $"format={(deep ? "yuva422p10le" : "yuva420p")},fade=t=in:st=0:d={seconds}:alpha=1"));
        }

        return $"[in{index}]{string.Join(',', chain)}[l{index}]";
    }

    private static Placement? PlacementOf(Layer layer) => layer.Effects.OfType<Placement>().FirstOrDefault();

    private static Raster SizeOf(Layer layer, Raster raster) => PlacementOf(layer) is { } placed
        ? new Raster(Math.Max(2, (int)(raster.Width * placed.Size) & ~1), Math.Max(2, (int)(raster.Height * placed.Size) & ~1))
        : raster;

    private static string Corner(Layer layer, Raster raster) => PlacementOf(layer) is { } placed
        ? $"x={(int)(raster.Width * placed.Left) & ~1}:y={(int)(raster.Height * placed.Top) & ~1}"
        : "x=0:y=0";
}
