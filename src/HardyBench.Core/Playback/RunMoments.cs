namespace HardyBench.Core.Playback;

/// <summary>Finds the frame of a moment and the moment of a frame.</summary>
public static class RunMoments
{
    /// <param name="at">From the key; null to go by the frame.</param>
    /// <param name="frame">Timeline frame; null to go by the moment. Without either it is the newest moment known.</param>
    /// <exception cref="PlanRefusedException">The moment lies outside the run, or the text is too long.</exception>
    public static RunMark Mark(Run run, TimeSpan? at, int? frame, MarkKind kind, string text)
    {
        if (text.Length > RunMark.LongestText)
        {
            throw new PlanRefusedException(
                $"The text of a mark has at most {RunMark.LongestText} characters, this has {text.Length}. Nothing was saved."
            );
        }

        if (at < TimeSpan.Zero || frame < 0 || frame >= run.Header.Timeline.FrameCount)
        {
            throw new PlanRefusedException("That time is outside the run. Nothing was saved.");
        }

        var moment = at ?? (frame is { } number ? Of(run, number) : Newest(run));
        return new RunMark(0, moment, frame ?? FrameAt(run, moment), kind, text.Trim());
    }

    /// <summary>When a frame's slot began; calculated from the first frame shown where it is not known yet.</summary>
    private static TimeSpan Of(Run run, int frame)
    {
        var place = LastWhere(run, record => record.Frame <= frame);
        return place >= 0 && run.Frames[place].Frame == frame
            ? run.Frames[place].SlotStart
            : (run.StartLag ?? TimeSpan.Zero) + run.Header.Timeline.Rate.StartOf(frame);
    }

    /// <summary>The frame whose slot it was, by the rate where that slot is not known yet; null before the first.</summary>
    private static int? FrameAt(Run run, TimeSpan moment)
    {
        var place = LastWhere(run, record => record.SlotStart <= moment);
        if (place < 0)
        {
            return null;
        }

        var (known, rate) = (run.Frames[place], run.Header.Timeline.Rate);
        var later = place == run.Frames.Count - 1 ? (long)((moment - known.SlotStart).TotalSeconds * rate.FramesPerSecond) : 0;
        return (int)Math.Min(known.Frame + later, run.Header.Timeline.FrameCount - 1);
    }

    private static TimeSpan Newest(Run run) =>
        run.Frames.Count > 0 ? run.Frames[^1].SlotStart
        : run.Loads.Count > 0 ? run.Loads[^1].At
        : TimeSpan.Zero;

    /// <summary>The last place up to which a condition holds, or −1.</summary>
    internal static int LastWhere(Run run, Func<FrameRecord, bool> holds)
    {
        var (low, high) = (-1, run.Frames.Count - 1);
        while (low < high)
        {
            var middle = low + (high - low + 1) / 2;
            (low, high) = holds(run.Frames[middle]) ? (middle, high) : (low, middle - 1);
        }

        return low;
    }
}
