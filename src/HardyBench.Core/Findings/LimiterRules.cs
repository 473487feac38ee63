using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>Finds the limiter of a passage that misses slots, from its loads. Rules in order; the first that fits.</summary>
public static class LimiterRules
{
    private const double DeviceCeiling = 0.95, PoolCeiling = 0.90, IdleCore = 0.5, FullMemory = 0.95;

    /// <summary>Decoders cannot share their work out evenly: with this much of the processor busy, nearly all of it with
    /// the player, and nothing else at its ceiling, the processor is still the limit.</summary>
    private const double UnevenPoolCeiling = 0.75;

    /// <summary>Share of the processor that other programs may take before they are named.</summary>
    private const double OthersCeiling = 0.25;

    /// <summary>Share below its rated clock at which heat is named.</summary>
    private const double ClockFallen = 0.95;

    /// <summary>The limiter before most misses. Each window is judged by itself: in a mean over all of them a processor that is full before
    /// every miss and rests between can look half idle. "Not clear" is said only when most windows are not.</summary>
    /// <param name="windows">As <see cref="MissWindows"/> gives them.</param>
    /// <param name="whole">Judged where there is no window.</param>
    public static LimiterFinding Find(IReadOnlyList<LoadMeans> windows, LoadMeans whole, Conditions conditions)
    {
        if (windows.Count == 0)
        {
            return Find(whole, conditions);
        }

        var byLimiter = windows.Select(window => (Loads: window, Found: Find(window, conditions))).ToLookup(one => one.Found.Limiter);
        var named = 2 * byLimiter[Limiter.Unknown].Count() > windows.Count
            ? Limiter.Unknown
            : byLimiter.Where(one => one.Key != Limiter.Unknown).MaxBy(one => one.Count())?.Key ?? Limiter.Unknown;
        var naming = byLimiter[named].ToList();
        var finding = Find(LoadMeans.Of([.. naming.Select(one => one.Loads)]), conditions);
        finding = finding.Limiter == named ? finding : naming[0].Found;
        return finding with
        {
            Evidence = $"{finding.Evidence.TrimEnd('.')}, {(naming.Count == windows.Count ? "before every miss" : $"before {Percent((double)naming.Count / windows.Count)} of the misses")}.",
        };
    }

    /// <param name="conditions">Which cores the player could use, on which drives the footage lay and what each reading was of.</param>
    public static LimiterFinding Find(LoadMeans loads, Conditions conditions)
    {
        var usableCores = conditions.UsableCores;
        return Memory(loads)
            ?? MediaEngine(loads)
            ?? Graphics(loads)
            ?? Heat(loads, usableCores)
            ?? ProcessorPool(loads, usableCores, PoolCeiling)
            ?? SingleThread(loads, usableCores)
            ?? MediaDrive(loads, conditions)
            ?? Bus(loads)
            ?? ProcessorPool(loads, usableCores, UnevenPoolCeiling)
            ?? Unknown(loads, conditions);
    }

    private static LimiterFinding? Memory(LoadMeans loads)
    {
        if (loads.Of(LoadKind.SwapTraffic) is not > 0
            || loads.Of(LoadKind.MemoryUsed) is not { } used
            || loads.Of(LoadKind.MemoryFitted) is not { } fitted
            || used < FullMemory * fitted)
        {
            return null;
        }

        var traffic = loads.Of(LoadKind.SwapTraffic)!.Value / 1e6;
        return new LimiterFinding(
            Limiter.Memory,
            Say(loads, $"memory {Percent(used / fitted)} full and {traffic:0} MB/s going to and from swap"),
            "More memory, or fewer layers at once.",
            "A faster processor will not help while it waits for swap.");
    }

    private static LimiterFinding? MediaEngine(LoadMeans loads) =>
        loads.HighestOf(LoadKind.MediaEngineBusy) is { Value: >= DeviceCeiling } engine
            ? new LimiterFinding(
                Limiter.MediaEngine,
                Say(loads, $"media engine {Percent(engine.Value)} busy"),
                "An all-intra intermediate decoded on the processor, a smaller source raster, or a faster media engine.",
                "A smaller timeline raster will not help: every source frame is still decoded whole.")
            : null;

    private static LimiterFinding? Graphics(LoadMeans loads) =>
        loads.HighestOf(LoadKind.GraphicsBusy) is { Value: >= DeviceCeiling } graphics
            ? new LimiterFinding(
                Limiter.GraphicsEffects,
                Say(loads, $"graphics compute {Percent(graphics.Value)} busy"),
                "A smaller preview scale, a pre-render of this passage, or a stronger graphics unit.",
                "Proxies will not help: the effects work at the timeline's raster, not the clip's.")
            : null;

    /// <summary>Before the processor, because a throttled processor is also a busy one.</summary>
    private static LimiterFinding? Heat(LoadMeans loads, IReadOnlyList<int> usableCores) =>
        loads.Of(LoadKind.Clock) is { } clock
        && loads.Of(LoadKind.RatedClock) is { } rated
        && clock < ClockFallen * rated
        && loads.Of(LoadKind.Temperature) is { } celsius
        && Pool(loads, usableCores) is >= PoolCeiling
            ? new LimiterFinding(
                Limiter.Heat,
                Say(loads, $"clock down to {clock / 1e9:0.0} of {rated / 1e9:0.0} GHz at {celsius:0} °C"),
                "Better cooling, or less work at a time.",
                "A cold start will not show this: it comes after a while.")
            : null;

    private static LimiterFinding? ProcessorPool(LoadMeans loads, IReadOnlyList<int> usableCores, double ceiling)
    {
        if (Pool(loads, usableCores) is not { } pool
            || pool < ceiling
            || loads.Of(LoadKind.OwnDecode) is not { } decode
            || loads.Of(LoadKind.OwnEffects) is not { } effects)
        {
            return null;
        }

        if (loads.Of(LoadKind.OwnProcess) is { } own && own < usableCores.Count * (pool - OthersCeiling))
        {
            return new LimiterFinding(
                Limiter.OtherPrograms,
                Say(loads, $"processor {Percent(pool)} busy, but only {own:0.0} of {usableCores.Count} cores with this player"),
                "Close other programs and play again.",
                null);
        }

        var work = decode + effects;
        var share = work > 0 ? decode / work : 0;
        return share >= 0.5
            ? new LimiterFinding(
                Limiter.ProcessorDecode,
                Say(loads, $"processor {Percent(pool)} busy and {Percent(share)} of the player's work was decoding"),
                "An all-intra intermediate or proxies, a media engine that takes this format, or more cores.",
                "A smaller timeline raster or a faster drive will not help: every source frame is still decoded whole.")
            : new LimiterFinding(
                Limiter.ProcessorEffects,
                Say(loads, $"processor {Percent(pool)} busy and {Percent(1 - share)} of the player's work was effects"),
                "A smaller preview scale, a pre-render of this passage, or effects on a graphics unit.",
                "Proxies will hardly help: the effects work at the timeline's raster, not the clip's.");
    }

    /// <summary>By the player's own threads where they are read one by one, whatever the other cores do; else by a core that is full
    /// while the others idle.</summary>
    private static LimiterFinding? SingleThread(LoadMeans loads, IReadOnlyList<int> usableCores)
    {
        if (loads.HighestOf(LoadKind.OwnThread) is { Value: >= DeviceCeiling } thread)
        {
            return OneThread(loads, $"one thread of the player {Percent(thread.Value)} busy while the processor as a whole is at {Percent(Pool(loads, usableCores) ?? 0)}");
        }

        var cores = loads.Cores(usableCores).OrderDescending().ToList();
        return cores.Count > 1 && cores[0] >= DeviceCeiling && cores.Skip(1).All(core => core < IdleCore)
            ? OneThread(loads, $"one core {Percent(cores[0])} busy while the others stay at {Percent(cores[1])} or below")
            : null;
    }

    private static LimiterFinding OneThread(LoadMeans loads, FormattableString evidence) => new(
        Limiter.SingleThread,
        Say(loads, evidence),
        "A processor with faster cores.",
        "More cores will not help: this work cannot be shared among them.");

    private static LimiterFinding? MediaDrive(LoadMeans loads, Conditions conditions) =>
        loads.HighestOf(LoadKind.DriveBusy, conditions.IsMediaDrive) is { Value: >= DeviceCeiling } drive
            ? new LimiterFinding(
                Limiter.Drive,
                Say(loads, $"media drive {Percent(drive.Value)} busy"),
                "Media on a faster drive, or footage of a lower data rate.",
                "A faster processor or graphics unit will not help while they wait for the drive.")
            : null;

    private static LimiterFinding? Bus(LoadMeans loads) =>
        loads.Of(LoadKind.BusBusy) is { } busy && busy >= DeviceCeiling
            ? new LimiterFinding(
                Limiter.Bus,
                Say(loads, $"bus to the graphics unit {Percent(busy)} busy"),
                "Decoding on the graphics unit's own media engine, or a wider bus.",
                null)
            : null;

    private static LimiterFinding Unknown(LoadMeans loads, Conditions conditions) => new(
        Limiter.Unknown,
        Pool(loads, conditions.UsableCores) is { } pool
            ? loads.HighestOf(LoadKind.DriveBusy) is { Value: >= DeviceCeiling } other
                ? Say(loads, $"nothing measured that it plays with is at its ceiling (processor {Percent(pool)}); drive {conditions.NameOf(LoadKind.DriveBusy, other.Index)}, which holds none of this footage, is {Percent(other.Value)} busy")
                : Say(loads, $"nothing measured is at its ceiling (processor {Percent(pool)})")
            : "No loads could be read here.",
        "Play it three times to see whether it stays; then look at the software.",
        null);

    private static double? Pool(LoadMeans loads, IReadOnlyList<int> usableCores) =>
        loads.Cores(usableCores) is { Count: > 0 } cores ? cores.Average() : null;

    private static string Say(LoadMeans loads, FormattableString what)
    {
        var text = what.ToString(CultureInfo.InvariantCulture);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{char.ToUpperInvariant(text[0])}{text[1..]}, from {loads.From.TotalSeconds:0.0} to {loads.To.TotalSeconds:0.0} s.");
    }

    private static string Percent(double share) => $"{Math.Round(share * 100).ToString(CultureInfo.InvariantCulture)} %";
}
