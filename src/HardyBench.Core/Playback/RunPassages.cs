namespace HardyBench.Core.Playback;

/// <summary>Finds the slots of a passage. A run's frames lie in order, so that nothing has to be looked through.</summary>
public static class RunPassages
{
    /// <summary>The settled slots of a passage, from 0; none when the run did not come to it.</summary>
    public static IReadOnlyList<FrameRecord> FramesOf(this Run run, int passage)
    {
        var timeline = run.Header.Timeline;
        var start = timeline.StartOf(passage);
        var (from, to) = (First(run, start), First(run, start + timeline.Passages[passage].FrameCount));
        return new ArraySegment<FrameRecord>((FrameRecord[])run.Frames, from, to - from);
    }

    /// <summary>The place of the first record of a frame or of a later one.</summary>
    private static int First(Run run, long frame) => RunMoments.LastWhere(run, record => record.Frame < frame) + 1;
}
