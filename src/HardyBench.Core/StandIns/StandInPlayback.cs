using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.StandIns;

/// <summary>Plays a plan on a simulated machine, as fast as it can be computed, and leaves the records of a real run.</summary>
public sealed class StandInPlayback(TimeProvider time) : IPlayback
{
    /// <summary>How uneven services are, and how rarely one is held up. Made-up values that look like real runs.</summary>
    private const double Sigma = 0.08, StallChance = 0.0002;

    /// <summary>A machine that takes so long that it would have more load readings than this is refused.</summary>
    private const int MaxReadings = 10_000_000, LoadsBesideCores = 20;

    private static readonly TimeSpan Stall = TimeSpan.FromMilliseconds(12);

    public Task<Run> PlayAsync(PlaybackPlan plan, IRunObserver observer, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        plan.Checked();
        var decisions = plan.LogsDecisions ? new DecisionLog() : null;
        var run = Play(plan with { Settings = plan.Settings.Effective() }, decisions, stop);
        observer.Started(run.Header);
        observer.Progressed(new RunProgress(run.Frames, run.Loads, run.Failures)
        {
            Lags = run.Lags,
            Decisions = decisions?.TakeNews() ?? [],
        });
        return Task.FromResult(run);
    }

    /// <summary>The run of a plan that was checked.</summary>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    internal Run Played(PlaybackPlan plan, CancellationToken stop = default) =>
        Play(plan with { Settings = plan.Settings.Effective() }, null, stop);

    /// <summary>The same run without its loads, which are half the work: what holds and what does not, but not why.</summary>
    internal Run PlayedOnly(PlaybackPlan plan, CancellationToken stop = default)
    {
        var played = plan with { Settings = plan.Settings.Effective() };
        var (simulation, frames) = Simulated(played, CostModel.DemandsOf(played), null, stop);
        return new Run(HeaderOf(played), RunEnding.Finished, simulation.StartLag, frames, [], []);
    }

    private Run Play(PlaybackPlan plan, DecisionLog? decisions, CancellationToken stop)
    {
        var demands = CostModel.DemandsOf(plan);
        if (plan.Moves is { } moves)
        {
            var lags = new GestureModel(plan, demands, new ServiceSpread(plan.Occasion, Sigma, StallChance, Stall)).Carry(moves);
            return new Run(HeaderOf(plan), RunEnding.Finished, null, [], [], []) { Lags = lags };
        }

        var (simulation, frames) = Simulated(plan, demands, decisions, stop);
        return new Run(
            HeaderOf(plan), RunEnding.Finished, simulation.StartLag, frames,
            StandInLoads.Of(plan, demands, simulation, frames), []);
    }

    private static (Simulation Simulation, IReadOnlyList<FrameRecord> Frames) Simulated(
        PlaybackPlan plan, IReadOnlyList<PassageDemand> demands, DecisionLog? decisions, CancellationToken stop)
    {
        var machine = plan.Machine;
        var simulation = new Simulation(
            demands,
            plan.Timeline.Rate,
            plan.Settings,
            new ServiceSpread(plan.Occasion, Sigma, StallChance, Stall),
            machine.Cooling is { } cooling ? new Heat(cooling, plan.StartCelsius, machine.PowerLimit) : null,
            machine.Processor.Cores,
            CostModel.UnitsSharing(plan),
            plan.Settings.AutomaticScale
                ? Enum.GetValues<PreviewScale>().Where(scale => scale > plan.Settings.Scale)
                    .ToDictionary(
                        scale => scale,
                        scale => CostModel.DemandsOf(plan with { Settings = plan.Settings with { Scale = scale } })
                    )
                : null,
            plan.ShareOfOthers,
            decisions: decisions);
        var longest = BusyLedger.Interval * (MaxReadings / (machine.Processor.Cores + LoadsBesideCores));
        return (simulation, simulation.Play(longest, stop));
    }

    private RunHeader HeaderOf(PlaybackPlan plan) => new(
        plan.Timeline, plan.Machine, plan.Settings,
        new Conditions(
            "stand-in model", null, [.. Enumerable.Range(0, plan.Machine.Processor.Cores)], plan.Settings.Others?.Cores, null, plan.Occasion,
            plan.Machine.HasBattery
                ? new MachineState(null, !plan.Machine.OnBattery, null, null, null, null, null, plan.Machine.Processor.Threads)
                : null,
            Footage: plan.PlayedClipIds.ToDictionary(id => id, id => StateOf(plan, plan.Clips[id].Format)),
            Effects: PlacesOf(plan),
            Sources: SourcesOf(plan.Machine)),
        plan.ClipChecksums, time.GetUtcNow()) { Subject = plan.Subject };

    /// <summary>Said aloud, because an engine that lacks a format leaves it to the processor without a word.</summary>
    private static FootageState StateOf(PlaybackPlan plan, ClipFormat format) => new(
        MediaDrive,
        null,
        null,
        CostModel.EnginesFor(plan, format).Count > 0 ? WorkPlace.MediaEngine : WorkPlace.Processor,
        null,
        Lacks: CostModel.RefusalOf(plan, format),
        KeySeconds: format.KeySeconds
    );

    private static Dictionary<string, EffectState> PlacesOf(PlaybackPlan plan) =>
        plan.Timeline.Passages.SelectMany((_, index) => CostModel.PlacesOf(plan, plan.Played(index)))
            .Where(piece => EffectCatalogue.Find(piece.Effect) is not null)
            .GroupBy(piece => piece.Effect, piece => piece.Place)
            .ToDictionary(effect => effect.Key, effect => new EffectState(effect.First(), null));

    /// <summary>Drives by the order in which they are read.</summary>
    private static IReadOnlyList<LoadSource> SourcesOf(Machine machine) => machine.Drives.Count == 0 ? []
        : ReferenceEquals(machine.DriveFor(DriveRole.Media), machine.DriveFor(DriveRole.System))
            ? [new LoadSource(LoadKind.DriveBusy, 0, MediaDrive)]
        : [new LoadSource(LoadKind.DriveBusy, 0, MediaDrive), new LoadSource(LoadKind.DriveBusy, 1, "system")];

    private const string MediaDrive = "media";
}
