using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>One kind of trial: what it checks, which run it takes next, and the answer it draws. It plays nothing itself. Another kind is
/// another file here, its name among the kinds and its line in the list below.</summary>
public abstract class Trial
{
    private static readonly Dictionary<TrialKind, Trial> All = new()
    {
        [TrialKind.Play] = new PlayTrial(),
        [TrialKind.Capacity] = new CapacityTrial(),
        [TrialKind.Export] = new ExportTrial(),
        [TrialKind.Repeat] = new RepeatTrial(),
        [TrialKind.Scrub] = new ScrubTrial(),
        [TrialKind.StartLag] = new StartLagTrial(),
        [TrialKind.StepDown] = new StepDownTrial(),
        [TrialKind.Ramp] = new RampTrial(),
        [TrialKind.HalfRate] = new HalfRateTrial(),
        [TrialKind.Soak] = new SoakTrial(),
        [TrialKind.Compare] = new CompareTrial(),
    };

    protected const string NoneLongEnough = "No passage was played long enough for a verdict.";

    public static Trial Of(TrialKind kind) => All[kind];

    /// <summary>Whether it requests places instead of playing through.</summary>
    public virtual bool IsByHand => false;

    /// <summary>Why it makes no sense as it stands, a sentence; null where it does.</summary>
    public virtual string? Problem(TrialPlan plan) => null;

    /// <summary>What to know of a timeline, before it is played and with the answer, though it can be played: a sentence; null for
    /// nothing.</summary>
    public virtual string? Remark(Timeline timeline, IReadOnlyDictionary<string, Clip> clips) => null;

    /// <summary>How many runs it takes; null where that depends on how they go.</summary>
    public virtual int? StepCount(TrialPlan plan) => 1;

    /// <summary>The running time of its timelines; null where it depends on how they go.</summary>
    public virtual TimeSpan? Length(TrialPlan plan) => StepCount(plan) is { } runs ? Once(plan) * runs : null;

    /// <summary>The next run.</summary>
    /// <param name="start">What is played as it was set, as the run that is to come.</param>
    /// <param name="done">The runs so far, in order.</param>
    /// <param name="elapsed">Time since the trial began.</param>
    /// <returns>Null when the question is answered.</returns>
    public abstract TrialStep? Next(TrialPlan plan, PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed);

    /// <summary>The answer, from the runs so far.</summary>
    /// <param name="timeline">The whole timeline asked about.</param>
    /// <param name="clips">Its clips; null where they are not known any more.</param>
    public TrialAnswer Answer(Timeline timeline, IReadOnlyList<StepOutcome> done, IReadOnlyDictionary<string, Clip>? clips = null)
    {
        var rows = timeline.Passages.Select((passage, index) => new PassageAnswer(
            index, passage.Question, string.Empty,
            IsByHand ? [] : [.. done.Select(outcome => outcome.Counts ? FindingOf(outcome, index) : null)])).ToList();
        var blank = new TrialAnswer(done.Count == 0 ? "Nothing has been played yet." : string.Empty, rows, []);
        var counting = done.Where(outcome => outcome.Counts).ToList();
        var answer = counting.Count == 0 ? blank : Answer(blank, timeline, counting) with { NextStep = NextStep(counting) };
        answer = answer with
        {
            LeftOut = done.Count == counting.Count ? null : new ExcludedRuns(
                done.First(outcome => !outcome.Counts).Disturbance!, done.Count - counting.Count, done.Count),
        };
        return clips is not null && Remark(timeline, clips) is { } remark ? answer with { Words = $"{answer.Words} {remark}" } : answer;
    }

    /// <param name="blank">Every passage with its findings, nothing said of any yet.</param>
    /// <param name="done">The runs that count, one or more.</param>
    protected abstract TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done);

    /// <summary>What to do with what was found, a sentence.</summary>
    /// <param name="done">The runs that count, one or more.</param>
    protected abstract string NextStep(IReadOnlyList<StepOutcome> done);

    /// <summary>What a run found of a passage; null when it did not play it.</summary>
    protected virtual PassageFinding? FindingOf(StepOutcome outcome, int passage) => outcome.Findings[passage];

    protected static TimeSpan Once(TrialPlan plan) => plan.Start.Timeline.Rate.StartOf(plan.Start.Timeline.FrameCount);

    /// <summary>The rows with words for each.</summary>
    protected static IReadOnlyList<PassageAnswer> Told(TrialAnswer blank, Func<PassageAnswer, string> words) =>
        [.. blank.Rows.Select(row => row with { Words = words(row) })];

    /// <summary>Frames shown a second in each run that played a passage.</summary>
    protected static IReadOnlyList<double> Shown(PassageAnswer row) =>
        [.. row.Cells.OfType<PassageFinding>().Where(cell => cell.Counts.Slots > 0).Select(cell => cell.Counts.ShownRate)];

    protected static string? AllTooShort(TrialPlan plan) => RampSearch.Judged(plan.Start.Timeline).Count == 0
        ? "Every passage is shorter than 2 s, and so short a passage gets no verdict. Make them longer."
        : null;
}
