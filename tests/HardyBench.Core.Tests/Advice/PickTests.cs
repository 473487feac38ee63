using CsCheck;
using HardyBench.Core.Advice;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials;
using HardyBench.Core.StandIns;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Advice;

public sealed class PickTests
{
    [Fact]
    public async Task The_pick_is_the_cheapest_machine_on_which_every_passage_holds()
    {
        var pick = Pick.From([await Play("dear", 16, 3000), await Play("weak", 1, 500), await Play("right", 16, 1500)]);

        Assert.Equal("right", pick.Machine!.Id);
        Assert.Equal(["weak", "dear"], pick.Others.Select(other => other.Machine.Id));
        Assert.Matches("^Passage 1 breaks. Processor (9[0-9]|100) % busy", AdviceWords.WhyNot(pick.Others[0]));
        Assert.Equal(0, pick.Others[0].FirstFailure!.Index);
        Assert.Contains("costs 1,500 EUR more", AdviceWords.WhyNot(pick.Others[1]), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_machine_at_hand_that_holds_everything_costs_nothing()
    {
        var pick = Pick.From([await Play("bought", 16, 100), await Play("at hand", 16, null)]);

        Assert.Equal("at hand", pick.Machine!.Id);
    }

    public static TheoryData<string, Func<Run, Run>> Spoiling => new()
    {
        { "other programs were busy. Close them and play again.", run => Under(run, conditions => conditions with { OtherLoad = 0.9 }) },
        {
            "passage 1 could not be played. Create or relink its clips, then play again.",
            run => run with { Failures = [new PassageFailure(0, "gone")] }
        },
        {
            "it ran from the battery. Plug it in and play again.",
            run =>
                Under(run, conditions => conditions with { Machine = new MachineState(null, false, null, null, null, null, null, 2) })
        },
        {
            "it could use 1 of its 16 cores. Let it use all of them and play again.",
            run =>
                Under(
                    run with
                    {
                        Header = run.Header with { Machine = run.Header.Machine with { Kind = MachineKind.Real } },
                    },
                    conditions => conditions with { UsableCores = [0] }
                )
        },
    };

    [Theory]
    [MemberData(nameof(Spoiling))]
    public async Task Nobody_is_advised_by_a_run_that_something_disturbed(string words, Func<Run, Run> spoil)
    {
        var (cheap, dear) = (Samples.Machine("cheap", cores: 16, price: 100), await Play("dear", 16, 3000));
        var run = await RunOn(cheap);
        Assert.Equal("cheap", Pick.From([Candidate.Of(cheap, run), dear]).Machine!.Id);

        var disturbance = Candidate.Of(cheap, spoil(run));
        var pick = Pick.From([disturbance, dear]);

        Assert.Equal("dear", pick.Machine!.Id);
        Assert.Equal($"Its run does not count: {words}", AdviceWords.WhyNot(Assert.Single(pick.Others)));
        Assert.Equal(
            "No machine holds every passage in a run that counts; some runs do not count, and have to be played again.",
            AdviceWords.ReasonFor(Pick.From([disturbance]))
        );
    }

    /// <summary>However many runs do not count, the pick is what it would be if nobody had played them.</summary>
    [Fact]
    public void No_run_that_does_not_count_moves_the_pick()
    {
        var (spoilers, moved) = (Spoiling.Select(row => row.Data.Item2).ToList(), 0);
        Gen.Int[0, 1_000_000].Sample(
            seed =>
            {
                var random = new Random(seed);
                var (all, counting, clean) = (new List<Candidate>(), new List<Candidate>(), new List<Candidate>());
                for (var n = 0; n < 4; n++)
                {
                    var machine = Samples.Machine($"m{n}", cores: 2 + random.Next(15), price: 100 + n + (10 * random.Next(100)));
                    var run = RunOn(machine).Result;
                    clean.Add(Candidate.Of(machine, run));
                    if (random.Next(2) == 0)
                    {
                        all.Add(clean[^1]);
                        counting.Add(clean[^1]);
                        continue;
                    }

                    all.Add(Candidate.Of(machine, spoilers[random.Next(spoilers.Count)](run)));
                    Assert.NotNull(all[^1].Disturbance);
                }

                var pick = Pick.From(all).Machine?.Id;
                Assert.Equal(Pick.From(counting).Machine?.Id, pick);
                Interlocked.Add(ref moved, pick == Pick.From(clean).Machine?.Id ? 0 : 1);
            },
            iter: 300);

        Assert.True(moved > 30, $"only {moved} of 300 picks would have been others");
    }

    /// <summary>A file of a gigabyte on a machine of 32 lies in the cache the next time; one of 30 never does.</summary>
    [Theory]
    [InlineData(0.1, 1e9, FileCache.AsFound, true)]
    [InlineData(0.9, 1e9, FileCache.AsFound, false)]
    [InlineData(0.1, 30e9, FileCache.AsFound, false)]
    [InlineData(0.1, 1e9, FileCache.Cold, false)]
    public async Task A_machine_that_fails_on_footage_found_cold_is_played_again_first(
        double cached,
        double bytes,
        FileCache cache,
        bool isSpoilt
    )
    {
        var machine = Samples.Machine("cold", cores: 1, price: 100);
        Run Cold(Run run) =>
            Under(
                run with
                {
                    Header = run.Header with { Settings = run.Header.Settings with { Cache = cache } },
                },
                conditions =>
                    conditions with
        {
            Footage = new Dictionary<string, FootageState> { ["c"] = new("sda", "rotating", cached, "processor", null, (long)bytes) },
        });

        var failing = Candidate.Of(machine, Cold(await RunOn(machine)));
        Assert.Equal(
            isSpoilt ? "the footage of passage 1 had to come from the drive first" : null,
            failing.Disturbance is { } disturbance ? AdviceWords.By(disturbance) : null
        );

        var strong = Samples.Machine("strong", cores: 16, price: 100);
        Assert.True(Candidate.Of(strong, Cold(await RunOn(strong))).Answers);
    }

    [Theory]
    [InlineData(1.19, true)]
    [InlineData(1.21, false)]
    public async Task Little_headroom_is_said_to_be_a_close_call(double headroom, bool isClose)
    {
        var right = await Play("right", 16, 1500);
        var close = right with { Findings = [.. right.Findings!.Select(finding => finding with { Headroom = headroom })] };

        Assert.Equal(isClose, AdviceWords.ReasonFor(Pick.From([close])).Contains("close call", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_machine_that_has_not_played_is_never_picked()
    {
        var unplayed = new Candidate(Samples.Machine("unplayed", price: 1), null);

        Assert.Equal("right", Pick.From([unplayed, await Play("right", 16, 900)]).Machine!.Id);
        Assert.Null(Pick.From([unplayed]).Machine);
        Assert.Equal("No machine has played this timeline yet.", AdviceWords.ReasonFor(Pick.From([unplayed])));
    }

    [Fact]
    public async Task The_next_step_after_a_run_follows_what_it_found()
    {
        var run = await RunOn(Samples.Machine(cores: 16));
        Assert.Equal(NextAct.SeeAdvice, After(run));
        Assert.Equal(NextAct.PlayAgain, After(run with { Ending = RunEnding.CutShort }));
        Assert.Equal(NextAct.CreateClips, After(run with { Failures = [new PassageFailure(0, "gone")] }));

        var busy = Under(run, conditions => conditions with { OtherLoad = 1 });
        Assert.Equal(NextAct.PlayAgain, After(busy));
        Assert.Equal("It does not count: other programs were busy. Close them and play again.", AdviceWords.Of(Next(busy)));

        static NextAct After(Run run) => Next(run).Act;

        static NextStep Next(Run run) => NextStep.After(
            run.Ending, run.Header.Settings.Scale, RunSummary.Of(run).Passages, AdviceWords.NotCounting(run, RunFindings.Of(run)));
    }

    [Fact]
    public async Task A_passage_that_could_not_be_played_has_no_verdict_and_names_the_clip()
    {
        var run = (await RunOn(Samples.Machine(cores: 16))) with { Failures = [new PassageFailure(0, "Opening dance.mp4 failed.")] };
        var finding = Assert.Single(RunFindings.Of(run));

        Assert.Equal((null, Limiter.Clip, false), (finding.Verdict, finding.Limiter!.Limiter, finding.IsTooShort));
        Assert.False(new StepOutcome(StepRole.Only, run).Holds);
        Assert.False(Candidate.Of(run.Header.Machine, run).Answers);
    }

    private static async Task<Candidate> Play(string id, int cores, decimal? price)
    {
        var machine = Samples.Machine(id, cores: cores, price: price);
        return Candidate.Of(machine, await RunOn(machine));
    }

    private static Run Under(Run run, Func<Conditions, Conditions> change) =>
        run with
        {
            Header = run.Header with { Conditions = change(run.Header.Conditions) },
        };

    private static Task<Run> RunOn(Machine machine) => new StandInPlayback(TimeProvider.System)
        .PlayAsync(Samples.Plan(machine, Samples.UhdHevc422), new NoObserver(), CancellationToken.None);
}
