using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using CsvHelper;
using CsvHelper.Configuration;
using HardyBench.Core.Advice.Parts;
using HardyBench.Formats.Files;
using HardyBench.Formats.Json;
using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Advice;

/// <summary>Parts as comma-separated text with a head line (RFC 4180), a part a line: a column a member of the JSON, by its path. A line
/// whose id is there already changes what it names, so that ids and prices alone are a new list of prices.</summary>
public static class CatalogueCsv
{
    /// <summary>More lines than this are not read.</summary>
    public const int MostLines = 20_000;

    private static readonly string[]
        Texts = ["kind", "id", "name", "pricedOn", "socket", "memoryKind", "size", "interface", "words", "form", "largest"],
        OfProcessor = ["name", "cores", "threads", "relativeCoreSpeed", "clockGigahertz", "slowCores", "relativeSlowSpeed", "vectorBits"],
        OfUnit = ["name", "peakGigaflops", "bandwidthGigabytesPerSecond", "memoryGigabytes", "busGigabytesPerSecond"],
        OfEngine = ["name", "megapixelsPerSecond", "capabilities", "encodedMegapixelsPerSecond", "encodes"],
        Tables = ["capabilities", "encodes"];

    /// <summary>Every column there is, in order.</summary>
    public static IReadOnlyList<string> Columns { get; } =
    [
        "kind", "id", "name", "price", "pricedOn", "socket", "watts", .. OfProcessor.Select(member => $"processor.{member}"),
        .. OfUnit.Select(member => $"builtIn.{member}"), .. OfUnit.Select(member => $"unit.{member}"),
        .. OfEngine.Select(member => $"engine.{member}"), "memoryKind", "memorySlots", "mostGigabytes", "graphicsSlots", "nvmeSlots",
        "sataPorts", "size", "sticks", "gigabytesEach", "megatransfersPerSecond", "millimetres", "interface", "words",
        "readMegabytesPerSecond", "writeMegabytesPerSecond", "latencyMilliseconds", "decibels", "form", "largest", "graphicsMillimetres",
        "coolerMillimetres",
    ];

    public static string Write(IReadOnlyList<Part> parts)
    {
        var rows = parts.Select(part => Cells(JsonOf(part))).ToList();
        var columns = Columns.Where(column => rows.Exists(row => row.ContainsKey(column))).ToList();
        return CsvText.Of(columns, rows);
    }

    /// <param name="present">Parts that are there.</param>
    /// <returns>Those that can be worked with, and what was left out.</returns>
    /// <exception cref="ShelfException">There is no head line that names ids or kinds, or far too many lines.</exception>
    public static (IReadOnlyList<Part> Parts, IReadOnlyList<RowProblem> Problems) Read(string text, IReadOnlyList<Part> present)
    {
        using var reader = new StringReader(text);
        using var csv = new CsvReader(reader, new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            BadDataFound = null, MissingFieldFound = null, TrimOptions = TrimOptions.Trim,
        });
        var head = csv.Read() && csv.ReadHeader() ? csv.HeaderRecord!.Select(NameOf).ToList() : [];
        if (!head.Contains("id") && !head.Contains("kind"))
        {
            throw new ShelfException(
                "The head line names neither id nor kind. A list of prices has id and price; export the parts to see every column.");
        }

        var unknown = head.Where(name => name.Length > 0 && !Columns.Contains(name)).ToList();
        var (parts, problems) = (new List<Part>(), new List<RowProblem>());
        if (unknown.Count > 0)
        {
            problems.Add(new RowProblem("line 1", null, $"There is no column {string.Join(", ", unknown)}; it was passed over."));
        }

        var known = present.ToDictionary(part => part.Id);
        while (csv.Read())
        {
            if (parts.Count + problems.Count > MostLines)
            {
                throw new ShelfException($"The table has more than {MostLines} lines. Nothing was taken; divide it.");
            }

            var cells = head.Index().Where(column => Columns.Contains(column.Item)).DistinctBy(column => column.Item)
                .Select(column => (Column: column.Item, Text: csv.GetField(column.Index) ?? string.Empty))
                .Where(cell => cell.Text.Length > 0).ToList();
            var (part, problem) = Read($"line {csv.Parser.RawRow}", cells, known);
            parts.AddRange(part is null ? [] : [part]);
            problems.AddRange(problem is null ? [] : [problem]);
        }

        return (parts, problems);
    }

    private static (Part? Part, RowProblem? Problem) Read(
        string where, List<(string Column, string Text)> cells, Dictionary<string, Part> known)
    {
        var id = cells.Find(cell => cell.Column == "id").Text;
        var root = id is not null && known.TryGetValue(id, out var before) ? JsonOf(before) : [];
        if (root.Count == 0 && !cells.Exists(cell => cell.Column == "kind"))
        {
            return (null, new RowProblem(
                where, cells.Find(cell => cell.Column == "name").Text ?? id,
                id is null ? "It has neither an id nor a kind." : $"There is no part '{id}' to change, and a new one needs its kind."));
        }

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

    /// <summary>Every cell of a part, by its column.</summary>
    private static Dictionary<string, string> Cells(JsonObject root)
    {
        var cells = new Dictionary<string, string>();
        foreach (var column in Columns)
        {
            var path = column.Split('.');
            var of = path.Length == 1 ? root : root[path[0]] as JsonObject;
            if (of?[path[^1]] is { } value)
            {
                cells[column] = value is JsonArray rows
                    ? FormatTable.Write(rows.Deserialize<List<Core.Machines.FormatCapability>>(BenchJson.Options)!)
                    : value.ToString();
            }
        }

        return cells;
    }

    private static JsonObject JsonOf(Part part) => JsonSerializer.SerializeToNode(part, BenchJson.Options)!.AsObject();

    /// <summary>A column as the list above writes it, however somebody else did.</summary>
    private static string NameOf(string head) =>
        Columns.FirstOrDefault(column => column.Equals(head.Trim(), StringComparison.OrdinalIgnoreCase)) ?? head.Trim();
}
