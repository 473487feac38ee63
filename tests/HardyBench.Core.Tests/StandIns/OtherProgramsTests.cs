using HardyBench.Core.Advice;
using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.StandIns;

/// <summary>Programs that work beside the player on a stand-in.</summary>
public sealed class OtherProgramsTests
{
    /// <summary>Equal turns: of n threads on c cores each gets c/n of one, and all of it while there are no more than cores.</summary>
    [Theory]
    [InlineData(4, 4, 4, 2.0)]
    [InlineData(4, 2, 4, 1.5)]
    [InlineData(1, 3, 4, 1.0)]
    [InlineData(1, 4, 4, 1.25)]
    [InlineData(2, 2, 4, 1.0)]
    public void Threads_get_the_cores_in_equal_turns(double wanted, double others, int cores, double longer) =>
        Assert.Equal(longer, new OtherPrograms(others, 0).Slowing(wanted, cores), 9);

    [Fact]
    public void With_as_many_busy_threads_as_cores_decoding_takes_twice_as_long_and_one_core_work_a_quarter_more()
    {
        var effect = Effect.Of("noise-reduction");
        var (alone, beside) = (Demand(null, effect), Demand(new OtherPrograms(4, 0), effect));

        Assert.Equal(2, beside.DemandSeconds(Station.Processor) / alone.DemandSeconds(Station.Processor), 4);
        Assert.Equal(alone.DemandSeconds(Station.Drive), beside.DemandSeconds(Station.Drive));
    }

    [Fact]
    public void Memory_that_they_hold_is_not_there_for_frames()
    {
        var small = Samples.Machine(memory: new Memory(8, 2, 2, 3200));
        Assert.Equal(0, Demand(null, small).SwapBytesPerFrame);
        Assert.Equal(0, Demand(new OtherPrograms(4, 0), small).SwapBytesPerFrame);
        Assert.True(Demand(new OtherPrograms(0, 5.9), small).SwapBytesPerFrame > 0);

        var slow = new Drive(Drive.AllRoles, "SATA", 200, 200, 0.1);
        var run = Play(small with { Drives = [slow] }, new OtherPrograms(0, 6));
        Assert.Equal(Limiter.Memory, Assert.Single(RunFindings.Of(run)).Limiter!.Limiter);
    }

    [Fact]
    public void What_they_take_is_read_off_the_cores_and_they_are_named_as_the_limit()
    {
        var run = Play(Samples.Machine(cores: 4), new OtherPrograms(4, 0));
        Assert.Equal(Limiter.OtherPrograms, Assert.Single(RunFindings.Of(run)).Limiter!.Limiter);

        // Utilisation law: with one more always there the cores are full, and the player's part is half of them while it works.
        Assert.All(run.Loads.Where(load => load.Kind == LoadKind.Core), load => Assert.Equal(1, load.Value, 3));
        Assert.InRange(run.Loads.Where(load => load.Kind == LoadKind.OwnProcess).Max(load => load.Value), 1.9, 2.001);

        Assert.All(
            Play(Samples.Machine(cores: 8), new OtherPrograms(2, 0)).Loads.Where(load => load.Kind == LoadKind.Core),
            load => Assert.InRange(load.Value, 0.249, 1));
    }

    /// <summary>More work shows no more frames.</summary>
    [Fact]
    public void The_more_of_them_the_fewer_frames_are_shown()
    {
        var shown = new double[] { 0, 1, 2, 4, 8, 16 }
            .Select(cores => Play(Samples.Machine(cores: 4), cores == 0 ? null : new OtherPrograms(cores, 0)))
            .Select(run => run.Frames.Count(frame => frame.Shown is not null)).ToList();

        Assert.Equal(shown.OrderDescending(), shown);
        Assert.True(shown[^1] < shown[0] / 2);
    }

    [Fact]
    public void They_heat_the_machine_too()
    {
        var cooling = new Cooling(true, 1, 5, 25, 90, 5, 40);
        var machine = Samples.Machine(cores: 8) with { Cooling = cooling };
        double Hottest(OtherPrograms? others) => Play(machine, others, Samples.HdAvc).Loads
            .Where(load => load.Kind == LoadKind.Temperature).Max(load => load.Value);

        Assert.True(Hottest(new OtherPrograms(6, 0)) > Hottest(null) + 5);
    }

    [Fact]
    public void They_are_a_condition_of_a_run_that_is_named_beside_it_and_keeps_it_from_advising()
    {
        var (alone, beside) = (Play(Samples.Machine(), null), Play(Samples.Machine(), new OtherPrograms(2, 6)));

        Assert.False(beside.Header.Settings.IsBare);
        Assert.Equal(["beside other programs: 2 cores busy, 6 GB held"], beside.Header.Settings.Differences());
        Assert.Equal(
            [Condition.OtherLoad, Condition.MemoryInUse],
            LikeForLike.Differences(alone.Header, "digest", beside.Header, "digest").Select(one => one.What));
        Assert.IsType<OthersBusy>(Disturbance.Of(beside, RunFindings.Of(beside)));
    }

    [Fact]
    public void On_this_machine_only_what_really_runs_is_there()
    {
        var plan = Samples.Plan(
            Samples.Machine() with { Kind = MachineKind.Real }, Samples.HdAvc,
            new PlaybackSettings { Others = new OtherPrograms(1, 0) });

        Assert.Contains("Start them", Assert.Throws<PlanRefusedException>(() => plan.Checked()).Message);
    }

    [Theory]
    [InlineData(-1, 0)]
    [InlineData(0, -1)]
    [InlineData(double.NaN, 0)]
    [InlineData(0, double.PositiveInfinity)]
    [InlineData(257, 0)]
    [InlineData(0, 0)]
    public void Impossible_ones_are_refused_with_one_reason(double cores, double gigabytes) =>
        Assert.Single(new PlaybackSettings { Others = new OtherPrograms(cores, gigabytes) }.Problems());

    private static PassageDemand Demand(OtherPrograms? others, params Effect[] effects) =>
        Demand(others, Samples.Machine(cores: 4), effects);

    private static PassageDemand Demand(OtherPrograms? others, Machine machine, params Effect[] effects)
    {
        var plan = Samples.Plan(machine, Samples.UhdIntermediate, new PlaybackSettings { Others = others }, effects: effects);
        return CostModel.DemandOf(plan, plan.Timeline.Passages[0]);
    }

    private static Run Play(Machine machine, OtherPrograms? others, ClipFormat? format = null)
    {
        var plan = Samples.Plan(machine, format ?? Samples.UhdIntermediate, new PlaybackSettings { Others = others });
        return new StandInPlayback(TimeProvider.System).PlayAsync(plan, new NoObserver(), CancellationToken.None).Result;
    }
}
