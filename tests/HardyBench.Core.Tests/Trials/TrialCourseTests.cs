using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Trials;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Trials;

/// <summary>Which runs each kind of trial takes, and what it answers, with machines whose behaviour is given.</summary>
public sealed class TrialCourseTests
{
    public static TheoryData<int, int> Ramps
    {
        get
        {
            var data = new TheoryData<int, int>();
            foreach (var count in new[] { 2, 4, 5, 8, 13, 50 })
            {
                foreach (var holding in new[] { 0, 1, count / 2, count - 1, count })
                {
                    data.Add(count, holding);
                }
            }

            return data;
        }
    }

    [Theory]
    [MemberData(nameof(Ramps))]
    public void A_ramp_finds_where_it_breaks_a_long_one_by_bisection(int count, int holding)
    {
        var trial = Scripted.Trial(TrialKind.Ramp, count);

        var done = Scripted.Course(trial, (step, _) => step.Role.Passage < holding ? 1 : 0.5);

        Assert.Equal((holding - 1, holding), RampSearch.Bounds([.. Enumerable.Range(0, count)], RampSearch.Known(done)));
        Assert.All(done, outcome => Assert.Single(outcome.Header.Timeline.Passages));
        Assert.True(
            done.Count <= (count <= 4 ? count : (int)Math.Ceiling(Math.Log2(count + 1))),
            $"{done.Count} runs for {count} passages"
        );
        Assert.Equal(done.Count, done.Select(outcome => outcome.Role.Label).Distinct().Count());
    }

    [Fact]
    public void A_ramp_s_answer_names_the_last_passage_that_holds_and_the_first_that_does_not()
    {
        var trial = Scripted.Trial(TrialKind.Ramp, 8);
        var done = Scripted.Course(trial, (step, _) => step.Role.Passage < 5 ? 1 : 0.5);

        var answer = Scripted.Kind(TrialKind.Ramp).Answer(trial.Start.Timeline, done);

        Assert.Equal("It holds up to passage 5, “asked 5”, and no longer at passage 6, “asked 6”.", answer.Words);
    }

    /// <summary>Halving what is open, and stopping at the first that fails, is right only where each passage asks more than the one
    /// before.</summary>
    [Fact]
    public void A_ramp_that_does_not_rise_is_named_before_it_is_played_and_in_its_answer()
    {
        var flat = Scripted.Trial(TrialKind.Ramp, 3);
        Assert.Equal("This is no ramp: no passage has more load than the first.", Assert.Single(flat.Remarks()));

        Passage[] passages =
        [
            .. flat.Start.Timeline.Passages.Select(
                (passage, n) => passage with { Layers = [.. Enumerable.Repeat(passage.Layers[0], n + 1)] }
            ),
        ];
        var rising = flat with { Start = flat.Start with { Timeline = flat.Start.Timeline with { Passages = passages } } };
        Assert.Empty(rising.Remarks());
        Assert.Empty((rising with { Trial = new RepeatTrial() }).Remarks());

        var falling = rising with
        {
            Start = rising.Start with { Timeline = rising.Start.Timeline with { Passages = [passages[0], passages[2], passages[1]] } },
        };
        Assert.StartsWith(
            "This is no ramp: passage 3 has less load than passage 2 (decoding, effects, memory, drive)",
            Assert.Single(falling.Remarks()),
            StringComparison.Ordinal
        );
        var done = Scripted.Course(falling, (_, _) => 1);
        Assert.EndsWith(
            falling.Remarks()[0],
            Scripted.Kind(TrialKind.Ramp).Answer(falling.Start.Timeline, done, falling.Start.Clips).Words,
            StringComparison.Ordinal
        );
        Assert.DoesNotContain(
            "no ramp",
            Scripted.Kind(TrialKind.Ramp).Answer(rising.Start.Timeline, Scripted.Course(rising, (_, _) => 1), rising.Start.Clips).Words,
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData(1, 1, "Every passage holds from full scale on.")]
    [InlineData(2, 2, "Every passage holds from half scale on.")]
    [InlineData(8, 4, "Every passage holds from eighth scale on.")]
    [InlineData(16, 4, "No scale is small enough: at eighth scale 1 of 2 passages do not hold.")]
    public void Step_down_goes_on_until_every_passage_holds(int holdsFrom, int runs, string words)
    {
        var trial = Scripted.Trial(TrialKind.StepDown, 2);

        var done = Scripted.Course(trial, (step, passage) => passage == 0 || (int)step.Plan.Settings.Scale >= holdsFrom ? 1 : 0.6);

        Assert.Equal(runs, done.Count);
        Assert.Equal(words, Scripted.Kind(TrialKind.StepDown).Answer(trial.Start.Timeline, done).Words);
        Assert.Equal(done.Select((_, i) => (PreviewScale)(1 << i)), done.Select(outcome => outcome.Header.Settings.Scale));
    }

    [Fact]
    public void Step_down_says_where_no_scale_can_help()
    {
        var trial = Scripted.Trial(TrialKind.StepDown, 1) with { Start = Scripted.Plan(1, new PlaybackSettings(PreviewScale.Eighth)) };
        var loads = Enumerable
            .Range(1, 40)
            .SelectMany(n =>
                new[]
                {
                    (LoadKind.Core, 0.99f),
                    (LoadKind.OwnDecode, 0.9f),
                    (LoadKind.OwnEffects, 0.05f),
                    (LoadKind.OwnProcess, 0.97f),
                }.Select(load => new LoadReading(TimeSpan.FromMilliseconds(100 * n), load.Item1, 0, load.Item2))
            )
            .ToList();
        var played = Scripted.Run(trial.Next([], default)!, _ => 0.5);
        var run = played with
        {
            Loads = loads,
            Header = played.Header with { Conditions = played.Header.Conditions with { UsableCores = [0] } },
        };

        Assert.Equal(
            "No scale is small enough: at eighth scale 1 of 1 passages do not hold. Decoding is the limit, which no scale changes; "
                + "proxies would.",
            Scripted.Kind(TrialKind.StepDown).Answer(trial.Start.Timeline, [new StepOutcome(trial.Next([], default)!.Role, run)]).Words);
    }

    /// <summary>A machine that drops frames works as hard as it can at either rate.</summary>
    [Theory]
    [InlineData(
        1,
        1,
        "At half the rate the player's work falls from 1.00 to 0.50 cores, to 50 %, over all passages.",
        "1.00 to 0.50 cores, 50 %"
    )]
    [InlineData(
        0.5,
        1,
        "At half the rate the player's work falls from 1.00 to 0.50 cores, to 50 %, over the 1 of 2 passages that hold at both.",
        "no answer: frames are dropped"
    )]
    [InlineData(
        0.5,
        0.5,
        "No answer: no passage holds at both rates, and a machine that drops frames is fully loaded at either.",
        "no answer: frames are dropped"
    )]
    public void Half_rate_tells_only_where_no_frames_are_dropped(double firstShown, double secondShown, string words, string row)
    {
        var trial = Scripted.Trial(TrialKind.HalfRate, 2);
        var done = Scripted.Course(
            trial,
            (_, passage) => passage == 0 ? firstShown : secondShown,
            loads: run =>
                [
                    .. Enumerable
                        .Range(1, 150)
                        .Select(n => new LoadReading(
                            TimeSpan.FromMilliseconds(100 * n),
                            LoadKind.OwnDecode,
                            0,
                            run.Header.Timeline.Rate == Samples.Rate ? 1f : 0.5f
                        )),
                ]
        );

        var answer = Scripted.Kind(TrialKind.HalfRate).Answer(trial.Start.Timeline, done);

        Assert.Equal((words, row), (answer.Words, answer.Rows[0].Words));
    }

    /// <summary>A soak of hours has millions of frames; only what answers are drawn from stays.</summary>
    [Fact]
    public void What_is_kept_of_a_run_in_a_trial_holds_none_of_its_frames()
    {
        var (outcome, frames) = Kept();
        GC.Collect();

        Assert.False(frames.IsAlive);
        Assert.Equal(Scripted.Frames, outcome.Findings[0].Counts.Slots);

        [System.Runtime.CompilerServices.MethodImpl(System.Runtime.CompilerServices.MethodImplOptions.NoInlining)]
        static (StepOutcome, WeakReference) Kept()
        {
            var run = Scripted.Run(new TrialStep(StepRole.Only, Scripted.Plan(1)), _ => 0.5, 50);
            return (new StepOutcome(StepRole.Only, run), new WeakReference(run.Frames));
        }
    }

    /// <summary>Nothing is dropped in them, and nothing is held either.</summary>
    [Theory]
    [InlineData(TrialKind.StepDown)]
    [InlineData(TrialKind.HalfRate)]
    public void Of_passages_too_short_for_a_verdict_nothing_is_claimed(TrialKind kind)
    {
        var plan = Scripted.Plan(1);
        var trial = Scripted.Trial(kind, 1) with
        {
            Start = plan with { Timeline = plan.Timeline with { Passages = [plan.Timeline.Passages[0] with { FrameCount = 20 }] } },
        };

        var answer = Scripted.Kind(kind).Answer(trial.Start.Timeline, Scripted.Course(trial, (_, _) => 1));

        Assert.Equal(("No passage was played long enough for a verdict.", "too short for a verdict"), (answer.Words, answer.Rows[0].Words));
    }

    [Fact]
    public void Half_rate_weighs_passages_by_their_length()
    {
        var plan = Scripted.Plan(2);
        var trial = Scripted.Trial(TrialKind.HalfRate, 2) with
        {
            Start = plan with
            {
                Timeline = plan.Timeline with
                {
                    Passages = [plan.Timeline.Passages[0] with { FrameCount = 300 }, plan.Timeline.Passages[1]],
                },
            },
        };
        // The first passage, three times as long as the second, takes a core at either rate, the second three.
        var done = Scripted.Course(trial, (_, _) => 1, loads: run =>
            [
                .. run.Frames.Select(frame => new LoadReading(
                    frame.SlotStart + TimeSpan.FromMilliseconds(1),
                    LoadKind.OwnDecode,
                    0,
                    frame.Frame < 300 ? 1 : 3
                )),
            ]
        );

        Assert.StartsWith(
            "At half the rate the player's work falls from 1.50 to 1.50 cores, to 100 %",
            Scripted.Kind(TrialKind.HalfRate).Answer(trial.Start.Timeline, done).Words,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Step_down_begins_at_the_scale_that_is_set()
    {
        var trial = Scripted.Trial(TrialKind.StepDown, 1) with { Start = Scripted.Plan(1, new PlaybackSettings(PreviewScale.Quarter)) };

        Assert.Equal("quarter scale", trial.Next([], default)!.Role.Label);
    }

    [Fact]
    public void A_comparison_takes_its_sides_in_turns_so_that_drift_hits_both_alike()
    {
        var trial = Scripted.Trial(TrialKind.Compare, 1, times: 4, new PlaybackSettings(PreviewScale.Half));

        var done = Scripted.Course(trial, (_, _) => 1);

        Assert.Equal(
            "1221 1221".Replace(" ", "", StringComparison.Ordinal),
            string.Concat(done.Select(outcome => (int)outcome.Header.Settings.Scale))
        );
    }

    [Fact]
    public void Drift_alone_makes_no_difference_between_the_sides_of_a_comparison()
    {
        var (trial, run) = (Scripted.Trial(TrialKind.Compare, 1, times: 6, new PlaybackSettings(Threads: 1)), 0);

        // The machine loses two frames in a hundred from each run to the next, whatever the side.
        var done = Scripted.Course(trial, (_, _) => 1 - 0.02 * run++ / Scripted.Frames);
        var drifting = CompareTrial.PairsOf(done, 0)!;

        Assert.False(drifting.IsReal);
        Assert.Equal(0, drifting.Difference.Mean, 9);
    }

    [Fact]
    public void A_comparison_that_finds_a_difference_says_so_and_one_that_does_not_says_how_many_pairs_would()
    {
        var trial = Scripted.Trial(TrialKind.Compare, 2, times: 3, new PlaybackSettings(PreviewScale.Half));
        var (noise, place) = (new[] { 0.90, 0.93, 0.80, 0.88, 0.95, 0.84 }, 0);

        var done = Scripted.Course(trial, (step, passage) =>
            passage == 0 ? noise[place++ / Scripted.Frames % noise.Length] : step.Plan.Settings.Scale == PreviewScale.Half ? 1 : 0.5);
        var answer = Scripted.Kind(TrialKind.Compare).Answer(trial.Start.Timeline, done);

        Assert.Contains("within noise", answer.Rows[0].Words, StringComparison.Ordinal);
        Assert.Contains("+12.50", answer.Rows[1].Words, StringComparison.Ordinal);
        Assert.EndsWith("a real difference", answer.Rows[1].Words, StringComparison.Ordinal);
        Assert.Equal("In 3 pairs 1 of 2 passages differ by more than noise.", answer.Words);
    }

    [Fact]
    public void The_second_side_can_leave_an_effect_out()
    {
        var blur = EffectCatalogue.All[0].Id;
        var plan = Scripted.Plan(1);
        var passage = plan.Timeline.Passages[0] with { Layers = [new Layer("c", [new Effect(blur, new Dictionary<string, double>())])] };
        var trial = Scripted.Trial(TrialKind.Compare, 1, times: 1) with
        {
            Start = plan with { Timeline = plan.Timeline with { Passages = [passage] } }, Trial = new CompareTrial(1, WithoutEffect: blur),
        };

        var done = Scripted.Course(trial.Checked(), (_, _) => 1);

        Assert.Equal([1, 0], done.Select(outcome => outcome.Header.Timeline.Passages[0].Layers[0].Effects.Count));
    }

    [Fact]
    public void A_comparison_says_what_the_second_side_changes()
    {
        var (bare, half) = (new PlaybackSettings(), new PlaybackSettings(PreviewScale.Half, Threads: 2));

        Assert.Equal("half scale, 2 threads", ChangeWords.Of(bare, half, null));
        Assert.Equal("no longer half scale", ChangeWords.Of(half, half with { Scale = PreviewScale.Full }, null));
        Assert.Equal("without blur", ChangeWords.Of(half, null, "blur"));
        Assert.Null(ChangeWords.Of(half, null, null));
    }

    [Fact]
    public void Two_sides_that_never_differ_are_said_not_to()
    {
        var trial = Scripted.Trial(TrialKind.Compare, 1, other: new PlaybackSettings(Threads: 1));

        Assert.Equal(
            "no difference",
            Scripted.Kind(TrialKind.Compare).Answer(trial.Start.Timeline, Scripted.Course(trial, (_, _) => 1)).Rows[0].Words
        );
    }

    [Fact]
    public void A_soak_goes_on_until_heat_settles()
    {
        var done = Scripted.Course(Scripted.Trial(TrialKind.Soak, 1), (_, _) => 1, run => 90 - 40 * MathF.Exp(-run));

        // 50, 75.3, 84.6, 88.0, 89.3, 89.7: the last three lie within a degree only from 89.3 on.
        Assert.Equal(7, done.Count);
        Assert.Contains(
            "temperature stable at 90 °C",
            Scripted.Kind(TrialKind.Soak).Answer(Scripted.Timeline(1), done).Words,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_soak_without_a_temperature_runs_its_full_time_and_one_that_gets_worse_says_so()
    {
        var run = 0;

        var done = Scripted.Course(
            Scripted.Trial(TrialKind.Soak, 1),
            (_, _) => run++ < 3 * Scripted.Frames ? 1 : 0.5,
            null,
            TimeSpan.FromMinutes(2)
        );

        Assert.Equal(5, done.Count);
        Assert.Equal(
            "After 5 rounds its temperature cannot be read. Passage 1 does worse than in the first round.",
            Scripted.Kind(TrialKind.Soak).Answer(Scripted.Timeline(1), done).Words);
    }

    [Fact]
    public void Each_soak_round_begins_as_hot_as_the_one_before_ended()
    {
        var trial = Scripted.Trial(TrialKind.Soak, 1);
        var first = new StepOutcome(StepRole.Only, Scripted.Run(trial.Next([], default)!, _ => 1, 71));

        Assert.Equal(71, trial.Next([first], default)!.Plan.StartCelsius);
    }

    /// <summary>A stand-in plays eight seconds in far less, and ten minutes at most are ten minutes of playing.</summary>
    [Fact]
    public void A_soak_lasts_no_longer_than_asked_by_the_clock_of_its_runs()
    {
        var trial = Scripted.Trial(TrialKind.Soak, 2) with { Trial = new SoakTrial(1) };

        Assert.Equal(8, Scripted.Course(trial, (_, _) => 1, round => 40 + (5 * round)).Count);
    }

    [Fact]
    public void Half_rate_plays_every_slot_again_twice_as_long()
    {
        var done = Scripted.Course(Scripted.Trial(TrialKind.HalfRate, 2), (_, _) => 1);

        Assert.Equal([25, 12.5], done.Select(outcome => outcome.Header.Timeline.Rate.FramesPerSecond));
        Assert.Equal(done[0].Header.Timeline.FrameCount, done[1].Header.Timeline.FrameCount);
    }

    [Fact]
    public void A_repeat_of_three_answers_with_its_spread_and_names_verdicts_that_differ()
    {
        var (trial, run) = (Scripted.Trial(TrialKind.Repeat, 2), 0);

        var done = Scripted.Course(trial, (_, passage) => passage == 0 || run++ < Scripted.Frames ? 1 : 0.5);
        var answer = Scripted.Kind(TrialKind.Repeat).Answer(trial.Start.Timeline, done);

        Assert.Equal(["1 of 3", "2 of 3", "3 of 3"], done.Select(outcome => outcome.Role.Label));
        Assert.StartsWith("median 25.0, 25.00 ± 0.00 shown a second", answer.Rows[0].Words, StringComparison.Ordinal);
        Assert.Contains("verdicts differ", answer.Rows[1].Words, StringComparison.Ordinal);
        Assert.StartsWith("1 of 2 passages got different verdicts", answer.Words, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(TrialKind.Repeat)]
    [InlineData(TrialKind.Compare)]
    public void A_stand_in_s_repeats_vary_and_the_same_trial_gives_the_same_answer(TrialKind kind)
    {
        var (first, second) = (Seeds(), Seeds());

        Assert.Equal(first, second);
        Assert.Equal(first.Distinct(), first);

        List<int> Seeds()
        {
            var (trial, done, seeds) = (
                Scripted.Trial(kind, 1, other: new PlaybackSettings(Threads: 1)),
                new List<StepOutcome>(),
                new List<int>()
            );
            while (trial.Next(done, default) is { } step)
            {
                seeds.Add(step.Plan.Occasion);
                done.Add(new StepOutcome(step.Role, Scripted.Run(step, _ => 1)));
            }

            return seeds;
        }
    }

    [Theory]
    [InlineData(TrialKind.Repeat, 2, "A repeat takes 3 to 50 runs")]
    [InlineData(TrialKind.StartLag, 0, "Start lag takes 1 to 50 places")]
    [InlineData(TrialKind.Compare, 3, "Say what the second side changes")]
    [InlineData(TrialKind.Ramp, 1, "A ramp needs at least two passages")]
    public void What_makes_no_sense_is_refused_in_words(TrialKind kind, int times, string words)
    {
        var refusal = Assert.Throws<PlanRefusedException>(() => Scripted.Trial(kind, 1, times).Checked());

        Assert.StartsWith(words, refusal.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Scrub_and_start_lag_are_done_by_hand_in_one_run()
    {
        foreach (var kind in new[] { TrialKind.Scrub, TrialKind.StartLag })
        {
            var trial = Scripted.Trial(kind, 2);
            var step = trial.Next([], default)!;

            Assert.NotEmpty(step.Plan.Moves!);
            Assert.Null(trial.Next([new StepOutcome(step.Role, Scripted.Run(step, _ => 1))], default));
            Assert.Equal(kind == TrialKind.StartLag, step.Plan.Moves!.All(move => move.Kind == GestureKind.Start));
        }
    }

    /// <summary>An answer that can be read by itself names what was changed, and where as many frames are shown, the headroom.</summary>
    [Fact]
    public void A_comparison_names_its_change_and_a_change_of_headroom()
    {
        var trial = Scripted.Trial(TrialKind.Compare, 1, times: 3, new PlaybackSettings(Threads: 1));
        var done = Scripted.Course(
            trial, (_, _) => 1,
            loads: run => [.. Enumerable.Range(1, 40).Select(n => new LoadReading(
                Samples.Ms(100 * n), LoadKind.MediaEngineBusy, 0, run.Header.Settings.Threads is null ? 0.8f : 0.4f))]);

        var answer = Scripted.Kind(TrialKind.Compare).Answer(trial.Start.Timeline, done);

        Assert.Equal(
            "Changed: 1 threads. In 3 pairs no passage shows more or fewer frames than noise explains; headroom changes in 1, by ×2.00 on average.",
            TrialWords.Of(answer));
        Assert.Equal("as many frames; headroom 1.25× → 2.50×", answer.Rows[0].Words);
    }

    [Fact]
    public void A_soak_that_ends_while_it_still_gets_warmer_says_so()
    {
        var done = Scripted.Course(
            Scripted.Trial(TrialKind.Soak, 1) with { Trial = new SoakTrial(0.2) }, (_, _) => 1, run => 40 + 10 * run);

        var answer = Scripted.Kind(TrialKind.Soak).Answer(Scripted.Timeline(1), done);

        Assert.Contains("still rising, by 10.0 °C in the last round", answer.Words, StringComparison.Ordinal);
        Assert.Equal(done.Count, answer.EndCelsius.Count);
        Assert.Equal("Soak longer: the temperature is not stable yet.", answer.NextStep);
    }

    [Fact]
    public void Every_kind_names_the_next_step()
    {
        foreach (var kind in Enum.GetValues<TrialKind>())
        {
            foreach (var shown in new[] { 1, 0.5 })
            {
                var trial = Scripted.Trial(kind, 2, other: new PlaybackSettings(Threads: 1));
                var step = trial.Next([], TimeSpan.Zero)!;
                var answer = Scripted.Kind(kind).Answer(trial.Start.Timeline, [new StepOutcome(step.Role, Scripted.Run(step, _ => shown))]);
                Assert.EndsWith(".", answer.NextStep, StringComparison.Ordinal);
            }
        }
    }
}
