using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Course;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;

namespace HardyBench.Player.Playing;

/// <summary>The decoders of one passage, opened ahead of its start and already decoding.</summary>
public sealed class PassagePipeline : IDisposable
{
    private readonly ILayerFrames?[] layers;
    private readonly PassageTreatment treatment;

    /// <exception cref="MediaException">A clip cannot be opened.</exception>
    /// <exception cref="NotSupportedException">This player has no filter for an effect.</exception>
    public PassagePipeline(
        PlaybackPlan plan, Passage passage, PassageCourse course, IClipFiles files, PassageGraph graph, int threads)
    {
        Course = course;
        layers = new ILayerFrames?[passage.Layers.Count];
        graph.Describe(plan, passage);
        treatment = new PassageTreatment(graph, plan, passage, threads);
        try
        {
            var clips = plan.ClipsOf(passage);
            var leader = LeaderOf(passage, clips);
            if (leader < 0)
            {
                course.Lead(null);
            }

            foreach (var (index, (clip, layer)) in clips.Zip(passage.Layers).Index().OrderByDescending(one => one.Index == leader))
            {
                var made = InterpolatedLayer.IsNeeded(layer);
                var part = made ? DecodingPart.Free : index == leader ? DecodingPart.Leads : DecodingPart.Follows;
                var frames = new LayerDecoding(
                    ClipSource.Of(clip, files), threads, plan.DecoderOf(clip), layer, course, part);
                layers[index] = made ? new InterpolatedLayer(frames, layer, plan.Timeline.Rate, threads) : frames;
            }
        }
        catch
        {
            Dispose();
            throw;
        }
    }

    public PassageCourse Course { get; }

    /// <summary>Whether a frame of every layer can be taken without waiting.</summary>
    public bool HasFrame => layers.All(layer => layer!.HasFrame);

    /// <summary>Takes the decoded frames of all layers for one frame of the passage.</summary>
    /// <returns>Null when a layer went past it.</returns>
    public IReadOnlyList<DecodedFrame>? Take(long position)
    {
        Course.Taking(position);
        var taken = new List<DecodedFrame>();
        foreach (var layer in layers)
        {
            if (layer!.Take(position) is { } frame)
            {
                taken.Add(frame);
            }
        }

        if (taken.Count == layers.Length)
        {
            return taken;
        }

        taken.ForEach(frame => frame.Dispose());
        return null;
    }

    /// <summary>A frame will not be taken: what was decoded for it makes room.</summary>
    /// <returns>How long that was read and decoded.</returns>
    public TimeSpan PassOver(long position)
    {
        Course.Taking(position);
        return layers.Aggregate(TimeSpan.Zero, (sum, layer) => sum + layer!.PassOver(position));
    }

    /// <summary>What went wrong so far without ending the passage, a phrase each.</summary>
    public IEnumerable<string> Overcome => layers.SelectMany(layer => layer!.Overcome).Append(treatment.DeviceFailure).OfType<string>();

    /// <summary>Makes ready for effects on frames like these, where that was not done yet.</summary>
    public void Prepare(IReadOnlyList<DecodedFrame> frames) => treatment.Prepare(frames);

    /// <summary>Treats the layers of one frame.</summary>
    public Native.FrameHandle? Treat(IReadOnlyList<DecodedFrame> frames, long position) => treatment.Treat(frames, position);

    /// <summary>From the next frame on effects work at another scale.</summary>
    public void ScaleTo(PreviewScale scale) => treatment.ScaleTo(scale);

    public void Dispose()
    {
        Course.Close();
        treatment.Dispose();
        foreach (var layer in layers)
        {
            layer?.Dispose();
        }
    }

    /// <summary>The layer that is hardest to catch up with: of long-GOP footage before all-intra, with the longest GOP, the
    /// largest.</summary>
    /// <returns>Its place; −1 where each needs every frame of its own.</returns>
    private static int LeaderOf(Passage passage, IReadOnlyList<Clip> clips) =>
        passage.Layers.Index().Where(one => !InterpolatedLayer.IsNeeded(one.Item))
            .OrderByDescending(one => clips[one.Index].Format.IsAllIntra ? 1 : clips[one.Index].Format.GopLength)
            .ThenByDescending(one => clips[one.Index].Format.Raster.Pixels)
            .Select(one => one.Index).FirstOrDefault(-1);
}
