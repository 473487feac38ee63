using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.StandIns;

/// <summary>Plays a plan on a simulated machine, as fast as it can be computed, and leaves the records of a real run.</summary>
public sealed class StandInPlayback(TimeProvider time) : IPlayback
{
    /// <summary>How uneven services are, and how rarely one is held up. Made-up values that look like real runs.</summary>
    private const double Sigma = 0.08, StallChance = 0.0002;

    private static readonly TimeSpan Stall = TimeSpan.FromMilliseconds(12);

    /// <summary>The seed of every run unless told otherwise, so that a stand-in gives the same answer each time.</summary>
    public int Seed { get; init; } = 1;

    public Task<Run> PlayAsync(PlaybackPlan plan, IRunObserver observer, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        var run = Play(plan.Checked());
        observer.Started(run.Header);
        observer.Progressed(new RunProgress(run.Frames, run.Loads, run.Failures));
        return Task.FromResult(run);
    }

    private Run Play(PlaybackPlan plan)
    {
        var machine = plan.Machine;
        var demands = plan.Timeline.Passages.Select(passage => CostModel.DemandOf(plan, passage)).ToList();
        var simulation = new Simulation(
            demands,
            plan.Timeline.Rate,
            plan.Settings,
            new ServiceSpread(Seed, Sigma, StallChance, Stall),
            machine.Cooling is { } cooling ? new Heat(cooling) : null);
        var frames = simulation.Play();
        var conditions = new Conditions(
            "stand-in model", null, [.. Enumerable.Range(0, machine.Processor.Cores)], null, null, Seed);
        var header = new RunHeader(
            plan.Timeline, machine, plan.Settings, conditions, plan.ClipChecksums, time.GetUtcNow());
        return new Run(
            header, RunEnding.Finished, simulation.StartLag, frames,
            StandInLoads.Of(plan, demands, simulation, frames), []);
    }
}
