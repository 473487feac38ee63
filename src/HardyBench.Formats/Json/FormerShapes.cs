using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace HardyBench.Formats.Json;

/// <summary>Documents that were laid out differently in earlier versions, brought into the present layout before they are read. Nothing
/// that is stored is changed.</summary>
public static class FormerShapes
{
    /// <summary>A run's header. Until 2026-12 an export was one of the settings and scrubbing was a flag.</summary>
    /// <exception cref="JsonException">It is no JSON object.</exception>
    public static JsonNode OfHeader(string json)
    {
        var header = Parsed(json);
        if (header["subject"] is not null)
        {
            return header;
        }

        var export = Taken(header["settings"] as JsonObject, "export") as JsonObject;
        var byHand = Taken(header, "byHand")?.GetValueKind() == JsonValueKind.True;
        header["subject"] = export is not null ? Of("export", ("format", Taken(export, "format")), ("encoder", Taken(export, "encoder")))
            : byHand ? Of("byHand", ("moves", new JsonArray()))
            : Of("play");
        return header;
    }

    /// <summary>A trial as it was asked for. Until 2026-12 the parameters of all kinds were one list.</summary>
    /// <exception cref="JsonException">It is no JSON object.</exception>
    public static JsonNode OfTrial(string json)
    {
        var asked = Parsed(json);
        if (asked["trial"] is not null || Taken(asked, "kind") is not { } kind)
        {
            return asked;
        }

        var (times, atMost, other, without) =
            (Taken(asked, "times"), Taken(asked, "atMost"), Taken(asked, "other"), Taken(asked, "withoutEffect"));
        var export = Taken(asked["settings"] as JsonObject, "export") as JsonObject;
        asked["trial"] = Word(kind) switch
        {
            "capacity" or "repeat" => Of(kind, ("times", times)),
            "export" => Of(kind, ("times", times), ("format", Taken(export, "format")),
                ("encoder", Taken(export, "encoder"))),
            "startLag" => Of(kind, ("places", times)),
            "soak" => Of(kind, ("minutes", TimeSpan.TryParse(Word(atMost), CultureInfo.InvariantCulture, out var time) ? time.TotalMinutes : null)),
            "compare" => Of(kind, ("pairs", times), ("other", other), ("withoutEffect", without)),
            _ => Of(kind),
        };
        return asked;
    }

    private static JsonObject Parsed(string json) =>
        JsonNode.Parse(json, documentOptions: new JsonDocumentOptions { AllowDuplicateProperties = false }) as JsonObject
            ?? throw new JsonException("It is no JSON object.");

    private static string? Word(JsonNode? value) => value?.GetValueKind() == JsonValueKind.String ? (string?)value : null;

    /// <summary>A member, taken out of its object; null where there is none.</summary>
    private static JsonNode? Taken(JsonObject? from, string member)
    {
        from = from?.ContainsKey(member) == true ? from : null;
        var value = from?[member];
        from?.Remove(member);
        return value;
    }

    private static JsonObject Of(JsonNode kind, params ReadOnlySpan<(string Name, JsonNode? Value)> members)
    {
        var all = new JsonObject { ["kind"] = kind.DeepClone() };
        foreach (var (name, value) in members)
        {
            if (value is not null)
            {
                all[name] = value;
            }
        }

        return all;
    }
}
