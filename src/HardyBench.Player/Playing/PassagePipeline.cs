using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;

namespace HardyBench.Player.Playing;

/// <summary>The decoders of one passage, opened ahead of its start and already decoding.</summary>
public sealed class PassagePipeline : IDisposable
{
    private readonly List<ILayerFrames> layers = [];
    private readonly PassageTreatment treatment;

    /// <exception cref="Native.MediaException">A clip cannot be opened.</exception>
    /// <exception cref="NotSupportedException">This player has no filter for an effect.</exception>
    public PassagePipeline(
        PlaybackPlan plan, Passage passage, PassageClock clock, IClipFiles files, PassageGraph graph, int threads)
    {
        Clock = clock;
        graph.Describe(plan, passage);
        treatment = new PassageTreatment(graph, plan, passage, threads);
        try
        {
            foreach (var (clip, layer) in plan.ClipsOf(passage).Zip(passage.Layers))
            {
                var frames = new LayerDecoding(ClipSource.Of(clip, files), threads, plan.Settings.DecodeOn, layer, clock);
                layers.Add(InterpolatedLayer.IsNeeded(layer) ? new InterpolatedLayer(frames, layer, plan.Timeline.Rate, threads) : frames);
            }
        }
        catch
        {
            Dispose();
            throw;
        }
    }

    public PassageClock Clock { get; }

    /// <summary>Takes the decoded frames of all layers for one frame of the passage.</summary>
    /// <returns>Null when a layer went past it.</returns>
    public IReadOnlyList<DecodedFrame>? Take(long position)
    {
        var taken = new List<DecodedFrame>();
        foreach (var layer in layers)
        {
            if (layer.Take(position) is { } frame)
            {
                taken.Add(frame);
            }
        }

        if (taken.Count == layers.Count)
        {
            return taken;
        }

        taken.ForEach(frame => frame.Dispose());
        return null;
    }

    /// <summary>What went wrong so far without ending the passage, a phrase each.</summary>
    public IEnumerable<string> Overcome => layers.SelectMany(layer => layer.Overcome).Append(treatment.DeviceFailure).OfType<string>();

    /// <summary>Treats the layers of one frame. The graph is built on the first call, on the caller's thread.</summary>
    public Native.FrameHandle? Treat(IReadOnlyList<DecodedFrame> frames, long position) => treatment.Treat(frames, position);

    /// <summary>From the next frame on effects work at another scale.</summary>
    public void ScaleTo(PreviewScale scale) => treatment.ScaleTo(scale);

    public void Dispose()
    {
        treatment.Dispose();
        layers.ForEach(layer => layer.Dispose());
    }
}

/// <summary>Knows where clips lie.</summary>
public interface IClipFiles
{
    /// <exception cref="Native.MediaException">There is no file for the clip.</exception>
    string PathOf(Core.Footage.Clip clip);
}
