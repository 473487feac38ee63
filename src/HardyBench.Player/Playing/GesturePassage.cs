using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;
using HardyBench.Player.Native;

namespace HardyBench.Player.Playing;

/// <summary>Shows any frame of one passage, in any order. Used by one thread.</summary>
public sealed class GesturePassage : IDisposable
{
    private readonly PlaybackPlan plan;
    private readonly bool changesWithTime;
    private readonly List<ReachableLayer> layers = [];
    private readonly PassageTreatment treatment;
    private long lastPosition = -1;
    private long treated;

    /// <exception cref="MediaException">A clip cannot be opened.</exception>
    public GesturePassage(PlaybackPlan plan, int index, IClipFiles files, PassageGraph graph, int threads)
    {
        (this.plan, Index) = (plan, index);
        var passage = plan.Played(index);
        graph.Describe(plan, passage);
        treatment = new PassageTreatment(graph, plan, passage, threads);
        changesWithTime = passage.Transition is not null
            || passage.AllEffects().Any(effect => effect.Id == "moving-title");
        try
        {
            foreach (var (clip, layer) in plan.ClipsOf(passage).Zip(passage.Layers))
            {
                layers.Add(new ReachableLayer(ClipSource.Of(clip, files), threads, plan.DecoderOf(clip), layer));
            }
        }
        catch
        {
            Dispose();
            throw;
        }
    }

    /// <summary>Its place in the timeline, from 0.</summary>
    public int Index { get; }

    /// <summary>What went wrong so far without ending it, a phrase each.</summary>
    public IEnumerable<string> Overcome => layers.Select(layer => layer.Damage).Append(treatment.DeviceFailure).OfType<string>();

    /// <summary>The picture of one frame of the passage, or null when the effects want others first.</summary>
    /// <exception cref="MediaException">A clip is damaged there.</exception>
    public FrameHandle? Picture(long position)
    {
        var frames = new List<DecodedFrame>();
        try
        {
            foreach (var layer in layers)
            {
                frames.Add(layer.Reach(position, plan.Timeline.Rate));
            }

            // What changes with time can only run forwards, so that going back begins it afresh.
            if (changesWithTime && position <= lastPosition)
            {
                treatment.Renew();
            }

            lastPosition = position;
            return treatment.Treat(frames, changesWithTime ? position : treated++);
        }
        finally
        {
            frames.ForEach(frame => frame.Dispose());
        }
    }

    public void Dispose()
    {
        treatment.Dispose();
        layers.ForEach(layer => layer.Dispose());
    }
}
