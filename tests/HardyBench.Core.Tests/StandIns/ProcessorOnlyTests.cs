using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.StandIns;

/// <summary>A bare run uses a stand-in's devices; "processor only" is a condition like any other.</summary>
public sealed class ProcessorOnlyTests
{
    private static readonly Machine Both = Samples.Machine(
        engine: new MediaEngine("e", 1000, [new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Uhd)]),
        graphics: new Graphics("g", 5000, 250, 8, 15.75));

    private static readonly PlaybackSettings OnProcessor = new(DecodeOn: WorkPlace.Processor, EffectsOn: WorkPlace.Processor);

    [Fact]
    public void A_bare_run_reports_the_devices_it_used()
    {
        var run = Play(new PlaybackSettings());

        Assert.All(run.Header.Conditions.Footage!.Values, clip => Assert.Equal(WorkPlace.MediaEngine, clip.DecodedOn));
        Assert.Equal(WorkPlace.Graphics, run.Header.Conditions.Effects!["blur"].RanOn);
        Assert.True(run.Header.Settings.IsBare);
    }

    [Fact]
    public void Processor_only_asks_nothing_of_either_device()
    {
        var plan = Plan(OnProcessor);
        var stations = CostModel.DemandsOf(plan).SelectMany(demand => demand.Visits).Select(visit => visit.Station).ToHashSet();
        var run = Play(OnProcessor);

        Assert.DoesNotContain(Station.MediaEngine, stations);
        Assert.DoesNotContain(Station.Graphics, stations);
        Assert.DoesNotContain(Station.Bus, stations);
        Assert.All(run.Header.Conditions.Footage!.Values, clip => Assert.Equal(WorkPlace.Processor, clip.DecodedOn));
        Assert.Equal(WorkPlace.Processor, run.Header.Conditions.Effects!["blur"].RanOn);
        Assert.Equal(["processor only"], OnProcessor.Differences());
        Assert.DoesNotContain(RunNotes.OfConditions(run.Header.Conditions), note => note is NotOnEngine);
    }

    [Fact]
    public void A_stand_in_refuses_a_real_machines_device() =>
        Assert.Contains(
            "'vaapi' is a device of a real machine",
            Assert.Throws<PlanRefusedException>(() => Plan(new PlaybackSettings(DecodeOn: "vaapi")).Checked()).Message);

    private static Run Play(PlaybackSettings settings) =>
        new StandInPlayback(TimeProvider.System).PlayAsync(Plan(settings), new NoObserver(), CancellationToken.None).Result;

    private static PlaybackPlan Plan(PlaybackSettings settings)
    {
        var plan = Samples.Plan(Both, Samples.HdAvc);
        var passage = plan.Timeline.Passages[0] with { Over = [Effect.Of("blur")] };
        return plan with { Timeline = plan.Timeline with { Passages = [passage] }, Settings = settings };
    }
}
