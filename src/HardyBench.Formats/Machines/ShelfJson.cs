using System.Text.Json;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback.Programs;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Machines;

/// <summary>Things of a shelf as JSON, one or many, each read by itself so that a bad one costs no other.</summary>
internal static class ShelfJson
{
    /// <summary>More members that nobody knows are not named.</summary>
    private const int MaxNamed = 5;

    /// <summary>Reads a document with a format and a list, a bare list, or one thing.</summary>
    /// <param name="noun">What one is called: "machine".</param>
    /// <param name="listName">The member that holds the list.</param>
    /// <param name="missing">Members that need not be stated, as JSON.</param>
    /// <param name="check">Throws where a thing cannot be worked with.</param>
    /// <exception cref="ShelfException">The text is no JSON, or holds no such things.</exception>
    public static (IReadOnlyList<T> Things, IReadOnlyList<RowProblem> Problems) Read<T>(
        string text, string expected, string noun, string listName, IReadOnlyDictionary<string, JsonElement> missing, Func<T, T> check)
        where T : class
    {
        using var document = Parse(text);
        var root = document.RootElement;
        var list = root.ValueKind == JsonValueKind.Object && root.TryGetProperty(listName, out var inside) ? inside : root;
        if (root.ValueKind == JsonValueKind.Object && root.TryGetProperty("format", out var format) && format.ToString() != expected)
        {
            throw new ShelfException($"The format is '{format}'; expected: '{expected}'.");
        }

        var elements = list.ValueKind switch
        {
            JsonValueKind.Array => list.EnumerateArray().ToList(),
            JsonValueKind.Object => [list],
            _ => throw new ShelfException($"The text contains no list of {noun}s."),
        };
        var (things, problems) = (new List<T>(), new List<RowProblem>());
        foreach (var (place, element) in elements.Index())
        {
            var (thing, problem) = One($"{noun} {place + 1}", element, noun, missing, check);
            things.AddRange(thing is null ? [] : [thing]);
            problems.AddRange(problem is null ? [] : [problem]);
            if (thing is not null && JsonText.UnknownMembers(element, typeof(T)).Take(MaxNamed).ToList() is { Count: > 0 } unknown)
            {
                problems.Add(new RowProblem(
                    $"{noun} {place + 1}", NameOf(element),
                    $"It was added. Unknown members were ignored: {string.Join(", ", unknown)}."));
            }
        }

        return (things, problems);
    }

    /// <summary>Reads one thing, or says what is wrong with it.</summary>
    /// <param name="where">Of the file, for what is wrong.</param>
    public static (T? Thing, RowProblem? Problem) One<T>(
        string where, JsonElement element, string noun, IReadOnlyDictionary<string, JsonElement> missing, Func<T, T> check)
        where T : class
    {
        try
        {
            return (check(Of<T>(element, noun, missing)), null);
        }
        catch (Exception wrong) when (wrong is JsonException or NotSupportedException or MachineRefusedException
            or ProgramRefusedException or BriefRefusedException or PartRefusedException)
        {
            return (null, new RowProblem(where, NameOf(element), Sentence(wrong)));
        }
    }

    private static T Of<T>(JsonElement element, string noun, IReadOnlyDictionary<string, JsonElement> missing)
    {
        if (element.ValueKind != JsonValueKind.Object)
        {
            throw new JsonException($"It is not a {noun}.");
        }

        var members = new Dictionary<string, JsonElement>(missing, StringComparer.OrdinalIgnoreCase);
        foreach (var member in element.EnumerateObject())
        {
            // The last of several that have one name, as JSON readers do.
            members[member.Name] = member.Value;
        }

        return JsonSerializer.Deserialize<T>(JsonSerializer.SerializeToElement(members), BenchJson.Options)!;
    }

    private static JsonDocument Parse(string text)
    {
        try
        {
            return JsonText.Parse(text);
        }
        catch (JsonException wrong)
        {
            throw new ShelfException($"The text is not JSON: {wrong.Message}");
        }
    }

    private static string? NameOf(JsonElement element) =>
        element.ValueKind == JsonValueKind.Object && element.TryGetProperty("name", out var name) ? name.ToString() : null;

    private static string Sentence(Exception wrong) => wrong is NotSupportedException
        ? "Its kind is missing or unknown."
        : wrong is JsonException { Path: { } path and not "$" }
        ? $"The value of {path.TrimStart('$', '.')} is missing or invalid."
        : wrong.Message;
}
