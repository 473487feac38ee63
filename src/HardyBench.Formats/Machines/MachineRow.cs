using System.Globalization;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Machines;

/// <summary>A machine as the cells of a line, by column.</summary>
internal sealed class MachineRow(Dictionary<string, string> cells)
{
    private static readonly string[]
        Before = ["id", "name", "summary", "form", "processor", .. Numbers("processor"), .. Numbers("memory")],
        GraphicsColumns = ["graphics", .. Numbers("graphics")],
        EngineColumns = ["engine", .. Numbers("mediaEngines"), "engine_decodes", "engine_encodes"],
        DriveColumns = ["drive", "drive_roles", .. Numbers("drives")],
        CoolingColumns = ["fanless", .. Numbers("cooling")],
        PlacesColumns = ["socket", "memory_kind", .. Numbers("places")],
        Rest = ["on_battery", "operating_system", "driver_date", .. Numbers(string.Empty), "priced_on"];

    private readonly List<string> wrong = [];

    /// <summary>Every column there is, in order.</summary>
    public static IReadOnlyList<string> Columns { get; } =
    [
        .. Before, .. Repeated(GraphicsColumns), .. Repeated(EngineColumns), .. Repeated(DriveColumns), .. CoolingColumns, .. Rest,
        .. PlacesColumns,
    ];

    public string? Name => cells.GetValueOrDefault("name");

    /// <summary>Whether a column is written even where no machine fills it.</summary>
    public static bool IsFirst(string column) => !char.IsAsciiDigit(column[^1]);

    public static MachineRow Of(Machine machine)
    {
        var row = new MachineRow([]);
        row.Put("id", machine.Id);
        row.Put("name", machine.Name);
        row.Put("summary", machine.Summary);
        row.Put("form", machine.Form is { } form ? BenchJson.Name(form) : null);
        row.Put("processor", machine.Processor.Name);
        foreach (var figure in MachineFigures.All)
        {
            foreach (var (place, (_, value)) in figure.Read(machine).Index())
            {
                row.Put(At(figure.Column, place), value);
            }
        }

        foreach (var (place, unit) in machine.Graphics.Index())
        {
            row.Put(At("graphics", place), unit.Name);
        }

        foreach (var (place, engine) in machine.MediaEngines.Index())
        {
            row.Put(At("engine", place), engine.Name);
            row.Put(At("engine_decodes", place), FormatTable.Write(engine.Capabilities));
            row.Put(At("engine_encodes", place), engine.Encodes is { } encodes ? FormatTable.Write(encodes) : null);
        }

        foreach (var (place, drive) in machine.Drives.Index())
        {
            row.Put(At("drive", place), drive.Kind);
            row.Put(At("drive_roles", place), string.Join("; ", drive.Roles.Select(BenchJson.Name)));
        }

        row.Put("fanless", machine.Cooling?.Fanless);
        row.Put("on_battery", machine.OnBattery);
        row.Put("operating_system", machine.OperatingSystem);
        row.Put("driver_date", machine.DriverDate);
        row.Put("priced_on", machine.PricedOn);
        row.Put("socket", machine.Places?.Socket);
        row.Put("memory_kind", machine.Places?.MemoryKind);
        return row;
    }

    public IReadOnlyDictionary<string, string> ToDictionary() => cells;

    /// <exception cref="MachineRefusedException">A cell cannot be read, or one that is needed is empty.</exception>
    public Machine ToMachine()
    {
        var cores = Whole("cores") ?? Lacking("cores", 1);
        var machine = new Machine(
            Text("id") ?? string.Empty,
            Text("name") ?? string.Empty,
            MachineKind.StandIn,
            Text("summary") ?? string.Empty,
            new Processor(
                Text("processor") ?? string.Empty,
                cores,
                Whole("threads") ?? cores,
                Number("core_speed"),
                Number("clock_ghz"),
                Whole("slow_cores") ?? 0,
                Number("slow_core_speed"), Whole("vector_bits")),
            [.. Filled(GraphicsColumns).Select(place => new Graphics(
                Text(At("graphics", place))!, Needed(At("graphics_gflops", place)), Needed(At("graphics_gb_s", place)),
                Needed(At("graphics_gb", place)), Number(At("graphics_bus_gb_s", place))))],
            [.. Filled(EngineColumns).Select(place => new MediaEngine(
                Text(At("engine", place))!, Needed(At("engine_mpixel_s", place)), Capabilities(At("engine_decodes", place)))
            {
                EncodedMegapixelsPerSecond = Number(At("engine_encode_mpixel_s", place)),
                Encodes = Capabilities(At("engine_encodes", place)) is { Count: > 0 } encodes ? encodes : null,
            })],
            new Memory(
                Number("memory_gb") ?? Lacking("memory_gb", 1.0),
                Number("memory_in_use_gb") ?? 0,
                Whole("sticks"),
                Whole("memory_mt_s"),
                Whole("channels")
            ),
            [.. Filled(DriveColumns).Select(place => new Drive(
                Roles(At("drive_roles", place)), Text(At("drive", place))!, Needed(At("drive_read_mb_s", place)),
                Number(At("drive_write_mb_s", place)) ?? Number(At("drive_read_mb_s", place)) ?? 0,
                Number(At("drive_latency_ms", place)) ?? 0))],
            Cooling(),
            (decimal?)Within(Number("price_eur")))
        {
            Form = Word<MachineForm>("form"), OnBattery = Truth("on_battery") ?? false, NoiseDecibels = Number("noise_db"),
            OperatingSystem = Text("operating_system"), DriverDate = Day("driver_date"), PricedOn = Day("priced_on"),
            Places = Places(),
        };
        if (machine is { OnBattery: true, HasBattery: false })
        {
            wrong.Add("on_battery is yes, and battery_w is empty.");
        }

        return wrong.Count == 0 ? machine : throw new MachineRefusedException(string.Join(' ', wrong));
    }

    /// <summary>All of it, or none: a part of it describes nothing.</summary>
    private Cooling? Cooling() => CoolingColumns.All(column => Text(column) is null) ? null : new Cooling(
        Truth("fanless") ?? Lacking("fanless", false),
        Needed("resistance_k_w"),
        Needed("capacity_j_k"),
        Number("ambient_c") ?? 24,
        Needed("limit_c"),
        Needed("idle_w"),
        Needed("full_w"), Number("mains_w"), Number("battery_w"));

    private Places? Places() => PlacesColumns.All(column => Text(column) is null) ? null : new Places(
        Text("socket"), Number("cooler_w"), Text("memory_kind"), Whole("memory_slots"), Number("most_memory_gb"), Whole("free_nvme"),
        Whole("free_sata"), Number("graphics_room_mm"), Number("supply_w"), Number("graphics_w"));

    private static IEnumerable<string> Repeated(string[] columns) =>
        Enumerable.Range(0, MachineLimits.MaxParts).SelectMany(place => columns.Select(column => At(column, place)));

    /// <summary>The columns of a part's numbers.</summary>
    private static IEnumerable<string> Numbers(string part) =>
        MachineFigures.All.Where(figure => figure.Part == part).Select(figure => figure.Column);

    private static string At(string column, int place) =>
        place == 0 ? column : string.Create(CultureInfo.InvariantCulture, $"{column}_{place + 1}");

    /// <summary>Places of which anything is stated; one that has figures needs a name too.</summary>
    private IEnumerable<int> Filled(string[] columns)
    {
        foreach (var place in Enumerable.Range(0, MachineLimits.MaxParts))
        {
            var isNamed = Text(At(columns[0], place)) is not null;
            if (!isNamed && columns.FirstOrDefault(column => Text(At(column, place)) is not null) is { } stated)
            {
                wrong.Add($"The column {At(columns[0], place)} is empty, and {At(stated, place)} is not.");
            }

            if (isNamed)
            {
                yield return place;
            }
        }
    }

    private IReadOnlyList<FormatCapability> Capabilities(string column)
    {
        var (rows, unread) = FormatTable.Read(Text(column) ?? string.Empty);
        wrong.AddRange(unread.Select(text => FormatTable.Refusal(text, column)));
        return rows;
    }

    private List<DriveRole> Roles(string column)
    {
        var roles = new List<DriveRole>();
        foreach (
            var word in (Text(column) ?? "media; project; renders; system").Split(
                ';',
                StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries
            )
        )
        {
            if (Enum.TryParse<DriveRole>(word, ignoreCase: true, out var role) && Enum.IsDefined(role))
            {
                roles.Add(role);
            }
            else
            {
                wrong.Add($"'{word}' in {column} is not a drive's role; known: media, project, renders and system.");
            }
        }

        return roles;
    }

    private void Put(string column, object? value)
    {
        if (value is not null)
        {
            cells[column] = value switch
            {
                bool truth => truth ? "yes" : "no",
                DateOnly day => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                IFormattable number => number.ToString(null, CultureInfo.InvariantCulture),
                _ => value.ToString()!,
            };
        }
    }

    private string? Text(string column) => cells.GetValueOrDefault(column) is { Length: > 0 } text ? text : null;

    private double? Number(string column) => Parsed(column, "a number", text =>
        double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && double.IsFinite(number)
            ? number
            : (double?)null
    );

    private int? Whole(string column) => Parsed(column, "a whole number", text =>
        int.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number) ? number : (int?)null);

    private DateOnly? Day(string column) => Parsed(column, "a day such as 2026-11-26", text =>
        DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day : (DateOnly?)null);

    private bool? Truth(string column) => Parsed(column, "yes or no", text =>
        text.ToLowerInvariant() switch { "yes" or "true" or "1" => true, "no" or "false" or "0" => false, _ => (bool?)null });

    private T? Word<T>(string column)
        where T : struct, Enum => Parsed(column, $"one of {string.Join(", ", Enum.GetValues<T>().Select(BenchJson.Name))}", text =>
        Enum.TryParse<T>(text, ignoreCase: true, out var word) && Enum.IsDefined(word) ? word : (T?)null);

    private T? Parsed<T>(string column, string what, Func<string, T?> parse)
        where T : struct
    {
        if (Text(column) is not { } text)
        {
            return null;
        }

        if (parse(text) is { } value)
        {
            return value;
        }

        wrong.Add($"'{text}' in {column} is not {what}.");
        return null;
    }

    private double Needed(string column) => Number(column) ?? Lacking(column, 1.0);

    private T Lacking<T>(string column, T instead)
    {
        if (Text(column) is null)
        {
            wrong.Add($"The column {column} is empty.");
        }

        return instead;
    }

    /// <summary>What no amount can be is refused by the limits, not by arithmetic.</summary>
    private static double? Within(double? price) => price is { } amount ? Math.Clamp(amount, -1e9, 1e9) : null;
}
