using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;

namespace HardyBench.Player.Playing;

/// <summary>The decoders of one passage, opened ahead of its start and already decoding.</summary>
public sealed class PassagePipeline : IDisposable
{
    private readonly List<ILayerFrames> layers = [];
    private Treatment? treatment;
    private readonly PlaybackPlan plan;
    private readonly Passage passage;
    private readonly PassageGraph graph;
    private string description;
    private readonly int threads;

    /// <exception cref="Native.MediaException">A clip cannot be opened.</exception>
    public PassagePipeline(
        PlaybackPlan plan, Passage passage, PassageClock clock, IClipFiles files, PassageGraph graph, int threads)
    {
        (this.plan, this.passage, this.threads) = (plan, passage, threads);
        Clock = clock;
        this.graph = graph;
        description = graph.Describe(plan, passage);
        try
        {
            foreach (var (clip, layer) in plan.ClipsOf(passage).Zip(passage.Layers))
            {
                var frames = new LayerDecoding(files.PathOf(clip), threads, plan.Settings.DecodeOn, layer, clock);
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

    /// <summary>Treats the layers of one frame. The graph is built on the first call, on the caller's thread.</summary>
    public Native.FrameHandle? Treat(IReadOnlyList<DecodedFrame> frames, long position)
    {
        treatment ??= new Treatment(
            description, [.. frames.Select(frame => frame.Picture)], plan.Timeline.Rate, threads, plan.Settings.EffectsOn);
        return treatment.Treat(frames, position);
    }

    /// <summary>From the next frame on effects work at another scale.</summary>
    public void ScaleTo(PreviewScale scale)
    {
        description = graph.Describe(plan with { Settings = plan.Settings with { Scale = scale } }, passage);
        treatment?.Dispose();
        treatment = null;
    }

    public void Dispose()
    {
        treatment?.Dispose();
        layers.ForEach(layer => layer.Dispose());
    }
}

/// <summary>Knows where clips lie.</summary>
public interface IClipFiles
{
    /// <exception cref="Native.MediaException">There is no file for the clip.</exception>
    string PathOf(Core.Footage.Clip clip);
}
