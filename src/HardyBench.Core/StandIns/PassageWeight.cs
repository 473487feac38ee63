using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.StandIns;

/// <summary>What a passage asks for, whatever the machine.</summary>
/// <param name="DecodeCores">Reference cores that decoding on a processor keeps busy.</param>
/// <param name="EffectsCores">The same for effects.</param>
/// <param name="MemoryBytes">Decoded frames under way.</param>
/// <param name="DriveBytesPerSecond">Compressed footage read.</param>
public sealed record PassageWeight(double DecodeCores, double EffectsCores, double MemoryBytes, double DriveBytesPerSecond)
{
    /// <summary>Decode and effects together.</summary>
    public double Cores => DecodeCores + EffectsCores;

    /// <summary>Effects count at the timeline's raster. Clips that are not known count nothing.</summary>
    public static PassageWeight Of(Passage passage, Timeline timeline, IReadOnlyDictionary<string, Clip> clips)
    {
        var rate = timeline.Rate.FramesPerSecond;
        var known = passage
            .Layers.Where(layer => clips.ContainsKey(layer.ClipId))
            .Select(layer => (Layer: layer, clips[layer.ClipId].Format))
            .ToList();
        return new PassageWeight(
            known.Sum(one => DecodeCost.Of(one.Format.Codec).MeanCoreSeconds(one.Format)
                * ClipFacts.SourceFramesPerTimelineFrame(one.Format, timeline.Rate, SpeedOf(one.Layer)) * rate),
            TreatmentCost.Of(
                passage.WithoutOff(), [.. passage.Layers.Select(layer => clips.GetValueOrDefault(layer.ClipId)?.Format)], timeline.Raster,
                timeline.IsDeep(known.Select(one => one.Format)))
                .Sum(piece => piece.CoreSeconds) * rate,
            known.Sum(one => one.Format.BytesPerDecodedFrame) * FramesUnderWay,
            known.Sum(one => one.Format.DataRate.BitsPerSecond / 8.0 * SpeedOf(one.Layer)));
    }

    /// <summary>Also of a passage that cannot be played as it is written: a speed that there is none of counts as shot.</summary>
    private static double SpeedOf(Layer layer) => layer.Retime?.Speed is >= 0 and <= 100 and var speed ? speed : 1;

    /// <summary>Decoded and treated frames that wait, with the player's usual look-ahead.</summary>
    private static readonly int FramesUnderWay = Playback.PlaybackSettings.DecodeAhead + new Playback.PlaybackSettings().LookAhead;
}
