using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Player.Course;
using HardyBench.Player.Effects;

namespace HardyBench.Player.Playing;

/// <summary>Makes the pictures of passages in this process.</summary>
public sealed class PassagePictures(IClipFiles files, EffectFilters filters) : IPassagePictures
{
    /// <inheritdoc />
    public IEnumerable<ReadOnlyMemory<byte>> Of(PlaybackPlan plan, int index, CancellationToken stop)
    {
        var passage = plan.Played(index);
        var course = new PassageCourse(new RunClock(), plan.Timeline.Rate, 0, passage.FrameCount, keepsTime: false);
        using var pipeline = new PassagePipeline(
            plan, passage, course, files, new PassageGraph(filters), plan.Settings.Threads ?? Environment.ProcessorCount);
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
