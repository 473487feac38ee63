using System.Text.Json.Serialization;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>The kinds of trial. Each asks a machine one question and takes one or several runs to answer it.</summary>
public enum TrialKind
{
    /// <summary>Does it play in real time?</summary>
    Play,

    /// <summary>How many frames a second does it get through?</summary>
    Capacity,

    /// <summary>How long does an export take?</summary>
    Export,

    /// <summary>Is the result repeatable?</summary>
    Repeat,

    /// <summary>Does the picture follow while scrubbing?</summary>
    Scrub,

    /// <summary>How long is it from the key to a moving picture?</summary>
    StartLag,

    /// <summary>Which is the first preview scale that holds?</summary>
    StepDown,

    /// <summary>At which step of a ramp does it stop holding?</summary>
    Ramp,

    /// <summary>What does half the frame rate do to the load?</summary>
    HalfRate,

    /// <summary>Does it still hold when it is warm?</summary>
    Soak,

    /// <summary>Does one changed setting or one effect less make a difference?</summary>
    Compare,
}

/// <summary>One kind of trial with its own parameters: what it checks, which run it takes next, and the answer it draws. It plays nothing
/// itself. Another kind is another file here, its name among the kinds and its line in the list below.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(PlayTrial), "play")]
[JsonDerivedType(typeof(CapacityTrial), "capacity")]
[JsonDerivedType(typeof(ExportTrial), "export")]
[JsonDerivedType(typeof(RepeatTrial), "repeat")]
[JsonDerivedType(typeof(ScrubTrial), "scrub")]
[JsonDerivedType(typeof(StartLagTrial), "startLag")]
[JsonDerivedType(typeof(StepDownTrial), "stepDown")]
[JsonDerivedType(typeof(RampTrial), "ramp")]
[JsonDerivedType(typeof(HalfRateTrial), "halfRate")]
[JsonDerivedType(typeof(SoakTrial), "soak")]
[JsonDerivedType(typeof(CompareTrial), "compare")]
public abstract record Trial([property: JsonIgnore] TrialKind Kind)
{
    /// <summary>The most runs, places or pairs that a trial can ask for.</summary>
    public const int MaxTimes = 50;

    protected const string NoneLongEnough = "No passage was played long enough for a verdict.";

    /// <summary>Whether it requests places instead of playing through.</summary>
    [JsonIgnore]
    public bool IsByHand => this is GestureTrial;

    /// <summary>Every way in which its runs are played, which can need proxies or renders first.</summary>
    public virtual IEnumerable<PlaybackSettings> Ways(PlaybackSettings start) => [start];

    /// <summary>Why it makes no sense as it stands, a sentence; null where it does.</summary>
    public virtual string? Problem(PlaybackPlan start) => null;

    /// <summary>What to know of a timeline, before it is played and with the answer, though it can be played: a sentence; null for
    /// nothing.</summary>
    public virtual string? Remark(Timeline timeline, IReadOnlyDictionary<string, Clip> clips) => null;

    /// <summary>How many runs it takes; null where that depends on how they go.</summary>
    public virtual int? StepCount(PlaybackPlan start) => 1;

    /// <summary>The running time of its timelines; null where it depends on how they go.</summary>
    public virtual TimeSpan? Length(PlaybackPlan start) => StepCount(start) is { } runs ? Once(start) * runs : null;

    /// <summary>The next run.</summary>
    /// <param name="start">What is played as it was set, as the run that is to come.</param>
    /// <param name="done">The runs so far, in order.</param>
    /// <param name="elapsed">Time since the trial began.</param>
    /// <returns>Null when the question is answered.</returns>
    public abstract TrialStep? Next(PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed);

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

    protected static TimeSpan Once(PlaybackPlan start) => start.Timeline.Rate.StartOf(start.Timeline.FrameCount);

    /// <summary>The rows with words for each.</summary>
    protected static IReadOnlyList<PassageAnswer> Told(TrialAnswer blank, Func<PassageAnswer, string> words) =>
        [.. blank.Rows.Select(row => row with { Words = words(row) })];

    /// <summary>Frames shown a second in each run that played a passage.</summary>
    protected static IReadOnlyList<double> Shown(PassageAnswer row) =>
        [.. row.Cells.OfType<PassageFinding>().Where(cell => cell.Counts.Slots > 0).Select(cell => cell.Counts.ShownRate)];

    protected static string? AllTooShort(PlaybackPlan start) => RampSearch.Judged(start.Timeline).Count == 0
        ? "Every passage is shorter than 2 s, and so short a passage gets no verdict. Make them longer."
        : null;
}
