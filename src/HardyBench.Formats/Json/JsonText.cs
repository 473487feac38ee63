using System.Text.Json;

namespace HardyBench.Formats.Json;

/// <summary>JSON of strangers.</summary>
internal static class JsonText
{
    /// <exception cref="JsonException">It is no JSON, or a text in it holds half of a character, which nothing can store.</exception>
    public static JsonDocument Parse(string text)
    {
        var document = JsonDocument.Parse(
            text, new JsonDocumentOptions { CommentHandling = JsonCommentHandling.Skip, AllowTrailingCommas = true });
        try
        {
            Check(document.RootElement);
            return document;
        }
        catch (InvalidOperationException half)
        {
            document.Dispose();
            throw new JsonException("A text in it contains half of a character (a lone surrogate).", half);
        }
    }

    private static void Check(JsonElement element)
    {
        switch (element.ValueKind)
        {
            case JsonValueKind.String:
                _ = element.GetString();
                break;
            case JsonValueKind.Array:
                foreach (var one in element.EnumerateArray())
                {
                    Check(one);
                }

                break;
            case JsonValueKind.Object:
                foreach (var member in element.EnumerateObject())
                {
                    _ = member.Name;
                    Check(member.Value);
                }

                break;
        }
    }

    /// <summary>Members of a value that its type does not have, by path; none where all are known.</summary>
    /// <param name="known">Names besides, at the top.</param>
    public static IEnumerable<string> UnknownMembers(JsonElement element, Type type, params string[] known) =>
        Unknown(element, type, string.Empty, [.. known]);

    private static IEnumerable<string> Unknown(JsonElement element, Type type, string path, HashSet<string> known)
    {
        var info = BenchJson.Options.GetTypeInfo(Nullable.GetUnderlyingType(type) ?? type);
        if (element.ValueKind == JsonValueKind.Array && info.ElementType is { } inner)
        {
            foreach (var (place, one) in element.EnumerateArray().Index())
            {
                foreach (var unknown in Unknown(one, inner, $"{path}[{place}]", []))
                {
                    yield return unknown;
                }
            }
        }
        else if (element.ValueKind == JsonValueKind.Object && info.Kind == System.Text.Json.Serialization.Metadata.JsonTypeInfoKind.Object
            && info.PolymorphismOptions is null)
        {
            foreach (var member in element.EnumerateObject())
            {
                var property = info.Properties.FirstOrDefault(one => one.Name.Equals(member.Name, StringComparison.OrdinalIgnoreCase));
                var place = path.Length == 0 ? member.Name : $"{path}.{member.Name}";
                if (property is null)
                {
                    if (!known.Contains(member.Name))
                    {
                        yield return place;
                    }

                    continue;
                }

                foreach (var unknown in Unknown(member.Value, property.PropertyType, place, []))
                {
                    yield return unknown;
                }
            }
        }
    }
}
