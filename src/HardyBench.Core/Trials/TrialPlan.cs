using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Trials;

/// <summary>The kinds of trial. Each asks a machine one question and takes one or several runs to answer it.</summary>
public enum TrialKind
{
    /// <summary>Does it play in real time?</summary>
    Play,

    /// <summary>Does it play so every time?</summary>
    Repeat,

    /// <summary>Does the picture keep up with the hand?</summary>
    Scrub,

    /// <summary>How long is it from the key to a moving picture?</summary>
    StartLag,

    /// <summary>Which is the first preview scale that holds?</summary>
    StepDown,

    /// <summary>At which step of a ramp does it stop holding?</summary>
    Ramp,

    /// <summary>What does half the frame rate do to the load?</summary>
    HalfRate,

    /// <summary>Does it still play so when it is hot?</summary>
    Soak,

    /// <summary>Does one changed setting or one effect less make a difference?</summary>
    Compare,
}

/// <summary>A trial as asked for.</summary>
/// <param name="Start">What is played, on what, how.</param>
/// <param name="Times">Repeat: runs. Start lag: places a passage. Compare: pairs.</param>
/// <param name="AtMost">Soak: after this no further run begins.</param>
/// <param name="Other">Compare: the second side's settings; null for the same.</param>
/// <param name="WithoutEffect">Compare: an effect that the second side leaves out; null for none.</param>
public sealed record TrialPlan(
    TrialKind Kind, PlaybackPlan Start, int Times, TimeSpan AtMost, PlaybackSettings? Other = null, string? WithoutEffect = null)
{
    public const int MostTimes = 50;

    public static readonly TimeSpan LongestSoak = TimeSpan.FromHours(8);

    /// <summary>A time as somebody wrote it.</summary>
    /// <exception cref="PlanRefusedException">It is no time that a trial can take.</exception>
    public static TimeSpan OfMinutes(double minutes) => minutes > 0 && minutes <= LongestSoak.TotalMinutes
        ? TimeSpan.FromMinutes(minutes)
        : throw new PlanRefusedException("A soak takes more than no time and at most 8 hours.");

    /// <exception cref="PlanRefusedException">It makes no sense as it stands.</exception>
    public TrialPlan Checked()
    {
        Start.Checked();
        if (Other?.Problems().FirstOrDefault() is { } wrong)
        {
            throw new PlanRefusedException($"The second side: {wrong}");
        }

        string? problem = Kind switch
        {
            TrialKind.Repeat when Times is < 3 or > MostTimes => $"A repeat takes 3 to {MostTimes} runs, not {Times}: with fewer the spread says nothing.",
            TrialKind.StartLag when Times is < 1 or > MostTimes => $"Start lag takes 1 to {MostTimes} places a passage, not {Times}.",
            TrialKind.Compare when Times is < 1 or > MostTimes => $"A comparison takes 1 to {MostTimes} pairs, not {Times}.",
            TrialKind.Compare when Other is null && WithoutEffect is null => "Say what the second side changes: a setting, or an effect to leave out.",
            TrialKind.Compare when Other == Start.Settings && WithoutEffect is null => "Both sides are the same. Change one setting, or leave out an effect.",
            TrialKind.Compare when WithoutEffect is { } effect && !Effects(Start.Timeline).Contains(effect) => $"There is no effect '{effect}' in {Start.Timeline.Title}.",
            TrialKind.Ramp when Start.Timeline.Passages.Count < 2 => "A ramp needs at least two passages, each asking more than the one before.",
            TrialKind.Ramp or TrialKind.StepDown when Start.Timeline.Passages.All(IsTooShort) =>
                "Every passage is shorter than 2 s, and so short a passage gets no verdict. Make them longer.",
            TrialKind.Soak when AtMost <= TimeSpan.Zero || AtMost > LongestSoak => "A soak takes more than no time and at most 8 hours.",
            _ => null,
        };
        return problem is null ? this : throw new PlanRefusedException(problem);
    }

    /// <summary>What somebody should know before it is played, though it can be: sentences.</summary>
    public IReadOnlyList<string> Remarks() =>
        Kind == TrialKind.Ramp && RampSearch.WhyNotRising(Start.Timeline, Start.Clips) is { } flat ? [flat] : [];

    private bool IsTooShort(Passage passage) =>
        Start.Timeline.Rate.StartOf(passage.FrameCount) < VerdictLimits.Default.ShortestJudged;

    private static IEnumerable<string> Effects(Timeline timeline) =>
        timeline.Passages.SelectMany(passage => passage.WithoutOff().AllEffects()).Select(effect => effect.Id);
}

/// <summary>One run of a trial.</summary>
/// <param name="Label">What it stands for: "half scale", "2 of 3", "passage 4".</param>
public sealed record TrialStep(string Label, PlaybackPlan Plan);

/// <summary>A run of a trial that was played.</summary>
public sealed record StepOutcome(string Label, Run Run)
{
    public IReadOnlyList<PassageFinding> Findings { get; } = RunFindings.Of(Run);

    /// <summary>Every passage that could be judged holds, and there was one.</summary>
    public bool Holds => Findings.Any(finding => finding.Verdict is not null) && Findings.All(finding => finding.Verdict is null or Verdict.Holds);
}
