using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Player.Effects;
using HardyBench.Player.Native;

namespace HardyBench.Player.Playing;

/// <summary>The very pictures that playing a passage shows, for a file.</summary>
public interface IPassagePictures
{
    /// <summary>Every frame of a passage, decoded and treated as the plan says: its planes without padding, made while they are read.</summary>
    /// <param name="index">The passage's place in the plan, from 0.</param>
    /// <exception cref="MediaException">A frame could not be decoded or treated.</exception>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    IEnumerable<ReadOnlyMemory<byte>> Of(PlaybackPlan plan, int index, CancellationToken stop);
}

/// <summary>Makes them in this process.</summary>
public sealed class PassagePictures(IClipFiles files, EffectFilters filters) : IPassagePictures
{
    /// <inheritdoc />
    public IEnumerable<ReadOnlyMemory<byte>> Of(PlaybackPlan plan, int index, CancellationToken stop)
    {
        var passage = plan.Played(index);
        var course = new PassageCourse(new RunClock(), plan.Timeline.Rate, 0, passage.FrameCount, keepsTime: false);
        using var pipeline = new PassagePipeline(plan, passage, course, files, new PassageGraph(filters), Environment.ProcessorCount);
        for (var position = 0; position < passage.FrameCount; position++)
        {
            stop.ThrowIfCancellationRequested();
            var frames = pipeline.Take(position) ?? throw new MediaException($"frame {position} could not be decoded");
            byte[] planes;
            try
            {
                using var picture = pipeline.Treat(frames, position) ?? throw new MediaException($"frame {position} could not be treated");
                planes = picture.CopyPlanes();
            }
            finally
            {
                foreach (var frame in frames)
                {
                    frame.Dispose();
                }
            }

            yield return planes;
        }
    }
}
