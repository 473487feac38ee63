using HardyBench.Core.Playback;

namespace HardyBench.Player.Playing;

/// <summary>Gathers what the threads of a run leave, and hands it on in pieces.</summary>
public sealed class RunJournal
{
    private readonly object gate = new();
    private readonly List<FrameRecord> frames = [];
    private readonly List<LoadReading> loads = [];
    private readonly List<PassageFailure> failures = [];
    private int framesTold;
    private int loadsTold;
    private int failuresTold;

    public void Settled(FrameRecord frame)
    {
        lock (gate)
        {
            frames.Add(frame);
        }
    }

    public void Sampled(IReadOnlyList<LoadReading> readings)
    {
        lock (gate)
        {
            loads.AddRange(readings);
        }
    }

    public void Fail(PassageFailure failure)
    {
        lock (gate)
        {
            failures.Add(failure);
        }
    }

    /// <summary>What has come since the last call.</summary>
    public RunProgress TakeNews()
    {
        lock (gate)
        {
            var news = new RunProgress(frames[framesTold..], loads[loadsTold..], failures[failuresTold..]);
            (framesTold, loadsTold, failuresTold) = (frames.Count, loads.Count, failures.Count);
            return news;
        }
    }

    /// <summary>The whole run.</summary>
    public Run ToRun(RunHeader header, RunEnding ending)
    {
        lock (gate)
        {
            var first = frames.Find(frame => frame.Shown is not null).Shown;
            return new Run(header, ending, first, [.. frames], [.. loads], [.. failures]);
        }
    }
}
