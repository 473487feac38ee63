using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Trials;
using HardyBench.Core.Trials.Kinds;

namespace HardyBench.Core.Tests.Trials;

/// <summary>Runs in which it is given which share of each passage's slots was shown.</summary>
internal static class Scripted
{
    public const int Frames = 100;

    public static Timeline Timeline(int passages) => new(
        "t",
        "T",
        Core.Footage.Raster.Hd,
        Samples.Rate,
        [.. Enumerable.Range(1, passages).Select(n => new Passage($"asked {n}", Frames, [new Layer("c", [])], []))]
    );

    public static PlaybackPlan Plan(int passages, PlaybackSettings? settings = null) =>
        Samples.Plan(Samples.Machine(), Samples.HdAvc, settings) with { Timeline = Timeline(passages) };

    public static TrialPlan Trial(TrialKind kind, int passages, int times = 3, PlaybackSettings? other = null) =>
        new(Kind(kind, times, other), Plan(passages));

    /// <param name="times">Runs, places or pairs, where the kind counts any.</param>
    /// <param name="other">For a comparison.</param>
    public static Trial Kind(TrialKind kind, int times = 3, PlaybackSettings? other = null) => kind switch
    {
        TrialKind.Play => new PlayTrial(),
        TrialKind.Capacity => new CapacityTrial(times),
        TrialKind.Export => new ExportTrial(times),
        TrialKind.Repeat => new RepeatTrial(times),
        TrialKind.Scrub => new ScrubTrial(),
        TrialKind.StartLag => new StartLagTrial(times),
        TrialKind.StepDown => new StepDownTrial(),
        TrialKind.Ramp => new RampTrial(),
        TrialKind.HalfRate => new HalfRateTrial(),
        TrialKind.Soak => new SoakTrial(),
        TrialKind.Compare => new CompareTrial(times, other),
        _ => throw new ArgumentOutOfRangeException(nameof(kind)),
    };

    /// <param name="shown">Share of slots shown, 0 to 1, by passage of the step's timeline.</param>
    /// <param name="celsius">Temperature at the end.</param>
    public static Run Run(TrialStep step, Func<int, double> shown, float? celsius = null)
    {
        var (timeline, rate) = (step.Plan.Timeline, step.Plan.Timeline.Rate);
        var frames = Enumerable.Range(0, (int)timeline.FrameCount).Select(frame =>
        {
            // The dropped ones lie at the end of each passage, after the start-up.
            var passage = timeline.PassageIndexAt(frame);
            var isShown = frame - timeline.StartOf(passage) < shown(passage) * timeline.Passages[passage].FrameCount;
            var at = rate.StartOf(frame);
            return new FrameRecord(
                frame, at, isShown ? at : null, isShown ? at : null, isShown ? FrameStatus.OnTime : FrameStatus.Dropped,
                isShown ? DropReason.None : DropReason.NotReady, default, default, default, default, 2);
        }).ToList();
        var header = new RunHeader(
            timeline,
            step.Plan.Machine,
            step.Plan.Settings,
            new Conditions("p", null, [], null, null, 1),
            new Dictionary<string, string>(),
            default
        )
        {
            Subject = step.Plan.Subject,
        };
        var loads = celsius is { } degrees
            ? [new LoadReading(rate.StartOf(timeline.FrameCount), LoadKind.Temperature, 0, degrees)]
            : new List<LoadReading>();
        return new Run(header, RunEnding.Finished, TimeSpan.Zero, frames, loads, []);
    }

    /// <summary>Plays a trial to its end.</summary>
    /// <param name="loads">Of each run, in place of its own.</param>
    public static List<StepOutcome> Course(
        TrialPlan trial,
        Func<TrialStep, int, double> shown,
        Func<int, float?>? celsius = null,
        TimeSpan perRun = default,
        Func<Run, IReadOnlyList<LoadReading>>? loads = null
    )
    {
        var done = new List<StepOutcome>();
        while (trial.Next(done, perRun * done.Count) is { } step)
        {
            var run = Run(step, passage => shown(step, passage), celsius?.Invoke(done.Count));
            done.Add(new StepOutcome(step.Role, loads is null ? run : run with { Loads = loads(run) }));
            Assert.True(done.Count < 200, "The trial does not end.");
        }

        return done;
    }
}
