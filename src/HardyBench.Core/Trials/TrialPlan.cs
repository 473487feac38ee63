using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Lags;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Trials.Kinds;

namespace HardyBench.Core.Trials;

/// <summary>A trial as asked for.</summary>
/// <param name="Start">What is played, on what, how.</param>
public sealed record TrialPlan(Trial Trial, PlaybackPlan Start)
{
    /// <exception cref="PlanRefusedException">It makes no sense as it stands.</exception>
    public TrialPlan Checked() =>
        (Start.Problem ?? Trial.Problem(Start)) is { } problem ? throw new PlanRefusedException(problem) : this;

    /// <summary>What somebody should know before it is played, though it can be: sentences.</summary>
    public IReadOnlyList<string> Remarks() => Trial.Remark(Start.Timeline, Start.Clips) is { } remark ? [remark] : [];

    /// <summary>The next run.</summary>
    /// <param name="done">The runs so far, in order.</param>
    /// <param name="elapsed">Time since the trial began.</param>
    /// <returns>Null when the question is answered.</returns>
    public TrialStep? Next(IReadOnlyList<StepOutcome> done, TimeSpan elapsed) =>
        Trial.Next(Start with { Occasion = done.Count + 1 }, done, elapsed);

    /// <summary>How many runs it takes; null where that depends on how they go.</summary>
    public int? StepCount => Trial.StepCount(Start);

    /// <summary>The running time of its timelines; null where it depends on how they go.</summary>
    public TimeSpan? Length => Trial.Length(Start);
}

/// <summary>One run of a trial.</summary>
/// <param name="Role">What it stands for.</param>
public sealed record TrialStep(StepRole Role, PlaybackPlan Plan);

/// <summary>What is kept of a run of a trial: all that answers are drawn from, and none of its frames and loads, of which a long soak has
/// millions.</summary>
public sealed record StepOutcome
{
    /// <param name="role">What the run stands for.</param>
    public StepOutcome(StepRole role, Run run)
    {
        (Role, Header, Findings, Lags) = (role, run.Header, RunFindings.Of(run), LagFindings.Of(run));
        Disturbance = Disturbance.Of(run, Findings);
        Work = [.. run.Header.Timeline.Passages.Select((_, passage) => PlayersWork.Of(run, passage))];
        Played = run.Frames.Count == 0 ? TimeSpan.Zero : run.Frames[^1].SlotStart + run.Header.Timeline.Rate.FrameDuration;
        EndCelsius = SoakHeat.EndTemperature(run);
        var isWhole = run.Frames.Count == run.Header.Timeline.FrameCount && run.Frames.All(frame => frame.Shown is not null)
            && run.Failures.All(failure => failure.Overcome);
        Wrote = run.Header.Subject is Export && isWhole ? run.Frames[^1].Shown : null;
    }

    public StepRole Role { get; }

    public RunHeader Header { get; }

    public IReadOnlyList<PassageFinding> Findings { get; }

    public IReadOnlyList<LagFinding> Lags { get; }

    /// <summary>Why it does not count for its machine; null where it counts.</summary>
    public Disturbance? Disturbance { get; }

    /// <summary>Whether its figures are worth anything.</summary>
    public bool Counts => Disturbance is not { AffectsFigures: true };

    /// <summary>As <see cref="PlayersWork"/> has it, one a passage.</summary>
    public IReadOnlyList<double?> Work { get; }

    /// <summary>How long the run lasted by its own clock: a stand-in's runs faster than the time of day.</summary>
    public TimeSpan Played { get; }

    /// <summary>The time from the key to the last frame, where the film was written whole; null where it was not, or not written at
    /// all.</summary>
    public TimeSpan? Wrote { get; }

    /// <summary>As <see cref="SoakHeat"/> has it.</summary>
    public double? EndCelsius { get; }

    /// <summary>Every passage that could be judged holds, and there was one.</summary>
    public bool Holds =>
        Findings.Any(finding => finding.Verdict is not null) && Findings.All(finding => finding.Verdict is null or Verdict.Holds);
}
