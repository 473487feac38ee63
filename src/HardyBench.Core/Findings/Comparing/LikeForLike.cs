using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using static System.FormattableString;

namespace HardyBench.Core.Findings.Comparing;

/// <summary>Compares the conditions of two runs field by field: what differs besides the one thing under study disturbs a
/// comparison.</summary>
public static class LikeForLike
{
    /// <summary>A consequence is left out where its cause differs.</summary>
    /// <param name="baseTimeline">Digest of the timeline as it was played.</param>
    /// <param name="otherTimeline">The same of the other run.</param>
    public static IReadOnlyList<ConditionDifference> Differences(
        RunHeader one, string baseTimeline, RunHeader other, string otherTimeline) =>
        Between(Facts(one, baseTimeline), Facts(other, otherTimeline));

    /// <summary>The parts in which two descriptions of machines differ; without consequences, too.</summary>
    public static IReadOnlyList<ConditionDifference> Differences(Machine one, Machine other)
    {
        return Between(Of(one), Of(other));

        static Dictionary<(Condition, string?), string?> Of(Machine machine)
        {
            var facts = new Dictionary<(Condition, string?), string?>();
            OfMachine(machine.AsCompared, (what, value, of) => facts[(what, of)] = value);
            facts[(Condition.MemoryInUse, null)] = MemoryInUse(machine, 0);
            return facts;
        }
    }

    private static List<ConditionDifference> Between(
        Dictionary<(Condition What, string? Of), string?> first, Dictionary<(Condition What, string? Of), string?> second)
    {
        var all = first.Keys.Union(second.Keys).OrderBy(fact => fact.What).ThenBy(fact => fact.Of, StringComparer.Ordinal)
            .Select(fact => new ConditionDifference(fact.What, fact.Of, first.GetValueOrDefault(fact), second.GetValueOrDefault(fact)))
            .Where(difference => difference.Base != difference.Other)
            .ToList();
        var whats = all.Select(difference => difference.What).ToHashSet();
        return [.. all.Where(difference => !difference.Causes().Any(whats.Contains))];
    }

    /// <summary>Everything in which two runs are compared, in words.</summary>
    internal static Dictionary<(Condition What, string? Of), string?> Facts(RunHeader header, string timeline)
    {
        var facts = new Dictionary<(Condition, string?), string?>();
        OfTimeline(header, timeline, Add);
        Add(Condition.WrittenAs, (header.Subject as Export)?.Name);
        OfSettings(header.Settings, Add);
        OfConditions(header, Add);
        Add(Condition.MemoryInUse, MemoryInUse(header.Machine, header.Settings.Others?.Gigabytes ?? 0));
        OfMachine(header.Machine.AsCompared, Add);
        return facts;

        void Add(Condition what, string? value, string? of = null) => facts[(what, of)] = value;
    }

    private static void OfTimeline(RunHeader header, string digest, Adding add)
    {
        add(Condition.Timeline, $"{header.Timeline.Title} ({digest[..Math.Min(8, digest.Length)]})");
        add(Condition.TimelineRaster, header.Timeline.Raster.ToString());
        add(Condition.TimelineRate, header.Timeline.Rate.ToString());
        foreach (var (clip, checksum) in header.ClipChecksums)
        {
            add(Condition.Footage, checksum[..Math.Min(8, checksum.Length)], clip);
        }
    }

    private static void OfSettings(PlaybackSettings settings, Adding add)
    {
        add(Condition.Program, settings.Program?.Name ?? "Hardy Bench player");
        foreach (var (member, value) in settings.Program is { } program ? ProgramSettings.Of(program) : [])
        {
            add(Condition.ProgramSetting, value, member);
        }

        add(Condition.PreviewScale, settings.Scale.ToString().ToLowerInvariant());
        add(Condition.AutomaticScale, YesNo(settings.AutomaticScale));
        add(Condition.Policy, settings.Policy switch
        {
            PlayingPolicy.KeepFrames => "every frame shown",
            PlayingPolicy.Unpaced => ConditionCauses.NoClock,
            _ => "the clock kept",
        });
        add(Condition.LookAhead, Invariant($"{settings.LookAhead} frames"));
        add(Condition.PreviewPictures, YesNo(settings.Pictures));
        add(Condition.Proxies, settings.Proxies.ToString().ToLowerInvariant());
        add(Condition.PreRenders, YesNo(settings.PreRenders));
        add(Condition.FileCache, settings.Cache switch { FileCache.Cold => "cold", FileCache.Warm => "warm", _ => "as found" });
        add(Condition.DecodeAskedOn, AskedOn(settings.DecodeOn));
        add(Condition.EffectsAskedOn, AskedOn(settings.EffectsOn));
        add(Condition.Threads, settings.Threads is { } threads ? Invariant($"{threads}") : null);
    }

    private static void OfConditions(RunHeader header, Adding add)
    {
        var conditions = header.Conditions;
        add(Condition.Player, conditions.Player);
        add(Condition.Kernel, conditions.Kernel);
        var (usable, threads) = (conditions.UsableCores.Count, header.Machine.Processor.Threads);
        // A stand-in's cores are counted without their second threads.
        add(
            Condition.UsableCores,
            usable < Math.Min(threads, header.Machine.Processor.Cores) ? Invariant($"{usable} of {threads}") : "all"
        );
        add(Condition.OtherLoad, conditions.OtherLoad is > RunNotes.BusyFrom and var busy ? Invariant($"{busy:0.0} cores busy") : "quiet");
        add(Condition.Power, conditions.Machine?.OnMains switch { false => "battery", _ => "mains" });
        add(Condition.Governor, conditions.Machine?.Governor);
        add(Condition.PresenterPriority, conditions.PresenterPriority == false ? "normal" : "raised");
        add(Condition.PagesOpen, conditions.PagesHere is > 0 and var pages ? Invariant($"{pages} here") : "none here");
        foreach (var (clip, state) in conditions.Footage ?? new Dictionary<string, FootageState>())
        {
            add(Condition.DecodedOn, state.DecodedOn, clip);
            add(Condition.Cached, state.CachedShare is < RunNotes.CachedFrom ? "came from the drive" : "in the file cache", clip);
        }

        foreach (var (effect, state) in conditions.Effects ?? new Dictionary<string, EffectState>())
        {
            add(Condition.EffectRanOn, state.RanOn, effect);
        }
    }

    private static void OfMachine(Machine machine, Adding add)
    {
        var processor = machine.Processor;
        add(Condition.Processor, processor.Name);
        add(
            Condition.Cores,
            processor.SlowCores > 0
                ? Invariant($"{processor.Cores - processor.SlowCores} fast, {processor.SlowCores} slow")
                : Invariant($"{processor.Cores}")
        );
        foreach (var figure in MachineFigures.All.Where(figure => figure.IsCompared))
        {
            add(Condition.Figure, figure.TextOf(machine), figure.Path);
        }

        add(
            Condition.Graphics,
            machine.Graphics.Count == 0
                ? "none"
                : string.Join(
                    " + ",
                    machine.Graphics.Select(unit =>
                        Invariant($"{unit.Name} ({unit.PeakGigaflops:0} Gflop/s, {unit.MemoryGigabytes:0.#} GB, ")
                            + Invariant($"{unit.BandwidthGigabytesPerSecond:0.#} GB/s{Bus(unit)})")
                    )
                )
        );
        add(
            Condition.MediaEngine,
            machine.MediaEngines.Count == 0
                ? "none"
                : string.Join(
                    " + ",
                    machine.MediaEngines.Select(engine => Invariant($"{engine.Name} ({engine.MegapixelsPerSecond:0} Mpixel/s)"))
                ) + $"; {string.Join(" + ", machine.MediaEngines.Select(Text))}"
        );
        add(Condition.MediaDrive, machine.DriveFor(DriveRole.Media) is { } drive ? Text(drive) : null);
        add(
            Condition.OtherDrives,
            string.Join(" + ", machine.Drives.Where(other => !other.Roles.Contains(DriveRole.Media)).Select(Text)) is { Length: > 0 } others
                ? others
                : null
        );
        add(
            Condition.Cooling,
            machine.Cooling is { } cooling
                ? Invariant(
                    $"{(cooling.Fanless ? "fanless" : "fans")}, {cooling.ResistanceKelvinPerWatt:0.##} K/W, {cooling.CapacityJoulesPerKelvin:0} J/K, "
                ) + Invariant(
                    $"{cooling.IdleWatts:0} to {cooling.FullWatts:0} W, {cooling.AmbientCelsius:0} to {cooling.LimitCelsius:0} °C")
                : null
        );
        add(Condition.PowerLimit, machine.PowerLimit is { } limit ? Invariant($"{limit:0} W") : null);
        add(Condition.MeasuredCosts, machine.Costs is { } costs ? Invariant($"of {costs.MeasuredAt:yyyy-MM-dd HH:mm}") : null);
        add(Condition.OperatingSystem, machine.OperatingSystem);
        add(Condition.DriverDate, machine.DriverDate is { } day ? Invariant($"{day:yyyy-MM-dd}") : null);
    }

    /// <param name="others">Gigabytes that other programs hold besides.</param>
    private static string? MemoryInUse(Machine machine, double others) =>
        machine.Kind == MachineKind.Real ? null : Invariant($"{machine.Memory.InUseGigabytes + others:0.#} GB");

    private static string Text(Drive drive) => Invariant(
        $"{drive.Kind}, {drive.ReadMegabytesPerSecond:0} MB/s; writes {drive.WriteMegabytesPerSecond:0} MB/s, {drive.LatencyMilliseconds:0.##} ms")
            + $", for {string.Join(", ", drive.Roles.Order().Select(role => role.ToString().ToLowerInvariant()))}";

    private static string Bus(Graphics unit) =>
        unit.BusGigabytesPerSecond is { } bus ? Invariant($", bus {bus:0.##} GB/s") : ", built in";

    private static string Text(MediaEngine engine)
    {
        var encodes = engine.Encodes is { Count: > 0 } rows ? $", encodes {Text(rows)}{EncodingRate(engine)}" : string.Empty;
        return $"decodes {Text(engine.Capabilities)}{encodes}";
    }

    private static string EncodingRate(MediaEngine engine) =>
        engine.EncodedMegapixelsPerSecond is { } rate ? Invariant($" at {rate:0} Mpixel/s") : string.Empty;

    private static string Text(IReadOnlyList<FormatCapability> rows) => rows.Count == 0 ? "nothing" : string.Join(", ", rows.Select(row => row.Notation));

    private static string AskedOn(string? device) => device switch
    {
        null => "the machine's devices",
        WorkPlace.Processor => "the processor only",
        _ => device,
    };

    private static string YesNo(bool value) => value ? "yes" : "no";

    private delegate void Adding(Condition what, string? value, string? of = null);
}
