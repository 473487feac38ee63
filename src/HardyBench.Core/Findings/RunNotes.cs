using System.Globalization;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Findings;

/// <summary>What a reader has to know before trusting a run, a phrase each.</summary>
public static class RunNotes
{
    /// <summary>Cores that other programs may take before a run is said to be disturbed by them. Common practice, no source.</summary>
    public const double BusyFrom = 0.2;

    /// <summary>The share of a clip's file in the file cache below which a play has the drive to wait for. Common practice, no source.</summary>
    public const double CachedFrom = 0.5;

    /// <summary>Limits above or below which a condition is worth a note. Common practice, no source.</summary>
    private const double ThrottledBelow = 0.9, FullyBusyFrom = 0.8, LowBattery = 0.2, FreeMemoryFrom = 1e9, FreeDataFrom = 1e9, ToolFrom = 0.1;

    /// <summary>The presenter may be this late at the 99th percentile before a run is said to have measured itself.</summary>
    public static readonly TimeSpan PresenterAllowance = TimeSpan.FromMilliseconds(5);

    /// <summary>A gap between two samples in which nothing of ours ran.</summary>
    private static readonly TimeSpan StoodStill = TimeSpan.FromSeconds(5);

    public static IReadOnlyList<string> Of(Run run) =>
    [
        .. run.Header.Settings.Differences(),
        .. OfConditions(run.Header.Conditions),
        .. OfCourse(run),
    ];

    /// <summary>What was unfavourable before the first frame.</summary>
    public static IReadOnlyList<string> OfConditions(Conditions conditions) => [.. BeforeStart(conditions).OfType<string>()];

    private static IEnumerable<string?> BeforeStart(Conditions conditions)
    {
        yield return conditions.OtherLoad is > BusyFrom and var busy ? Say($"{busy:0.0} cores were busy with other work") : null;
        yield return conditions.PresenterPriority == false ? "the presenter had no priority" : null;
        if (conditions.Machine is { } machine)
        {
            yield return machine.FreeMemoryBytes is < FreeMemoryFrom and var memory ? Say($"only {memory / 1e6:0} MB of memory were free") : null;
            yield return machine.FreeDataBytes is < FreeDataFrom and var room ? Say($"only {room / 1e6:0} MB were free on the drive that keeps the run") : null;
            yield return machine.OnMains == false ? "it ran from the battery" : null;
            yield return machine.OnMains == false && machine.BatteryShare is < LowBattery and var charge ? Say($"the battery was at {charge * 100:0} %") : null;
            yield return machine.Governor == "powersave" && !SetsItsOwnClock(machine.ClockDriver) ? "the clock governor saves power" : null;
        }

        foreach (var (clip, state) in conditions.Footage ?? new Dictionary<string, FootageState>())
        {
            yield return state.Refusal is { } refusal ? $"{clip} was decoded on the {state.DecodedOn}: {refusal}" : null;
            yield return state.CachedShare is < CachedFrom and var share ? Say($"{clip} lay in the file cache to {share * 100:0} %, so the drive was waited for at first") : null;
        }

        foreach (var (effect, place) in conditions.Effects ?? new Dictionary<string, EffectState>())
        {
            yield return place.Refusal is { } refusal ? $"{EffectCatalogue.LabelOf(effect)} was done on the {place.RanOn}: {refusal}" : null;
        }
    }

    private static IEnumerable<string> OfCourse(Run run)
    {
        if (run.Ending is RunEnding.Stopped or RunEnding.CutShort)
        {
            yield return run.Ending == RunEnding.Stopped ? "stopped early" : "cut short; kept up to its last second";
        }

        if (run.Header.Conditions.PreRendered is { Count: > 0 } rendered)
        {
            yield return $"played from pre-renders: passage {string.Join(", ", rendered.Select(index => index + 1))}";
        }

        foreach (var failure in run.Failures.Where(failure => failure.Overcome))
        {
            yield return $"passage {failure.PassageIndex + 1}: {failure.Message}";
        }

        var ownFault = run.Frames.Count(frame => frame.Reason == DropReason.PresenterLate);
        if (ownFault > 0)
        {
            yield return ownFault == 1 ? "1 drop is the player's own: it woke too late" : $"{ownFault} drops are the player's own: it woke too late";
        }

        var lateness = DropAccounting.Count(run.Frames, run.Header.Timeline.Rate, run.Header.Settings.Policy, run.StartLag).ToolLateness;
        if (lateness > PresenterAllowance)
        {
            yield return Say($"the presenter itself was {lateness.TotalMilliseconds:0.0} ms late at the 99th percentile, so in part this run measured the tool");
        }

        if (ClockFallenWhileBusy(run) is { } clock)
        {
            yield return Say($"the clock fell to {clock * 100:0} % of its rating while the processor was busy");
        }

        if (Mean(run, LoadKind.OwnTool) is > ToolFrom and var tool)
        {
            yield return Say($"the tool itself took {tool:0.00} cores");
        }

        if (Mean(run, LoadKind.OwnPictures) is > 0 and var pictures)
        {
            yield return Say($"preview pictures took {pictures:0.00} cores");
        }

        foreach (var load in run.Loads.Where(load => load.Kind is LoadKind.Asleep or LoadKind.ClockSet))
        {
            yield return load.Kind == LoadKind.Asleep
                ? Say($"the machine slept for {load.Value:0} s at {Moment(load)}; the run's clock stood still meanwhile, so nothing counts as dropped for it")
                : Say($"the time of day was set {(load.Value > 0 ? "forward" : "back")} by {Math.Abs(load.Value):0} s at {Moment(load)}; the run's own clock does not follow it");
        }

        if (LongestGap(run) is { } gap)
        {
            yield return Say($"the machine stood still for {gap.TotalSeconds:0} s, held up by something else; what was due then counts as dropped");
        }
    }

    /// <summary>With these drivers the processor sets its own clock, and "powersave" is the usual name of letting it (the kernel's
    /// admin-guide/pm/intel_pstate and amd-pstate).</summary>
    private static bool SetsItsOwnClock(string? driver) => driver is "intel_pstate" or "amd-pstate" or "amd-pstate-epp" or "amd_pstate" or "amd_pstate_epp";

    /// <summary>The lowest clock beside the rated one over a second in which the processor had much to do; null when it never fell.
    /// An idle processor lowers its clock, which says nothing of heat or power.</summary>
    private static double? ClockFallenWhileBusy(Run run)
    {
        var shares = run.Loads.GroupBy(load => (long)load.At.TotalSeconds)
            .Select(second => LoadMeans.Over(second, TimeSpan.MinValue, TimeSpan.MaxValue))
            .Where(means => means.Cores(run.Header.Conditions.UsableCores) is { Count: > 0 } cores && cores.Average() >= FullyBusyFrom)
            .Select(means => means.Of(LoadKind.Clock) / means.Of(LoadKind.RatedClock))
            .OfType<double>().Where(share => share < ThrottledBelow).ToList();
        return shares.Count == 0 ? null : shares.Min();
    }

    private static string Moment(LoadReading load) => Say($"{load.At.TotalSeconds:0.0} s");

    private static double? Mean(Run run, LoadKind kind)
    {
        var values = run.Loads.Where(load => load.Kind == kind).Select(load => (double)load.Value).ToList();
        return values.Count == 0 ? null : values.Average();
    }

    /// <summary>Samples come ten times a second, so a long gap between two means that the machine stood still.</summary>
    private static TimeSpan? LongestGap(Run run)
    {
        var moments = run.Loads.Select(load => load.At).Distinct().Order().ToList();
        var longest = moments.Zip(moments.Skip(1), (one, next) => next - one).DefaultIfEmpty().Max();
        return longest >= StoodStill ? longest : null;
    }

    private static string Say(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
