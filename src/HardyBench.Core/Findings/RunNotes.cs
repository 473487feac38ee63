using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>Finds what a reader has to know before trusting a run.</summary>
public static class RunNotes
{
    /// <summary>Cores that other programs may take before a run counts as disturbed by them. Common practice, no source.</summary>
    public const double BusyFrom = 0.2;

    /// <summary>The share of a clip's file in the file cache below which a play has the drive to wait for. Common practice, no
    /// source.</summary>
    public const double CachedFrom = 0.5;

    /// <summary>Limits above or below which a condition is worth a note. Common practice, no source.</summary>
    private const double ThrottledBelow = 0.9,
        FullyBusyFrom = 0.8,
        LowBattery = 0.2,
        FreeMemoryFrom = 1e9,
        FreeDataFrom = 1e9,
        ToolFrom = 0.1;

    /// <summary>The presenter may be this late at the 99th percentile before a run counts as having measured itself.</summary>
    public static readonly TimeSpan PresenterAllowance = TimeSpan.FromMilliseconds(5);

    /// <summary>A gap between two samples in which nothing of ours ran.</summary>
    private static readonly TimeSpan LongGap = TimeSpan.FromSeconds(5);

    public static IReadOnlyList<RunNote> Of(Run run) => [.. OfConditions(run.Header.Conditions), .. OfCourse(run)];

    /// <summary>What was unfavourable before the first frame.</summary>
    public static IReadOnlyList<RunNote> OfConditions(Conditions conditions) => [.. BeforeStart(conditions).OfType<RunNote>()];

    private static IEnumerable<RunNote?> BeforeStart(Conditions conditions)
    {
        yield return conditions.OtherLoad is > BusyFrom and var busy ? new OtherProgramsBusy(busy) : null;
        yield return conditions.PresenterPriority == false ? new PresenterHadNoPriority() : null;
        if (conditions.Machine is { } machine)
        {
            yield return machine.FreeMemoryBytes is < FreeMemoryFrom and var memory ? new LittleMemoryFree(memory) : null;
            yield return machine.FreeDataBytes is < FreeDataFrom and var room ? new LittleRoomFree(room) : null;
            yield return machine.OnMains == false ? new RanFromBattery() : null;
            yield return machine.OnMains == false && machine.BatteryShare is < LowBattery and var charge ? new BatteryWasLow(charge) : null;
            yield return machine.Governor == "powersave" && !SetsItsOwnClock(machine.ClockDriver) ? new GovernorSavesPower() : null;
        }

        foreach (var (clip, state) in conditions.Footage ?? new Dictionary<string, FootageState>())
        {
            yield return state.Refusal is { } refusal ? new DecodedElsewhere(clip, state.DecodedOn, refusal) : null;
            // Intermediates are decoded on the processor everywhere, which is what they are for.
            yield return state.Lacks is { Format.IsAllIntra: false } lacks ? new NotOnEngine(clip, lacks) : null;
            yield return state.CachedShare is < CachedFrom and var share ? new WaitedForDrive(clip, share) : null;
        }

        foreach (var (effect, place) in conditions.Effects ?? new Dictionary<string, EffectState>())
        {
            yield return place.Refusal is { } refusal ? new EffectRanElsewhere(effect, place.RanOn, refusal) : null;
        }
    }

    /// <summary>Clips that were played without a file: nobody has measured their data rates.</summary>
    private static List<string> NotMade(RunHeader header) =>
        [.. (header.Conditions.Footage?.Keys ?? []).Where(id => !header.ClipChecksums.ContainsKey(id))];

    private static IEnumerable<RunNote> OfCourse(Run run)
    {
        if (run.Ending is RunEnding.Stopped or RunEnding.CutShort)
        {
            yield return new EndedEarly(run.Ending);
        }

        if (run.Header.Conditions.Seed is not null && NotMade(run.Header) is { Count: > 0 } clips)
        {
            yield return new RestsOnEstimates(clips);
        }

        if (run.Header.Conditions.PreRendered is { Count: > 0 } rendered)
        {
            yield return new PlayedFromRenders(rendered);
        }

        foreach (var failure in run.Failures.Where(failure => failure.Overcome))
        {
            yield return new PassageError(failure.PassageIndex, failure.Message);
        }

        var ownFault = run.Frames.Count(frame => frame.Reason == DropReason.PresenterLate);
        if (ownFault > 0)
        {
            yield return new OwnDrops(ownFault);
        }

        var lateness = DropAccounting.Count(run.Frames, run.Header.Timeline.Rate, run.Header.Settings.Policy, run.StartLag).ToolLateness;
        if (lateness > PresenterAllowance)
        {
            yield return new PresenterWasLate(lateness);
        }

        if (ClockFallenWhileBusy(run) is { } clock)
        {
            yield return new ClockFell(clock);
        }

        if (Mean(run, LoadKind.OwnTool) is > ToolFrom and var tool)
        {
            yield return new ToolLoad(tool);
        }

        if (Mean(run, LoadKind.OwnPictures) is > 0 and var pictures)
        {
            yield return new PreviewLoad(pictures);
        }

        foreach (var load in run.Loads.Where(load => load.Kind is LoadKind.Asleep or LoadKind.ClockSet))
        {
            var length = TimeSpan.FromSeconds(load.Value);
            yield return load.Kind == LoadKind.Asleep ? new Suspended(length, load.At) : new TimeWasSet(length, load.At);
        }

        if (LongestGap(run) is { } gap)
        {
            yield return new PlayerStalled(gap);
        }
    }

    /// <summary>With these drivers the processor sets its own clock, and "powersave" is the usual name of letting it (the kernel's
    /// admin-guide/pm/intel_pstate and amd-pstate).</summary>
    private static bool SetsItsOwnClock(string? driver) =>
        driver is "intel_pstate" or "amd-pstate" or "amd-pstate-epp" or "amd_pstate" or "amd_pstate_epp";

    /// <summary>The lowest clock beside the rated one over a second in which the processor had much to do; null when it never fell.
    /// An idle processor lowers its clock, which says nothing of heat or power.</summary>
    private static double? ClockFallenWhileBusy(Run run)
    {
        var shares = new LoadsInOrder(run.Loads).BySecond()
            .Select(second => LoadMeans.Over(second, TimeSpan.MinValue, TimeSpan.MaxValue))
            .Where(means => means.Cores(run.Header.Conditions.UsableCores) is { Count: > 0 } cores && cores.Average() >= FullyBusyFrom)
            .Select(means => means.Of(LoadKind.Clock) / means.Of(LoadKind.RatedClock))
            .OfType<double>().Where(share => share < ThrottledBelow).ToList();
        return shares.Count == 0 ? null : shares.Min();
    }

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
        return longest >= LongGap ? longest : null;
    }
}
