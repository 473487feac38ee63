using static System.FormattableString;

namespace HardyBench.Core.Machines;

/// <summary>A machine that cannot be worked with; the message says what is wrong with it.</summary>
public sealed class MachineRefusedException(string message) : Exception(message);

/// <summary>What keeps a description from being a machine: parts that are missing, negative, absurd or contradict each other.</summary>
public static class MachineLimits
{
    public const int LongestName = 80, MaxParts = 8, MaxCapabilities = 64;

    private const int LongestText = 200, LargestSide = 65_536;

    /// <exception cref="MachineRefusedException">Something is wrong with it; everything is named.</exception>
    public static Machine Checked(Machine machine)
    {
        var problems = Problems(machine).ToList();
        return problems.Count == 0 ? machine : throw new MachineRefusedException(string.Join(' ', problems));
    }

    /// <summary>A sentence each; nothing for a machine that can be simulated.</summary>
    public static IReadOnlyList<string> Problems(Machine machine) => Lacking(machine).ToList() is { Count: > 0 } lacking ? lacking :
    [
        .. Named(machine), .. MachineFigures.All.SelectMany(figure => figure.Problems(machine)), .. OfProcessor(machine.Processor),
        .. OfMemory(machine), .. TooMany("graphics units", machine.Graphics.Count, MaxParts), .. OfEngines(machine), .. OfDrives(machine),
        .. OfCooling(machine), .. machine.Form is { } form && !Enum.IsDefined(form) ? ["The form is unknown."] : Array.Empty<string>(),
        .. OfCosts(machine.Costs),
    ];

    private static IEnumerable<string> Lacking(Machine machine)
    {
        if (
            machine.Processor is null
            || machine.Memory is null
            || machine.Graphics is null
            || machine.MediaEngines is null
            || machine.Drives is null
            || machine.Graphics.Contains(null!)
            || machine.MediaEngines.Any(engine => engine?.Capabilities is null || engine.Capabilities.Contains(null!)
                || engine.Encodes?.Contains(null!) == true)
            || machine.Drives.Any(drive => drive?.Roles is null))
        {
            yield return "A part is missing: a machine has a processor, memory, and lists of graphics units, media engines and drives.";
        }
    }

    private static IEnumerable<string> OfCosts(MachineCosts? costs)
    {
        const int MaxCosts = 200;
        const double LongestNanoseconds = 1e6;
        if (costs is null)
        {
            yield break;
        }

        if (costs.Decoding is null || costs.Treating is null || costs.Decoding.Count > MaxCosts || costs.Treating.Count > MaxCosts
            || costs.Decoding.Any(cost => cost is null || !Enum.IsDefined(cost.Codec))
            || costs.Treating.Any(time => string.IsNullOrEmpty(time?.Work)))
        {
            yield return $"Measured costs are two lists of up to {MaxCosts} costs, of known codecs and of known effects.";
        }
        else if (costs.Decoding.Any(cost => Figures(cost).Any(figure => figure is not (>= 0 and < 1e12))
                     || cost.PerSampleByte + cost.PerBit <= 0 || cost.SerialPart > 1
                     || cost.BitsSerialPart is not (null or (>= 0 and <= 1)))
                 || costs.Treating.Any(time =>
                     time.Nanoseconds is not (null or (>= 0 and <= LongestNanoseconds))
                     || time.DeepNanoseconds is not (null or (>= 0 and <= LongestNanoseconds)))
                 || costs.Band is not (> 0 and <= 10) || costs.AllBusy is not (> 0 and <= 1))
        {
            yield return "Measured costs are not below 0, the band of predictions is 0 to 10, and the speed of a core while all are busy is 0 to 1.";
        }

        static double[] Figures(CodecCost cost) =>
        [
            cost.PerSampleByte, cost.PerBit, cost.PerSampleByteHalf, cost.PerBitHalf, cost.SerialPart, cost.MostSampleBytes, cost.MostBits,
        ];
    }

    private static IEnumerable<string> Named(Machine machine)
    {
        if (string.IsNullOrWhiteSpace(machine.Name) || machine.Name.Length > LongestName)
        {
            yield return $"A machine has a name of 1 to {LongestName} letters.";
        }

        foreach (var (what, text) in Texts(machine))
        {
            if (text is null || text.Length > LongestText || text.Any(char.IsControl))
            {
                yield return $"The {what} has at most {LongestText} letters, in one line.";
            }
        }
    }

    private static IEnumerable<(string What, string? Text)> Texts(Machine machine) =>
    [
        ("name", machine.Name),
        ("summary", machine.Summary),
        ("processor's name", machine.Processor.Name),
        ("operating system", machine.OperatingSystem ?? string.Empty),
        ("socket", machine.Places?.Socket ?? string.Empty),
        ("kind of memory", machine.Places?.MemoryKind ?? string.Empty),
        .. machine.Graphics.Select(unit => ("graphics unit's name", unit.Name)),
        .. machine.MediaEngines.Select(engine => ("media engine's name", engine.Name)),
        .. machine.Drives.Select(drive => ("drive's kind", drive.Kind)),
    ];

    private static IEnumerable<string> OfProcessor(Processor processor)
    {
        if (processor.Threads < processor.Cores)
        {
            yield return $"{processor.Threads} threads are fewer than {processor.Cores} cores; each core has at least one.";
        }

        if (processor.SlowCores > 0 && processor.SlowCores >= processor.Cores)
        {
            yield return $"{processor.SlowCores} slow cores leave no fast one of {processor.Cores}; describe a processor of equal "
                + "cores without slow ones.";
        }

        if (processor.SlowCores > 0 && processor.RelativeSlowSpeed is null)
        {
            yield return "There are slow cores, but their speed is not stated.";
        }

        if (processor.RelativeSlowSpeed > processor.FastSpeed)
        {
            yield return Invariant($"A slow core cannot be faster ({processor.RelativeSlowSpeed}) than a fast one ({processor.FastSpeed}).");
        }

        if (processor.VectorBits is { } bits and >= 64 and <= 2048 && bits is not (64 or 128 or 256 or 512 or 1024 or 2048))
        {
            yield return $"Vector units are 64 to 2048 bits wide, a power of two, not {bits}.";
        }
    }

    private static IEnumerable<string> OfMemory(Machine machine)
    {
        var memory = machine.Memory;
        if (memory.InUseGigabytes >= memory.Gigabytes)
        {
            yield return Invariant($"{memory.InUseGigabytes} GB in use leave nothing of {memory.Gigabytes} GB.");
        }

        if (
            machine.Graphics.FirstOrDefault(unit => unit.BusGigabytesPerSecond is null && unit.MemoryGigabytes > memory.Gigabytes) is
            { } built
        )
        {
            yield return Invariant($"{built.Name} shares main memory and cannot take {built.MemoryGigabytes} of {memory.Gigabytes} GB.");
        }
    }

    private static IEnumerable<string> OfEngines(Machine machine) =>
    [
        .. TooMany("media engines", machine.MediaEngines.Count, MaxParts),
        .. machine.MediaEngines.SelectMany(engine => OfTable(engine.Name, engine.Capabilities)
            .Concat(OfTable(engine.Name, engine.Encodes ?? []))
            .Concat(engine.Encodes is { Count: > 0 } == engine.EncodedMegapixelsPerSecond is not null ? []
                : [$"{engine.Name}: state both the formats that it encodes and the Mpixel/s, or neither."])),
    ];

    private static IEnumerable<string> OfTable(string engine, IReadOnlyList<FormatCapability> rows) =>
    [
        .. TooMany($"rows in the table of {engine}", rows.Count, MaxCapabilities),
        .. rows.SelectMany(row => Within($"bit depth of {engine}", row.MaxBitDepth, 8, 16)
            .Concat(Within($"width of {engine}'s largest raster", row.MaxRaster.Width, 2, LargestSide))
            .Concat(Within($"height of {engine}'s largest raster", row.MaxRaster.Height, 2, LargestSide))),
        .. rows.Any(row => !Enum.IsDefined(row.Codec) || !Enum.IsDefined(row.Chroma))
            ? [$"{engine} has a row with an unknown codec or chroma."]
            : Array.Empty<string>(),
    ];

    private static IEnumerable<string> OfDrives(Machine machine)
    {
        foreach (var problem in TooMany("drives", machine.Drives.Count, MaxParts))
        {
            yield return problem;
        }

        if (machine.Drives.Any(drive => drive.Roles.Any(role => !Enum.IsDefined(role))))
        {
            yield return "A drive has an unknown role.";
        }

        foreach (var role in machine.Drives.SelectMany(drive => drive.Roles).GroupBy(role => role).Where(role => role.Count() > 1))
        {
            yield return $"Two drives have the role {role.Key.ToString().ToLowerInvariant()}; give it to one.";
        }
    }

    private static IEnumerable<string> OfCooling(Machine machine)
    {
        if (machine.Cooling is not { } cooling)
        {
            return machine.OnBattery ? ["It runs from its battery, but no power is stated; fill in cooling and power."] : [];
        }

        return
        [
            .. cooling.FullWatts <= cooling.IdleWatts
                ? [Invariant($"{cooling.FullWatts} W at full load are not more than {cooling.IdleWatts} W idle.")]
                : Array.Empty<string>(),
            .. cooling.LimitCelsius <= cooling.AmbientCelsius + cooling.IdleWatts * cooling.ResistanceKelvinPerWatt
                ? ["It would reach its temperature limit while idle: the limit is too low, or the cooling too weak."]
                : Array.Empty<string>(),
            .. new[] { cooling.MainsWatts, cooling.BatteryWatts }.Any(limit => limit <= cooling.IdleWatts)
                ? ["A power limit has to be above the idle power."] : Array.Empty<string>(),
            .. machine.OnBattery && cooling.BatteryWatts is null
                ? ["It runs from its battery, but no power limit on battery is stated."]
                : Array.Empty<string>(),
        ];
    }

    private static IEnumerable<string> Within(string what, double? value, double least, double most) =>
        value is { } known && !(known >= least && known <= most)
            ? [Invariant($"The {what} is {known}; allowed: {least} to {most}.")]
            : [];

    private static IEnumerable<string> TooMany(string what, int count, int most) =>
        count > most ? [$"There are {count} {what}; allowed: at most {most}."] : [];
}
