namespace HardyBench.Core.Playback;

/// <summary>Tells which moment of a run it is while it plays elsewhere. Nothing is heard before it happened, so what came with the least
/// delay tells best when the run began. Used by many threads.</summary>
/// <param name="time">The source of the time.</param>
public sealed class EstimatedClock(TimeProvider time)
{
    private readonly object gate = new();
    private long run;
    private long? began;

    /// <summary>Another run begins.</summary>
    public void Begin(long id)
    {
        lock (gate)
        {
            (run, began) = (id, null);
        }
    }

    public void Hear(RunProgress progress)
    {
        var newest = new[]
        {
            progress.Frames.Count > 0 ? progress.Frames[^1].SlotStart : TimeSpan.MinValue,
            progress.Loads.Count > 0 ? progress.Loads[^1].At : TimeSpan.MinValue,
        }.Max();
        if (newest < TimeSpan.Zero)
        {
            return;
        }

        lock (gate)
        {
            var start = time.GetTimestamp() - (long)(newest.TotalSeconds * time.TimestampFrequency);
            began = Math.Min(began ?? start, start);
        }
    }

    /// <summary>The moment of a run that was so long ago, from the key that started it; null where the run is another, or nothing was heard
    /// of it.</summary>
    public TimeSpan? MomentOf(long id, TimeSpan ago)
    {
        lock (gate)
        {
            return id == run && began is { } start
                ? TimeSpan.FromTicks(Math.Max(0, (time.GetElapsedTime(start) - ago).Ticks))
                : null;
        }
    }
}
