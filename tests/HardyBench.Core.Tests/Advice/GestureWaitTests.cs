using CsCheck;
using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Advice;

/// <summary>How long the hand waits, as a brief may ask for it.</summary>
public sealed class GestureWaitTests
{
    private static readonly Brief Any = new("b", "B", ["t"]);

    [Fact]
    public void The_longest_wait_is_that_of_going_to_every_frame() =>
        Gen.Select(ShortlistTests.AnyCatalogue(), Gen.Int[0, 100_000]).Sample((parts, work) =>
        {
            var plans = ShortlistTests.Work(work, Any);
            var forecaster = new Forecaster(plans);
            foreach (var build in new Core.Advice.Parts.Catalogue(parts).Builds().Take(3))
            {
                var (offer, machine) = (Offer.Of(build), build.ToMachine());
                Assert.Equal(OfEveryFrame(plans, machine), forecaster.Wait(machine).Start);
                Assert.Equal(forecaster.Wait(machine), forecaster.Wait(offer));
            }
        }, iter: 30);

    /// <summary>The mean over places is (G + 1) / 2 frames and the longest G: all-intra footage has one.</summary>
    [Fact]
    public void Long_GOP_footage_keeps_the_hand_waiting_for_a_whole_GOP()
    {
        var machine = Samples.Machine(cores: 16, speed: 2);
        var (one, gop) = (Wait(Samples.Plan(machine, Samples.HdAvc with { GopLength = 1 })), Wait(Samples.Plan(machine, Samples.HdAvc)));

        Assert.Equal(Samples.HdAvc.GopLength, gop / one, 1);

        static double Wait(PlaybackPlan plan) => new Forecaster([plan]).Wait(plan.Machine).Scrub.TotalSeconds;
    }

    [Fact]
    public void What_keeps_the_hand_waiting_is_mended_by_all_intra_copies()
    {
        var plan = Samples.Plan(Samples.Machine(cores: 16, speed: 2), Samples.HdAvc);
        var forecaster = new Forecaster([plan]);
        var wait = forecaster.Wait(plan.Machine);
        var brief = Any with { MostScrubSeconds = wait.Scrub.TotalSeconds / 3 };
        var check = new MachineCheck(
            plan.Machine, [.. RunFindings.Of(forecaster.Played(plan.Machine)[0]).Select(one => new CheckedPassage(0, one, null, null))],
            IsMeasured: false) { Wait = wait };
        var remedies = Remedies.For([plan], brief.Asked());

        Assert.True(check.Holds && check.Answers(Any));
        Assert.Equal(ExceededLimit.Scrub, check.Lacks(brief));
        Assert.Equal(ExceededLimit.Start, check.Lacks(Any with { MostStartSeconds = wait.Start.TotalSeconds * 0.99 }));
        Assert.Null(check.Lacks(brief with { MostScrubSeconds = wait.Scrub.TotalSeconds, MostStartSeconds = wait.Start.TotalSeconds }));
        Assert.Equal(ExceededLimit.WaitUnknown, (check with { Wait = null }).Lacks(brief));
        Assert.Contains("to show a frame while scrubbing, longer than the brief allows", AnswerWords.Of(check, brief), StringComparison.Ordinal);
        Assert.Contains(remedies, remedy => remedy is { Suffices: true, Kinds: [RemedyKind.Intermediates] });
        var scale = Assert.Single(remedies, remedy => remedy is { Kinds: [RemedyKind.HalfScale] });
        Assert.Equal((false, "every passage holds, but pictures appear later than the brief allows"), (scale.InTime, AnswerWords.Gain(scale)));
        Assert.Equal(
            AnswerKind.ChangeMethod,
            Answer.KindOf(brief with { MayUse = [RemedyKind.Intermediates] }, check, remedies, null, Shortlist.For(brief, [], forecaster)));
    }

    [Fact]
    public void An_offer_that_keeps_the_hand_waiting_is_counted_and_never_comes_nearest()
    {
        var plan = Samples.Plan(Samples.Machine("fit", cores: 16, speed: 2, price: 900), Samples.HdAvc);
        var shortlist = Shortlist.For(Any with { MostScrubSeconds = 0.001 }, [Offer.Of(plan.Machine)!], new Forecaster([plan]));

        Assert.Equal((0, 1, null), (shortlist.Steps.Count, shortlist.Counts.Late, shortlist.Nearest));
        Assert.Contains("1 take longer to show a picture than the brief allows", AnswerWords.Of(shortlist.Counts), StringComparison.Ordinal);
        Assert.Equal(
            "Every machine and build within its limits of form and noise takes longer to show a picture than the brief allows.",
            AnswerWords.Reason(new Answer(Any, AnswerKind.Nothing, null, [], [], Ladder.None, shortlist, null)));
    }

    /// <summary>What beginning takes besides.</summary>
    internal static readonly TimeSpan OpeningOf = GestureModel.WaitOf(TimeSpan.Zero).Start;

    /// <summary>By the model of the hand, which starts at every frame of a passage that gets a verdict, without spread.</summary>
    internal static TimeSpan OfEveryFrame(IReadOnlyList<PlaybackPlan> plans, Machine machine) => plans.SelectMany(of =>
    {
        var plan = of with { Machine = machine, Settings = of.Settings.Effective() };
        var demands = plan.Timeline.Passages.Select((_, index) => CostModel.DemandOf(plan, plan.Played(index))).ToList();
        var judged = plan.Timeline.Passages.Index()
            .Where(one => VerdictLimits.Default.Judges(one.Item.FrameCount, plan.Timeline.Rate))
            .Select(one => new Gesture(
                GestureKind.Start, "start",
                [.. Enumerable.Range(0, one.Item.FrameCount).Select(frame => plan.Timeline.StartOf(one.Index) + frame)], TimeSpan.Zero));
        return new GestureModel(plan, demands, new ServiceSpread(0, 0, 0, TimeSpan.Zero)).Carry([.. judged]).Select(lag => lag.Lag!.Value);
    }).Max();
}
