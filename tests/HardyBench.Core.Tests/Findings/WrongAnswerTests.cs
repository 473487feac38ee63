using HardyBench.Core.Advice;
using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Statistics;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Tests.Trials;
using HardyBench.Core.Timelines;
using HardyBench.Core.Trials;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Findings;

/// <summary>Answers that were once given with a straight face and were wrong.</summary>
public sealed class WrongAnswerTests
{
    /// <summary>Two seconds are needed for a verdict; the second passage has one.</summary>
    [Fact]
    public void A_passage_too_short_for_a_verdict_makes_no_machine_unfit()
    {
        var plan = Scripted.Plan(2);
        plan = plan with
        {
            Timeline = plan.Timeline with { Passages = [plan.Timeline.Passages[0], plan.Timeline.Passages[1] with { FrameCount = 25 }] },
        };
        var findings = RunFindings.Of(Scripted.Run(new TrialStep(StepRole.Only, plan), _ => 1));

        Assert.True(findings[1].IsTooShort);
        Assert.True(new Candidate(plan.Machine, findings).Answers);
        Assert.Equal(plan.Machine.Id, Pick.From([new Candidate(plan.Machine, findings)]).Machine!.Id);
        Assert.False(new Candidate(plan.Machine, [findings[1]]).Answers);
    }

    [Fact]
    public void A_ramp_passes_over_what_is_too_short_to_be_judged()
    {
        var trial = Scripted.Trial(TrialKind.Ramp, 4);
        var passages = trial.Start.Timeline.Passages.Select((passage, i) => passage with { FrameCount = i == 1 ? 10 : passage.FrameCount });
        trial = trial with { Start = trial.Start with { Timeline = trial.Start.Timeline with { Passages = [.. passages] } } };

        var done = Scripted.Course(trial, (step, _) => step.Role.Passage < 3 ? 1 : 0.5);

        Assert.Equal(["passage 1", "passage 3", "passage 4"], done.Select(outcome => outcome.Role.Label));
        Assert.Contains("up to passage 3", Scripted.Kind(TrialKind.Ramp).Answer(trial.Start.Timeline, done).Words, StringComparison.Ordinal);
    }

    public static TheoryData<PlaybackSettings> NotBare =>
    [
        new PlaybackSettings(Threads: 2), new PlaybackSettings(LookAhead: 30), new PlaybackSettings(Cache: FileCache.Cold),
        new PlaybackSettings(DecodeOn: "vaapi"), new PlaybackSettings(EffectsOn: "opencl"), new PlaybackSettings(PreviewScale.Half),
        new PlaybackSettings(Policy: PlayingPolicy.KeepFrames),
        new PlaybackSettings(Proxies: Proxies.Half),
        new PlaybackSettings(PreRenders: true),
        new PlaybackSettings(AutomaticScale: true), new PlaybackSettings(Pictures: true),
    ];

    [Theory]
    [MemberData(nameof(NotBare))]
    public void Whatever_can_move_a_result_makes_a_run_not_bare(PlaybackSettings settings)
    {
        Assert.False(settings.IsBare);
        Assert.True(new PlaybackSettings().IsBare);
    }

    /// <summary>A machine that is idle but for the moments of its late frames has the headroom of the whole passage.</summary>
    [Fact]
    public void Headroom_is_over_the_passage_and_not_around_its_late_frames()
    {
        var run = Scripted.Run(new TrialStep(StepRole.Only, Scripted.Plan(1)), _ => 1);
        var frames = run.Frames.Select((frame, i) => i == 50 ? frame with { Status = FrameStatus.Late } : frame).ToList();
        var loads = Enumerable
            .Range(1, 40)
            .Select(n => new LoadReading(Samples.Ms(n * 100), LoadKind.Core, 0, n is >= 18 and <= 22 ? 1f : 0.1f))
            .ToList();
        run = run with
        {
            Frames = frames,
            Loads = loads,
            Header = run.Header with { Conditions = run.Header.Conditions with { UsableCores = [0] } },
        };

        var finding = Assert.Single(RunFindings.Of(run));

        Assert.Equal(Verdict.Holds, finding.Verdict);
        Assert.InRange(finding.Headroom!.Value, 1 / 0.25, 1 / 0.2);
    }

    /// <summary>A passage that is given up after a second idles for the rest of it. What limited it shows while frames were begun, and that
    /// is what is said: not that the processor was full before misses that nothing was tried for.</summary>
    [Fact]
    public void Of_a_passage_that_was_given_up_it_is_said_what_was_full_while_frames_were_begun()
    {
        var run = Scripted.Run(new TrialStep(StepRole.Only, Scripted.Plan(1)), _ => 1);
        var frames = run.Frames.Select((frame, i) => i < 20 ? frame with { Ready = frame.SlotStart }
            : frame with { Status = FrameStatus.Dropped, Reason = DropReason.DecodeSkipped, Shown = null, Ready = null }).ToList();
        var loads = Enumerable.Range(1, 40).SelectMany(n => (LoadReading[])
        [
            new(Samples.Ms(n * 100), LoadKind.Core, 0, n <= 8 ? 1 : 0), new(Samples.Ms(n * 100), LoadKind.OwnDecode, 0, n <= 8 ? 1 : 0),
            new(Samples.Ms(n * 100), LoadKind.OwnEffects, 0, 0),
        ]).ToList();
        run = run with
        {
            Frames = frames,
            Loads = loads,
            Header = run.Header with { Conditions = run.Header.Conditions with { UsableCores = [0] } },
        };

        var limiter = Assert.Single(RunFindings.Of(run)).Limiter!;

        Assert.Equal(Limiter.ProcessorDecode, limiter.Limiter);
        Assert.EndsWith("before every frame that was begun.", LimiterWords.Evidence(limiter), StringComparison.Ordinal);
    }

    /// <summary>The mean over a GOP of what single frames cost, counted out one by one.</summary>
    [Theory]
    [InlineData(1)]
    [InlineData(12)]
    [InlineData(50)]
    public void A_passage_weighs_the_mean_of_its_gop(int gop)
    {
        var format = Samples.HdAvc with { GopLength = gop };
        var clips = new Dictionary<string, Clip> { ["c"] = new("c", "c", format, 100, null) };
        var passage = new Passage("q", 100, [new Layer("c", [])], []);
        var timeline = new Timeline("t", "T", format.Raster, format.Rate, [passage]);
        var cost = DecodeCost.Of(format.Codec);
        var mean = Enumerable.Range(0, gop).Average(frame => cost.CoreSeconds(format, frame));

        Assert.Equal(mean * format.Rate.FramesPerSecond, PassageWeight.Of(passage, timeline, clips).DecodeCores, 9);
    }

    /// <summary>One picture stands for its whole slot, so at a low rate no slot is a freeze by itself.</summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(5)]
    [InlineData(10)]
    public void A_timeline_of_few_frames_a_second_can_hold(int rate)
    {
        var slot = TimeSpan.FromSeconds(1.0 / rate);
        var frames = Enumerable.Range(0, 10 * rate).Select(n => new FrameRecord(
            n, n * slot, n * slot, n * slot, FrameStatus.OnTime, DropReason.None, default, default, default, default, 2)).ToList();
        var dropped = frames
            .Select(
                (frame, n) =>
                    n == 5 * rate ? frame with { Shown = null, Status = FrameStatus.Dropped, Reason = DropReason.NotReady } : frame
            )
            .ToList();

        Assert.Equal(
            Verdict.Holds,
            VerdictLimits.Default.Of(DropAccounting.Count(frames, new FrameRate(rate), PlayingPolicy.KeepTime, TimeSpan.Zero))
        );
        Assert.NotEqual(
            Verdict.Holds,
            VerdictLimits.Default.Of(DropAccounting.Count(dropped, new FrameRate(rate), PlayingPolicy.KeepTime, TimeSpan.Zero))
        );
    }

    /// <summary>The worked example of Holm's procedure with four tests at 0.05 (0.01, 0.04, 0.03, 0.005): the two smallest are real, as in
    /// the encyclopaedic example of that name (from memory).</summary>
    [Fact]
    public void Of_many_comparisons_only_those_are_real_that_stand_the_correction()
    {
        Assert.Equal([0, 3], HolmCorrection.Rejected([0.01, 0.04, 0.03, 0.005], 0.05));
        Assert.Empty(HolmCorrection.Rejected([.. Enumerable.Repeat(0.04, 20)], 0.05));
        Assert.Equal([0], HolmCorrection.Rejected([0.05], 0.05));
    }

    /// <summary>Millisecond stamps of 60000/1001 are no 19001/317.</summary>
    [Theory]
    [InlineData(60000, 1001)]
    [InlineData(24000, 1001)]
    [InlineData(30000, 1001)]
    [InlineData(25, 1)]
    [InlineData(50, 1)]
    public void Rounded_time_stamps_give_their_exact_rate(int numerator, int denominator)
    {
        var rate = new FrameRate(numerator, denominator);
        long[] stamps = [.. Enumerable.Range(0, 120).Select(n => (long)Math.Round(n * 1000.0 / rate.FramesPerSecond))];
        long[] uneven = [.. stamps.Select((stamp, n) => n % 7 == 3 ? stamp + 9 : stamp)];

        Assert.Equal(rate, StandardRates.Of(stamps, (1, 1000), new FrameRate(19001, 317)));
        Assert.Null(StandardRates.Of(uneven, (1, 1000), rate));
    }

    [Fact]
    public void A_four_two_two_engine_takes_four_two_zero_too()
    {
        var engine = Samples.HdAvc with { Chroma = ChromaSubsampling.Half };

        Assert.True(engine.Chroma.Covers(ChromaSubsampling.Quarter));
        Assert.False(ChromaSubsampling.Quarter.Covers(ChromaSubsampling.Half));
    }

    public static TheoryData<string, PlaybackSettings> Impossible => new()
    {
        { "4000 threads", new PlaybackSettings(Threads: 4000) }, { "0 threads", new PlaybackSettings(Threads: 0) },
        { "look-ahead is 0", new PlaybackSettings(LookAhead: 0) },
        { "look-ahead is 100000000", new PlaybackSettings(LookAhead: 100_000_000) },
        { "letters and digits", new PlaybackSettings(DecodeOn: "vaapi;x") }, { "unknown value", new PlaybackSettings((PreviewScale)77) },
    };

    [Theory]
    [MemberData(nameof(Impossible))]
    public void Settings_that_cannot_be_played_are_refused_in_words(string words, PlaybackSettings settings)
    {
        Assert.Contains(words, Assert.Single(settings.Problems()), StringComparison.Ordinal);
        Assert.Throws<PlanRefusedException>(() => Samples.Plan(Samples.Machine(), Samples.HdAvc, settings).Checked());
    }

    /// <summary>On eight cores an effect that only one of them can do fills that one and leaves the others idle.</summary>
    [Fact]
    public async Task One_core_work_on_a_stand_in_shows_on_one_core_and_is_found()
    {
        var kind = Core.Timelines.Effects.EffectCatalogue.All.First(effect => effect.RunsOn == Core.Timelines.Effects.EffectPlace.OneCore);
        var plan = Samples.Plan(Samples.Machine(cores: 8), Samples.HdAvc);
        var heavy = Enumerable.Repeat(Core.Timelines.Effects.Effect.Of(kind.Id), 4).ToArray();
        plan = plan with
        {
            Timeline = plan.Timeline with { Passages = [plan.Timeline.Passages[0] with { Over = heavy, Question = "one core" }] },
        };

        var run = await new StandInPlayback(TimeProvider.System).PlayAsync(plan, new NoObserver(), CancellationToken.None);

        var finding = Assert.Single(RunFindings.Of(run));
        Assert.Equal(Limiter.SingleThread, finding.Limiter!.Limiter);
        var means = LoadMeans.Over(run.Loads, TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(3));
        Assert.True(means.Of(LoadKind.Core)!.Value > 0.95);
        Assert.True(means.Of(LoadKind.Core, 7)!.Value < 0.5);
    }
}
