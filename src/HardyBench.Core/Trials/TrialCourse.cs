using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Hand;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Trials;

/// <summary>Says which run a trial takes next, from those that it has had. It plays nothing itself.</summary>
public static class TrialCourse
{
    private static readonly PreviewScale[] Scales = [PreviewScale.Full, PreviewScale.Half, PreviewScale.Quarter, PreviewScale.Eighth];

    /// <param name="done">The runs so far, in order.</param>
    /// <param name="elapsed">Time since the trial began.</param>
    /// <returns>The next run, or null when the question is answered.</returns>
    public static TrialStep? Next(TrialPlan trial, IReadOnlyList<StepOutcome> done, TimeSpan elapsed)
    {
        var start = trial.Start with { Occasion = done.Count + 1 };
        return trial.Kind switch
        {
            TrialKind.Play => Once(start),
            TrialKind.Scrub => Once(start with { Hand = HandScripts.Scrub(start.Timeline) }),
            TrialKind.StartLag => Once(start with { Hand = HandScripts.Starts(start.Timeline, trial.Times) }),
            TrialKind.Repeat => done.Count < trial.Times ? new TrialStep($"{done.Count + 1} of {trial.Times}", start) : null,
            TrialKind.StepDown => StepDown(start, done),
            TrialKind.Ramp => RampSearch.Next(RampSearch.Judged(start.Timeline), RampSearch.Known(done)) is { } index
                ? new TrialStep(RampSearch.LabelOf(index), start with { Timeline = start.Timeline.Only(index) })
                : null,
            TrialKind.HalfRate => done.Count switch
            {
                0 => new TrialStep($"{start.Timeline.Rate} a second", start),
                1 => Half(start),
                _ => null,
            },
            TrialKind.Soak => Soak(trial, start, done, elapsed),
            _ => Compare(trial, start, done),
        };

        TrialStep? Once(PlaybackPlan plan) => done.Count == 0 ? new TrialStep("1 of 1", plan) : null;
    }

    /// <summary>How many runs it takes, or null where that depends on how they go.</summary>
    public static int? StepCount(TrialPlan trial) => trial.Kind switch
    {
        TrialKind.Play or TrialKind.Scrub or TrialKind.StartLag => 1,
        TrialKind.Repeat => trial.Times,
        TrialKind.HalfRate => 2,
        TrialKind.Compare => trial.Times * 2,
        _ => null,
    };

    /// <summary>The running time of its timelines, or null where it depends on how they go.</summary>
    public static TimeSpan? Length(TrialPlan trial)
    {
        var once = trial.Start.Timeline.Rate.StartOf(trial.Start.Timeline.FrameCount);
        return trial.Kind switch
        {
            TrialKind.Play or TrialKind.Repeat or TrialKind.Compare => once * StepCount(trial)!.Value,
            TrialKind.HalfRate => once * 3,
            TrialKind.Soak => trial.AtMost,
            _ => null,
        };
    }

    private static TrialStep? StepDown(PlaybackPlan start, IReadOnlyList<StepOutcome> done)
    {
        var first = Array.IndexOf(Scales, start.Settings.Scale);
        var next = first + done.Count;
        return next < Scales.Length && (done.Count == 0 || !done[^1].Holds)
            ? new TrialStep($"{Scales[next].ToString().ToLowerInvariant()} scale", start with { Settings = start.Settings with { Scale = Scales[next] } })
            : null;
    }

    private static TrialStep Half(PlaybackPlan start)
    {
        var timeline = start.Timeline.AtHalfRate();
        return new TrialStep($"{timeline.Rate} a second", start with { Timeline = timeline });
    }

    private static TrialStep? Soak(TrialPlan trial, PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed) =>
        done.Count > 0 && (elapsed >= trial.AtMost || Played(done) >= trial.AtMost || SoakHeat.IsSettled(done))
            ? null
            : new TrialStep(
                $"round {done.Count + 1}", start with { StartCelsius = done.Count > 0 ? SoakHeat.EndTemperature(done[^1]) : null });

    /// <summary>How long the runs lasted by their own clocks: a stand-in's runs faster than the time of day.</summary>
    private static TimeSpan Played(IReadOnlyList<StepOutcome> done) => done.Select(outcome => outcome.Run).Where(run => run.Frames.Count > 0)
        .Aggregate(TimeSpan.Zero, (sum, run) => sum + run.Frames[^1].SlotStart + run.Header.Timeline.Rate.FrameDuration);

    /// <summary>In the order first, second, second, first, and so on, so that what drifts hits both sides alike.</summary>
    private static TrialStep? Compare(TrialPlan trial, PlaybackPlan start, IReadOnlyList<StepOutcome> done)
    {
        if (done.Count >= trial.Times * 2)
        {
            return null;
        }

        var (pair, place) = (done.Count / 2, done.Count % 2);
        var second = (pair + place) % 2 == 1;
        var plan = !second
            ? start
            : start with
            {
                Settings = trial.Other ?? start.Settings,
                Timeline = trial.WithoutEffect is { } effect ? start.Timeline.Without(effect) : start.Timeline,
            };
        return new TrialStep($"{(second ? SecondSide : FirstSide)} {pair + 1}", plan);
    }

    internal const string FirstSide = "as set,", SecondSide = "changed,";
}
