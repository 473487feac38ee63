using System.Text.Json;
using HardyBench.Core.Machines;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Machines;

/// <summary>Machines as JSON, one or a whole shelf; docs/formats.md describes every member.</summary>
public static class MachineJson
{
    private const string Format = "hardy-bench-machines/1";

    public static string Write(IReadOnlyList<Machine> machines) =>
        JsonSerializer.Serialize(
            new { Format, Machines = machines.Select(machine => machine with { Kind = MachineKind.StandIn }) },
            BenchJson.Options
        );

    /// <summary>Reads the document that <see cref="Write"/> writes, a bare list, or one machine.</summary>
    /// <exception cref="ShelfException">The text is no JSON, or holds no machines.</exception>
    public static ShelfReading Read(string text)
    {
        using var document = Parse(text);
        var root = document.RootElement;
        var list = root.ValueKind == JsonValueKind.Object && root.TryGetProperty("machines", out var inside) ? inside : root;
        if (root.ValueKind == JsonValueKind.Object && root.TryGetProperty("format", out var format) && format.ToString() != Format)
        {
            throw new ShelfException($"The format is '{format}'; '{Format}' is read.");
        }

        var elements = list.ValueKind switch
        {
            JsonValueKind.Array => list.EnumerateArray().ToList(),
            JsonValueKind.Object => [list],
            _ => throw new ShelfException("The text holds no list of machines."),
        };
        var (machines, problems) = (new List<Machine>(), new List<RowProblem>());
        foreach (var (place, element) in elements.Index())
        {
            try
            {
                machines.Add(MachineLimits.Checked(Of(element)));
            }
            catch (Exception wrong) when (wrong is JsonException or MachineRefusedException)
            {
                problems.Add(new RowProblem($"machine {place + 1}", NameOf(element), Sentence(wrong)));
            }
        }

        return new ShelfReading(machines, problems);
    }

    /// <summary>An id and a kind need not be stated.</summary>
    private static Machine Of(JsonElement element)
    {
        if (element.ValueKind != JsonValueKind.Object)
        {
            throw new JsonException("It is no machine but something else.");
        }

        var members = new Dictionary<string, JsonElement>(StringComparer.OrdinalIgnoreCase);
        foreach (var member in element.EnumerateObject())
        {
            // The last of several that have one name, as JSON readers do.
            members[member.Name] = member.Value;
        }

        members.TryAdd("id", JsonSerializer.SerializeToElement(string.Empty));
        members.TryAdd("summary", JsonSerializer.SerializeToElement(string.Empty));
        members["kind"] = JsonSerializer.SerializeToElement("standIn");
        return JsonSerializer.Deserialize<Machine>(JsonSerializer.SerializeToElement(members), BenchJson.Options)!;
    }

    private static JsonDocument Parse(string text)
    {
        try
        {
            return JsonDocument.Parse(
                text,
                new JsonDocumentOptions { CommentHandling = JsonCommentHandling.Skip, AllowTrailingCommas = true }
            );
        }
        catch (JsonException wrong)
        {
            throw new ShelfException($"The text is no JSON: {wrong.Message}");
        }
    }

    private static string? NameOf(JsonElement element) =>
        element.ValueKind == JsonValueKind.Object && element.TryGetProperty("name", out var name) ? name.ToString() : null;

    private static string Sentence(Exception wrong) => wrong is JsonException { Path: { } path and not "$" }
        ? $"What stands at {path.TrimStart('$', '.')} is missing or no value that can be taken."
        : wrong.Message;
}
