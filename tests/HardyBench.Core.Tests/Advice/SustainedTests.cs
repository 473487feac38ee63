using CsCheck;
using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Tests.Advice;

/// <summary>Advice goes by what a machine keeps up through a working session, not by what it does while it is cool.</summary>
public sealed class SustainedTests
{
    private static readonly WorkingDay Short = new(TimeSpan.FromMinutes(10));
    private static readonly Brief Work = new("b", "B", ["t"]) { Builds = false };
    private static readonly Effect[] Graded = [Effect.Of("primary-grade"), Effect.Of("blur")];

    /// <summary>The same processor with and without a fan: only the one that carries its heat away is offered, though the other plays the
    /// timeline while it is cool.</summary>
    [Fact]
    public void A_machine_that_holds_only_while_it_is_cool_is_not_offered()
    {
        var fanless = Samples.Machine("fanless", cores: 6, price: 600) with { Cooling = new Cooling(true, 3, 150, 24, 90, 6, 60) };
        var cooled = Samples.Machine("cooled", cores: 6, price: 900) with { Cooling = new Cooling(false, 0.8, 150, 24, 90, 6, 60) };
        var plan = PlanOn(fanless);
        var cold = new Forecaster([plan], new WorkingDay(TimeSpan.Zero));
        var (day, offers) = (new Forecaster([plan]), new[] { Offer.Of(fanless)!, Offer.Of(cooled)! });

        Assert.True(cold.Holds(fanless) && cold.Weakest(fanless)!.Headroom > 1.2);
        Assert.False(day.Holds(fanless));
        Assert.Equal(Station.Heat, day.Weakest(fanless)!.Tightest);
        Assert.InRange(day.Chance(fanless), 0, 0.2);
        Assert.Equal("cooled", Shortlist.For(Work, offers, day).Steps[0].Offer.Machine.Id);
        Assert.Equal("fanless", Shortlist.For(Work with { SessionMinutes = 0 }, offers, cold).Steps[0].Offer.Machine.Id);
    }

    /// <summary>What a session of the timeline, again and again, comes to is computed by playing all of it.</summary>
    [Fact]
    public void Heat_after_a_session_is_that_of_playing_the_whole_session()
    {
        var (held, all) = (0, 0);
        Gen.Select(Gen.Double[0.5, 5], Gen.Double[20, 150], Gen.Double[30, 120], Gen.Int[3, 12], Gen.Double[0.7, 1.6]).Sample((
            resistance, capacity, watts, cores, speed) =>
        {
            var machine = Samples.Machine(cores: cores, speed: speed) with
            {
                Cooling = new Cooling(false, resistance, capacity, 24, 95, 8, watts),
            };
            var headroom = new Forecaster([PlanOn(machine)], Short).Weakest(machine)!.Headroom;
            var whole = PlanOn(machine, (int)(Short.Session.TotalSeconds * 25));
            var run = new StandInPlayback(TimeProvider.System).PlayAsync(whole, new NoObserver(), CancellationToken.None).Result;
            var last = run.Frames.TakeLast(20 * 25).ToList();
            var shown = last.Count(frame => frame.Shown is not null) / (double)last.Count;

            Assert.True(headroom < 1.05 || shown > 0.99, $"headroom {headroom}, shown {shown}");
            Assert.True(headroom > 0.95 || shown < 0.995, $"headroom {headroom}, shown {shown}");
            Interlocked.Add(ref held, shown > 0.99 ? 1 : 0);
            Interlocked.Increment(ref all);
        }, iter: 60);
        Assert.InRange(held, all / 10, all - all / 10);
    }

    /// <summary>Utilisation law: of a third of the power a third of the work is done.</summary>
    [Fact]
    public void A_power_limit_bounds_the_headroom()
    {
        var free = Samples.Machine(cores: 12) with { Cooling = new Cooling(false, 0.3, 400, 24, 95, 5, 65) };
        var capped = free with { Cooling = free.Cooling! with { MainsWatts = 15 } };
        var forecaster = new Forecaster([PlanOn(free)]);
        var (all, some) = (forecaster.Weakest(free)!, forecaster.Weakest(capped)!);

        // Of 60 W for work 10 are left.
        Assert.Equal(all.Headroom / 6, some.Headroom, 6);
        Assert.Equal(Station.Power, some.Tightest);
        Assert.Equal(some.Headroom >= 1, forecaster.Holds(capped));
    }

    [Fact]
    public void On_battery_a_machine_has_the_power_of_its_battery_and_without_one_it_is_no_offer()
    {
        var laptop = Samples.Machine("laptop", cores: 12, price: 700) with
        {
            Cooling = new Cooling(false, 0.5, 400, 24, 95, 5, 65, BatteryWatts: 10),
        };
        var desk = Samples.Machine("desk", cores: 12, price: 500);
        var brief = Work with { OnBattery = true };
        var offers = new[] { Offer.Of(laptop)!, Offer.Of(desk)! };

        var shortlist = Shortlist.For(brief, offers, new Forecaster([PlanOn(laptop)], brief.Day()));

        Assert.Empty(shortlist.Steps);
        Assert.Equal((1, 1), (shortlist.Counts.OutsideLimits, shortlist.Counts.CannotHold));
        Assert.Equal("desk", Shortlist.For(Work, offers, new Forecaster([PlanOn(laptop)])).Steps[0].Offer.Machine.Id);
    }

    /// <summary>Limits that something unknown satisfies are none: over random machines and briefs.</summary>
    [Fact]
    public void What_is_not_known_satisfies_no_limit_and_is_listed_with_what_to_find_out()
    {
        var listed = 0;
        Gen.Select(Gen.Int[0, 15], Gen.Bool, Gen.Bool, Gen.Double[0.4, 3]).Sample((stated, wantsForm, wantsNoise, speed) =>
        {
            var machine = Samples.Machine("m", cores: 8, speed: speed, price: 800) with
            {
                Form = (stated & 1) != 0 ? MachineForm.Laptop : null, NoiseDecibels = (stated & 2) != 0 ? 20 : null,
            };
            var brief = Work with
            {
                Forms = wantsForm ? [MachineForm.Laptop] : null, MostDecibels = wantsNoise ? 25 : null,
            };
            var forecaster = new Forecaster([PlanOn(machine)]);
            var shortlist = Shortlist.For(brief, [Offer.Of(machine)!], forecaster);
            var unknown = (wantsForm && machine.Form is null ? 1 : 0) + (wantsNoise && machine.NoiseDecibels is null ? 1 : 0);
            var would = forecaster.Holds(machine) && forecaster.Weakest(machine)!.Headroom >= 1;

            Assert.Equal(unknown == 0 && would ? 1 : 0, shortlist.Steps.Count);
            Assert.Equal(unknown > 0 && would ? 1 : 0, shortlist.Unknown.Count);
            Assert.All(shortlist.Unknown, one => Assert.Equal(unknown, one.ToFindOut.Count));
            listed += shortlist.Unknown.Count;
        }, iter: 300);
        Assert.True(listed > 30, $"{listed}");
    }

    /// <summary>An owned machine and the same machine on offer get the same answer.</summary>
    [Fact]
    public void What_is_good_enough_to_keep_is_good_enough_to_buy_and_the_other_way_round()
    {
        var (kept, refused) = (0, 0);
        Gen.Select(Gen.Double[0.3, 2.2], Gen.Int[4, 10]).Sample((speed, cores) =>
        {
            var machine = Samples.Machine("m", cores: cores, speed: speed, price: 800);
            var forecaster = new Forecaster([PlanOn(machine, 60)]);
            var check = new MachineCheck(
                machine,
                [.. forecaster.Played(machine).SelectMany(run => RunFindings.Of(run))
                    .Zip(forecaster.Of(machine), (finding, forecast) => new CheckedPassage(0, finding, null, forecast))],
                IsMeasured: false);

            var isOffered = Shortlist.For(Work, [Offer.Of(machine)!], forecaster).Steps.Count == 1;

            Assert.Equal(isOffered, check.Answers(Work));
            (kept, refused) = (kept + (isOffered ? 1 : 0), refused + (isOffered ? 0 : 1));
        }, iter: 200, threads: 1);
        Assert.True(kept > 20 && refused > 20, $"{kept} {refused}");
    }

    [Fact]
    public void A_twin_is_never_offered()
    {
        var twin = Samples.Machine("m", price: 1) with { Costs = new MachineCosts([], [], 0.1, DateTimeOffset.UnixEpoch) };

        Assert.Null(Offer.Of(twin));
    }

    private static PlaybackPlan PlanOn(Machine machine, int frames = 150)
    {
        var plan = Samples.Plan(machine, Samples.UhdIntermediate, null, Raster.Hd, Graded);
        var passages = plan.Timeline.Passages.Select(passage => passage with { FrameCount = frames });
        return plan with { Timeline = plan.Timeline with { Passages = [.. passages] } };
    }
}
