using HardyBench.Core.Playback.Decisions;
using HardyBench.Core.Playback.Gestures;

namespace HardyBench.Core.Playback;

/// <summary>Gathers what the threads of a run leave, and hands it on in pieces.</summary>
public sealed class RunJournal
{
    private readonly object gate = new();
    private readonly List<FrameRecord> frames = [];
    private readonly List<LoadReading> loads = [];
    private readonly List<PassageFailure> failures = [];
    private readonly List<LagReading> lags = [];
    private int lagsTold;
    private int framesTold;
    private int loadsTold;
    private int failuresTold;

    /// <summary>Null where decisions are not logged. They are handed on and are not part of the run.</summary>
    public DecisionLog? Decisions { get; init; }

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

    /// <summary>A frame was worked on and is not shown.</summary>
    public void Wasted(TimeSpan at, TimeSpan work) => Sampled([new LoadReading(at, LoadKind.WastedWork, 0, (float)work.TotalSeconds)]);

    public void Asked(LagReading lag)
    {
        lock (gate)
        {
            lags.Add(lag);
        }
    }

    public void Fail(PassageFailure failure)
    {
        lock (gate)
        {
            failures.Add(failure);
        }
    }

    /// <summary>What another journal handed on.</summary>
    public void Add(RunProgress news)
    {
        lock (gate)
        {
            frames.AddRange(news.Frames);
            loads.AddRange(news.Loads);
            failures.AddRange(news.Failures);
            lags.AddRange(news.Lags);
        }
    }

    /// <summary>What has come since the last call.</summary>
    public RunProgress TakeNews()
    {
        lock (gate)
        {
            var news = new RunProgress(frames[framesTold..], loads[loadsTold..], failures[failuresTold..])
            {
                Lags = lags[lagsTold..],
                Decisions = Decisions?.TakeNews() ?? [],
            };
            (framesTold, loadsTold, failuresTold, lagsTold) = (frames.Count, loads.Count, failures.Count, lags.Count);
            return news;
        }
    }

    /// <summary>When the first frame was shown, or null.</summary>
    public TimeSpan? FirstShown
    {
        get
        {
            lock (gate)
            {
                return frames.Find(frame => frame.Shown is not null).Shown;
            }
        }
    }

    /// <summary>The whole run.</summary>
    public Run ToRun(RunHeader header, RunEnding ending)
    {
        lock (gate)
        {
            return new Run(header, ending, FirstShown, frames.ToArray(), loads.ToArray(), [.. failures]) { Lags = [.. lags] };
        }
    }
}
