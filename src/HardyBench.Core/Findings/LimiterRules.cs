using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>Finds the limiter of a passage that misses slots, from its loads. Rules in order; the first that fits.</summary>
public static class LimiterRules
{
    private const double DeviceCeiling = 0.95, PoolCeiling = 0.90, IdleCore = 0.5, MemoryCeiling = 0.95;

    /// <summary>Decoders cannot share their work out evenly: with this much of the processor busy, nearly all of it with
    /// the player, and nothing else at its ceiling, the processor is still the limit.</summary>
    private const double UnevenPoolCeiling = 0.75;

    /// <summary>A thread that is behind gives up what is left of a passage and then waits for the next one: with this much of the time
    /// busy, and nothing else at its ceiling, it is still the limit.</summary>
    private const double UnevenThreadCeiling = 0.85;

    /// <summary>A decoder that waits for its footage also hands over what came: with this much of its time spent waiting, the drive is the
    /// limit, whether or not the system calls it busy.</summary>
    private const double FootageCeiling = 0.85;

    /// <summary>Share of time for which tasks stand still for want of memory before it is named, whatever is called free: a control group
    /// has limits of its own.</summary>
    private const double PressureCeiling = 0.25;

    /// <summary>Share of the processor that other programs may take before they are named.</summary>
    private const double OthersCeiling = 0.25;

    /// <summary>Share below its rated clock at which heat is named.</summary>
    private const double ClockFallen = 0.95;

    /// <summary>Share of the power limit from which on power, not heat, keeps the clock down; and a temperature below which heat does not.
    /// The temperature is common practice, no source.</summary>
    private const double PowerCeiling = 0.95, TooCoolForHeat = 60;

    /// <summary>The limiter before most misses. Each window is judged by itself: in a mean over all of them a processor that is full before
    /// every miss and rests between can look half idle. "Not clear" is the result only when most windows are not. What else is at its ceiling
    /// in half of the windows or more comes second.</summary>
    /// <param name="windows">As <see cref="MissWindows"/> gives them.</param>
    /// <param name="ofMisses">Whether they lie before misses; else before all frames that were begun.</param>
    /// <param name="whole">Judged where there is no window.</param>
    public static LimiterFinding Find(IReadOnlyList<LoadMeans> windows, bool ofMisses, LoadMeans whole, Conditions conditions)
    {
        if (windows.Count == 0)
        {
            return Find(whole, conditions);
        }

        var judged = windows.Select(window => (Loads: window, All: All(window, conditions))).ToList();
        var byFirst = judged.ToLookup(one => one.All[0].Limiter);
        var named = 2 * byFirst[Limiter.Unknown].Count() > windows.Count
            ? Limiter.Unknown
            : byFirst.Where(one => one.Key != Limiter.Unknown).MaxBy(one => one.Count())?.Key ?? Limiter.Unknown;
        return Named(named, [.. byFirst[named]]) with { Second = named == Limiter.Unknown ? null : SecondTo(named) };

        LimiterFinding Named(Limiter limiter, IReadOnlyList<(LoadMeans Loads, List<LimiterFinding> All)> naming)
        {
            var mean = LoadMeans.Of([.. naming.Select(one => one.Loads)]);
            var finding =
                All(mean, conditions).FirstOrDefault(one => one.Limiter == limiter) ?? naming[0].All.First(one => one.Limiter == limiter);
            return finding with { Before = new ShareOfWindows((double)naming.Count / windows.Count, ofMisses) };
        }

        LimiterFinding? SecondTo(Limiter first) => judged
            .SelectMany(one => one.All.Where(found => !HaveOneCause(found.Limiter, first)).Select(found => (found.Limiter, Window: one)))
            .GroupBy(found => found.Limiter, found => found.Window)
            .Where(group => 2 * group.Count() >= windows.Count)
            .OrderByDescending(group => group.Count()).ThenBy(group => group.Key)
            .Select(group => Named(group.Key, [.. group]))
            .FirstOrDefault();
    }

    /// <summary>The first rule that fits, and the next one about something else.</summary>
    /// <param name="conditions">Which cores the player could use, on which drives the footage lay and what each reading was of.</param>
    public static LimiterFinding Find(LoadMeans loads, Conditions conditions)
    {
        var all = All(loads, conditions);
        return all[0] with { Second = all.FirstOrDefault(one => !HaveOneCause(one.Limiter, all[0].Limiter)) };
    }

    /// <summary>All that is at its ceiling, in the order of the rules; at least one, which is "not clear" where nothing is.</summary>
    private static List<LimiterFinding> All(LoadMeans loads, Conditions conditions)
    {
        var cores = conditions.UsableCores;
        var all = new[]
        {
            Memory(loads),
            GraphicsMemory(loads),
            MediaEngine(loads),
            Device(loads, LoadKind.EncoderBusy, Limiter.EncodingEngine),
            Graphics(loads),
            Power(loads, cores) ?? Heat(loads, cores),
            ProcessorPool(loads, cores, PoolCeiling),
            SingleThread(loads, cores, DeviceCeiling),
            MediaDrive(loads, conditions), Bus(loads),
        }.OfType<LimiterFinding>().ToList();
        return all.Count > 0 ? all :
        [
            ProcessorPool(loads, cores, UnevenPoolCeiling)
                ?? SingleThread(loads, cores, UnevenThreadCeiling)
                ?? Unknown(loads, conditions),
        ];
    }

    /// <summary>A processor that is full is one matter, whatever fills it and whatever keeps it down: the second would be the first once
    /// more.</summary>
    private static bool HaveOneCause(Limiter one, Limiter other) => one == other || (IsOfProcessor(one) && IsOfProcessor(other));

    private static bool IsOfProcessor(Limiter limiter) => limiter
        is Limiter.ProcessorDecode or Limiter.ProcessorEffects or Limiter.ProcessorEncode or Limiter.SingleThread or Limiter.Heat
            or Limiter.Power or Limiter.OtherPrograms;

    private static LimiterFinding? Memory(LoadMeans loads) =>
        loads.Of(LoadKind.SwapTraffic) is > 0 and var traffic
        && loads.Of(LoadKind.MemoryUsed) is { } used
        && loads.Of(LoadKind.MemoryFitted) is { } fitted
        && used >= MemoryCeiling * fitted
            ? Finding(loads, Limiter.Memory, new FullMemory(used / fitted, traffic))
            : loads.Of(LoadKind.MemoryPressure) is >= PressureCeiling and var standing
                ? Finding(loads, Limiter.Memory, new ShortOfMemory(standing))
                : null;

    private static LimiterFinding? MediaEngine(LoadMeans loads) => Device(loads, LoadKind.MediaEngineBusy, Limiter.MediaEngine);

    private static LimiterFinding? Graphics(LoadMeans loads) => Device(loads, LoadKind.GraphicsBusy, Limiter.GraphicsEffects);

    private static LimiterFinding? MediaDrive(LoadMeans loads, Conditions conditions) =>
        Device(loads, LoadKind.DriveBusy, Limiter.Drive, conditions.IsMediaDrive)
        ?? (loads.HighestOf(LoadKind.FootageWait) is { Value: >= FootageCeiling and var waiting }
            ? Finding(loads, Limiter.Drive, new LateFootage(waiting))
            : null);

    private static LimiterFinding? Bus(LoadMeans loads) => Device(loads, LoadKind.BusBusy, Limiter.Bus);

    private static LimiterFinding? Device(LoadMeans loads, LoadKind kind, Limiter limiter, Func<int, bool>? counts = null) =>
        loads.HighestOf(kind, counts) is { Value: >= DeviceCeiling } device
            ? Finding(loads, limiter, new BusyDevice(kind, device.Value))
            : null;

    private static LimiterFinding? GraphicsMemory(LoadMeans loads) =>
        loads.Of(LoadKind.GraphicsMemoryFitted) is > 0 and var fitted
        && loads.Of(LoadKind.GraphicsMemoryUsed) is { } used
        && used >= MemoryCeiling * fitted
        && loads.Of(LoadKind.BusBusy) is >= DeviceCeiling and var bus
            ? Finding(loads, Limiter.GraphicsMemory, new FullGraphicsMemory(used, bus))
            : null;

    /// <summary>Before heat: a machine that draws all it may is not held back by how warm it is, and one that is cool is not
    /// either.</summary>
    private static LimiterFinding? Power(LoadMeans loads, IReadOnlyList<int> usableCores)
    {
        var (limit, celsius) = (loads.Of(LoadKind.PowerLimit), loads.Of(LoadKind.Temperature));
        return loads.Of(LoadKind.Clock) is { } clock
            && loads.Of(LoadKind.RatedClock) is { } rated
            && clock < ClockFallen * rated
            && Pool(loads, usableCores) is >= PoolCeiling
            && (loads.Of(LoadKind.PackagePower) >= PowerCeiling * limit || celsius < TooCoolForHeat)
                ? Finding(loads, Limiter.Power, new CappedPower(clock, rated, limit, celsius))
                : null;
    }

    /// <summary>Before the processor, because a throttled processor is also a busy one.</summary>
    private static LimiterFinding? Heat(LoadMeans loads, IReadOnlyList<int> usableCores) =>
        loads.Of(LoadKind.Clock) is { } clock
        && loads.Of(LoadKind.RatedClock) is { } rated
        && clock < ClockFallen * rated
        && loads.Of(LoadKind.Temperature) is { } celsius
        && Pool(loads, usableCores) is >= PoolCeiling
            ? Finding(loads, Limiter.Heat, new FallenClock(clock, rated, celsius))
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
            return Finding(loads, Limiter.OtherPrograms, new TakenProcessor(pool, own, usableCores.Count));
        }

        var encode = loads.Of(LoadKind.OwnEncode) ?? 0;
        var work = decode + effects + encode;
        var (limiter, most) = decode >= Math.Max(effects, encode) && work > 0 ? (Limiter.ProcessorDecode, decode)
            : effects >= encode ? (Limiter.ProcessorEffects, effects)
            : (Limiter.ProcessorEncode, encode);
        return Finding(loads, limiter, new BusyProcessor(pool, work > 0 ? most / work : 1));
    }

    /// <summary>By the player's own threads where they are read one by one, whatever the other cores do; else by a core that is full
    /// while the others idle.</summary>
    private static LimiterFinding? SingleThread(LoadMeans loads, IReadOnlyList<int> usableCores, double ceiling)
    {
        if (loads.HighestOf(LoadKind.OwnThread) is { } thread && thread.Value >= ceiling)
        {
            return Finding(loads, Limiter.SingleThread, new BusyThread(thread.Value, Pool(loads, usableCores) ?? 0));
        }

        var cores = loads.Cores(usableCores).OrderDescending().ToList();
        return cores.Count > 1 && cores[0] >= DeviceCeiling && cores.Skip(1).All(core => core < IdleCore)
            ? Finding(loads, Limiter.SingleThread, new BusyCore(cores[0], cores[1]))
            : null;
    }

    private static LimiterFinding Unknown(LoadMeans loads, Conditions conditions)
    {
        if (Pool(loads, conditions.UsableCores) is not { } pool)
        {
            return Finding(loads, Limiter.Unknown, new NothingRead());
        }

        var other = loads.HighestOf(LoadKind.DriveBusy) is { Value: >= DeviceCeiling } busy ? busy : ((int Index, double Value)?)null;
        return Finding(loads, Limiter.Unknown, new NothingAtItsLimit(
            pool, other is { } drive ? conditions.NameOf(LoadKind.DriveBusy, drive.Index) : null, other?.Value));
    }

    private static LimiterFinding Finding(LoadMeans loads, Limiter limiter, Evidence evidence) =>
        new(limiter, evidence with { From = loads.From, To = loads.To });

    private static double? Pool(LoadMeans loads, IReadOnlyList<int> usableCores) =>
        loads.Cores(usableCores) is { Count: > 0 } cores ? cores.Average() : null;
}
