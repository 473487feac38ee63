using HardyBench.Core.Pacing;
using HardyBench.Core.StandIns;
using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Tests.Trials;
using HardyBench.Core.Trials;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Findings;

/// <summary>A run tells what stands between its figures and the machine.</summary>
public sealed class RunNotesTests
{
    private static readonly MachineState Quiet = new("performance", true, null, 1, 45, 8e9, 50e9, 4);
    private static readonly Conditions Fine = new("p", null, [0, 1], 0.05, true, null, Quiet);

    public static TheoryData<string, Conditions> Unfavourable => new()
    {
        { "1.5 cores were busy with other work", Fine with { OtherLoad = 1.5 } },
        { "the display thread had no priority", Fine with { PresenterPriority = false } },
        { "only 400 MB of memory was free", Fine with { Machine = Quiet with { FreeMemoryBytes = 4e8 } } },
        { "only 90 MB were free on the drive that keeps the run", Fine with { Machine = Quiet with { FreeDataBytes = 9e7 } } },
        { "it ran from the battery", Fine with { Machine = Quiet with { OnMains = false, BatteryShare = 0.8 } } },
        { "the battery was at 10 %", Fine with { Machine = Quiet with { OnMains = false, BatteryShare = 0.1 } } },
        { "the clock governor saves power", Fine with { Machine = Quiet with { Governor = "powersave" } } },
        {
            "c was decoded on the processor: no such device",
            Fine with
            {
                Footage = new Dictionary<string, FootageState> { ["c"] = new(null, null, null, "processor", "no such device") },
            }
        },
        {
            "c was 10 % in the file cache, so playback waited for the drive at first",
            Fine with
            {
                Footage = new Dictionary<string, FootageState> { ["c"] = new(null, null, 0.1, "processor", null) },
            }
        },
    };

    [Theory]
    [MemberData(nameof(Unfavourable))]
    public void What_was_unfavourable_before_the_first_frame_is_said_first(string note, Conditions conditions)
    {
        Assert.Contains(note, RunWords.NotesOf(conditions));
        Assert.Contains(note, RunWords.NotesOf(Played(conditions)));
    }

    [Fact]
    public void A_quiet_machine_and_a_bare_run_need_no_note() => Assert.Empty(RunWords.NotesOf(Played(Fine)));

    /// <summary>An idle processor lowers its clock, and with these drivers "powersave" is how it is let to.</summary>
    [Theory]
    [InlineData("intel_pstate")]
    [InlineData("amd-pstate-epp")]
    public void A_healthy_machine_at_rest_needs_no_note(string driver) =>
        Assert.Empty(
            RunWords.NotesOf(Played(Fine with { Machine = Quiet with { ClockShare = 0.3, Governor = "powersave", ClockDriver = driver } }))
        );

    [Theory]
    [InlineData(0.95f, true)]
    [InlineData(0.3f, false)]
    public void A_clock_that_fell_is_told_where_the_processor_was_busy(float busy, bool told)
    {
        var run = Played(Fine) with
        {
            Loads =
            [
                .. Enumerable.Range(1, 10).SelectMany(tenth => new LoadReading[]
                {
                    new(Samples.Ms(tenth * 100), LoadKind.Core, 0, busy), new(Samples.Ms(tenth * 100), LoadKind.Core, 1, busy),
                    new(Samples.Ms(tenth * 100), LoadKind.Clock, 0, 1.2e9f), new(Samples.Ms(tenth * 100), LoadKind.RatedClock, 0, 2.4e9f),
                }),
            ],
        };

        Assert.Equal(told ? ["the clock fell to 50 % of its rating while the processor was busy"] : [], RunWords.NotesOf(run));
    }

    [Fact]
    public void A_run_in_which_the_presenter_was_late_says_that_it_measured_itself()
    {
        var run = Played(Fine);
        var late = run with { Frames = [.. run.Frames.Select(frame => frame with { Shown = frame.Shown + Samples.Ms(8) })] };

        Assert.Contains(
            RunWords.NotesOf(late),
            note => note.Contains("8.0 ms late at the 99th percentile, so part of what this run measured is the tool itself", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void Drops_of_the_player_s_own_and_its_own_load_are_named()
    {
        var run = Played(Fine);
        var own = run with
        {
            Frames =
            [
                .. run.Frames.Take(9),
                run.Frames[9] with
                {
                    Status = FrameStatus.Dropped,
                    Shown = null,
                    Reason = DropReason.PresenterLate,
                },
            ],
            Loads = [new LoadReading(Samples.Ms(100), LoadKind.OwnTool, 0, 0.3f)],
        };

        Assert.Equal(["1 missed slot was caused by the player, which showed frames late", "the tool itself took 0.30 cores"], RunWords.NotesOf(own));
    }

    [Theory]
    [InlineData(RunEnding.Stopped, "stopped early")]
    [InlineData(RunEnding.CutShort, "interrupted; saved up to its last second")]
    public void An_early_end_is_said(RunEnding ending, string note) =>
        Assert.Contains(note, RunWords.NotesOf(Played(Fine) with { Ending = ending }));

    private static Run Played(Conditions conditions)
    {
        var run = Scripted.Run(new TrialStep(StepRole.Only, Scripted.Plan(1)), _ => 1);
        return run with { Header = run.Header with { Conditions = conditions } };
    }

    /// <summary>What a stand-in makes of a clip that is not made changes when it is: that is told, not left to be noticed.</summary>
    [Fact]
    public void A_stand_ins_run_on_clips_that_are_not_made_is_provisional()
    {
        var plan = Samples.Plan(Samples.Machine(), Samples.HdAvc);
        var made = plan with { Clips = plan.Clips.ToDictionary(clip => clip.Key, clip => clip.Value with { Sha256 = "abc" }) };

        Assert.Contains(NotesOf(plan), note => note.StartsWith("provisional: c is not created yet", StringComparison.Ordinal));
        Assert.DoesNotContain(NotesOf(made), note => note.StartsWith("provisional", StringComparison.Ordinal));

        static IReadOnlyList<string> NotesOf(PlaybackPlan plan) =>
            RunWords.NotesOf(new StandInPlayback(TimeProvider.System).PlayAsync(plan, new NoObserver(), CancellationToken.None).Result);
    }
}
