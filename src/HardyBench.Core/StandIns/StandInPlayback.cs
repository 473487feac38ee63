using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.StandIns;

/// <summary>Plays a plan on a simulated machine, as fast as it can be computed, and leaves the records of a real run.</summary>
public sealed class StandInPlayback(TimeProvider time) : IPlayback
{
    /// <summary>How uneven services are, and how rarely one is held up. Made-up values that look like real runs.</summary>
    private const double Sigma = 0.08, StallChance = 0.0002;

    private static readonly TimeSpan Stall = TimeSpan.FromMilliseconds(12);

    public Task<Run> PlayAsync(PlaybackPlan plan, IRunObserver observer, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        var run = Play(plan.Checked());
        observer.Started(run.Header);
        observer.Progressed(new RunProgress(run.Frames, run.Loads, run.Failures) { Lags = run.Lags });
        return Task.FromResult(run);
    }

    private Run Play(PlaybackPlan plan)
    {
        var machine = plan.Machine;
        var demands = DemandsOf(plan);
        if (plan.Hand is { } moves)
        {
            var lags = new HandModel(plan, demands, new ServiceSpread(plan.Occasion, Sigma, StallChance, Stall)).Carry(moves);
            return new Run(HeaderOf(plan), RunEnding.Finished, null, [], [], []) { Lags = lags };
        }

        var simulation = new Simulation(
            demands,
            plan.Timeline.Rate,
            plan.Settings,
            new ServiceSpread(plan.Occasion, Sigma, StallChance, Stall),
            machine.Cooling is { } cooling ? new Heat(cooling, plan.StartCelsius) : null,
            machine.Processor.Cores,
            plan.Settings.AutomaticScale
                ? Enum.GetValues<PreviewScale>().Where(scale => scale > plan.Settings.Scale)
                    .ToDictionary(scale => scale, scale => DemandsOf(plan with { Settings = plan.Settings with { Scale = scale } }))
                : null);
        var frames = simulation.Play();
        return new Run(
            HeaderOf(plan), RunEnding.Finished, simulation.StartLag, frames,
            StandInLoads.Of(plan, demands, simulation, frames), []);
    }

    private static IReadOnlyList<PassageDemand> DemandsOf(PlaybackPlan plan) =>
        [.. Enumerable.Range(0, plan.Timeline.Passages.Count).Select(index => CostModel.DemandOf(plan, plan.Played(index)))];

    private RunHeader HeaderOf(PlaybackPlan plan) => new(
        plan.Timeline, plan.Machine, plan.Settings,
        new Conditions("stand-in model", null, [.. Enumerable.Range(0, plan.Machine.Processor.Cores)], null, null, plan.Occasion),
        plan.ClipChecksums, time.GetUtcNow()) { ByHand = plan.Hand is not null };
}
