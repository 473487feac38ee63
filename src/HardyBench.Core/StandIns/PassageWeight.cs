using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.StandIns;

/// <summary>How demanding a passage is, whatever the machine.</summary>
public static class PassageWeight
{
    /// <summary>Core-seconds that a second of the passage's layers and their effects takes on the reference core, each
    /// layer's effects at its own raster. Clips that are not known count nothing.</summary>
    public static double Of(Passage passage, IReadOnlyDictionary<string, Clip> clips) =>
        passage.Layers.Where(layer => clips.ContainsKey(layer.ClipId)).Sum(layer =>
        {
            var format = clips[layer.ClipId].Format;
            var decode = DecodeCost.Of(format.Codec).CoreSeconds(format, position: 1);
            var effects = layer.Effects.Concat(passage.Over)
                .Sum(effect => (EffectCatalogue.Find(effect.Id)?.Cost ?? default).Seconds(format.Raster.Pixels, ReferenceCore.FlopPerSecond, ReferenceCore.BytesPerSecond));
            return (decode + effects) * format.Rate.FramesPerSecond;
        });
}
