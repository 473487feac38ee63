using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Machines;
using HardyBench.Formats.Json;
using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Advice;

/// <summary>A part as cells of text, as a table and a form have it: a column a member of the JSON, by its path.</summary>
public static class PartCells
{
    private static readonly string[]
        Texts = ["kind", "id", "name", "pricedOn", "socket", "memoryKind", "size", "interface", "words", "form", "largest"],
        Tables = ["capabilities", "encodes"],
        Head = ["kind", "id", "name", "price", "pricedOn"],
        OfProcessor = Within(
            "processor", "name", "cores", "threads", "relativeCoreSpeed", "clockGigahertz", "slowCores", "relativeSlowSpeed", "vectorBits"),
        OfEngine = Within("engine", "name", "megapixelsPerSecond", "capabilities", "encodedMegapixelsPerSecond", "encodes");

    /// <summary>What a part of each kind is stated by, in order, besides what all have.</summary>
    public static IReadOnlyDictionary<string, IReadOnlyList<string>> ByKind { get; } = new Dictionary<string, IReadOnlyList<string>>
    {
        ["processor"] = ["socket", "watts", .. OfProcessor, .. OfUnit("builtIn"), .. OfEngine],
        ["graphics"] = [.. OfUnit("unit"), "watts", "millimetres", .. OfEngine],
        ["board"] = ["socket", "memoryKind", "memorySlots", "mostGigabytes", "graphicsSlots", "nvmeSlots", "sataPorts", "size"],
        ["memory"] = ["memoryKind", "sticks", "gigabytesEach", "megatransfersPerSecond"],
        ["drive"] = ["interface", "words", "readMegabytesPerSecond", "writeMegabytesPerSecond", "latencyMilliseconds"],
        ["supply"] = ["watts"],
        ["cooler"] = ["watts", "millimetres", "decibels"],
        ["case"] = ["form", "largest", "graphicsMillimetres", "coolerMillimetres"],
    };

    /// <summary>Every column there is, in order.</summary>
    public static IReadOnlyList<string> Columns { get; } = [.. Head.Concat(ByKind.Values.SelectMany(columns => columns)).Distinct()];

    /// <summary>Every cell of a part that is filled, by its column.</summary>
    public static IReadOnlyDictionary<string, string> Of(Part part)
    {
        var (root, cells) = (JsonOf(part), new Dictionary<string, string>());
        foreach (var column in Columns)
        {
            var path = column.Split('.');
            var of = path.Length == 1 ? root : root[path[0]] as JsonObject;
            if (of?[path[^1]] is { } value)
            {
                cells[column] = value is JsonArray rows
                    ? FormatTable.Write(rows.Deserialize<List<FormatCapability>>(BenchJson.Options)!)
                    : value.ToString();
            }
        }

        return cells;
    }

    /// <summary>A part out of its cells.</summary>
    /// <param name="where">Of the file, for what is wrong.</param>
    /// <param name="before">What it is without them; null for nothing.</param>
    /// <param name="cells">Those that are filled; an unknown column is reported.</param>
    public static (Part? Part, RowProblem? Problem) Read(string where, Part? before, IEnumerable<(string Column, string Text)> cells)
    {
        var root = before is null ? [] : JsonOf(before);
        foreach (var (column, text) in cells)
        {
            if (Put(root, column, text) is { } wrong)
            {
                return (null, new RowProblem(where, (string?)root["name"], wrong));
            }
        }

        return ShelfJson.One<Part>(where, JsonSerializer.SerializeToElement(root), "part", CatalogueJson.Missing, PartLimits.Checked);
    }

    /// <returns>What is wrong with it, a sentence; null where nothing is.</returns>
    private static string? Put(JsonObject root, string column, string text)
    {
        if (!Columns.Contains(column))
        {
            return $"There is no column {column}.";
        }

        var path = column.Split('.');
        var into = path.Length == 1 ? root : (JsonObject)(root[path[0]] ??= new JsonObject());
        var member = path[^1];
        if (Tables.Contains(member))
        {
            var (rows, unread) = FormatTable.Read(text);
            into[member] = JsonSerializer.SerializeToNode(rows, BenchJson.Options);
            return unread.Count == 0 ? null : FormatTable.Refusal(unread[0], column);
        }

        if (Texts.Contains(member))
        {
            into[member] = text;
            return null;
        }

        if (!decimal.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number))
        {
            return $"'{text}' in {column} is not a number.";
        }

        into[member] = number;
        return null;
    }

    private static JsonObject JsonOf(Part part) => JsonSerializer.SerializeToNode(part, BenchJson.Options)!.AsObject();

    private static string[] OfUnit(string member) => Within(
        member, "name", "peakGigaflops", "bandwidthGigabytesPerSecond", "memoryGigabytes", "busGigabytesPerSecond");

    private static string[] Within(string member, params string[] inside) => [.. inside.Select(name => $"{member}.{name}")];
}
