using System.Collections.Frozen;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

namespace HardyBench.Formats.Json;

/// <summary>How the product writes JSON: names in camel case, enumerations as words, nulls written out.</summary>
public static class BenchJson
{
    public static JsonSerializerOptions Options { get; } = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        NumberHandling = JsonNumberHandling.Strict,
        IgnoreReadOnlyProperties = true,
        RespectNullableAnnotations = true,
        // What kind of part something is may stand anywhere in it.
        AllowOutOfOrderMetadataProperties = true,
        TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { FormerNames.Accept, DemandKind } },
        Converters =
        {
            new MachineKindConverter(),
            new JsonStringEnumConverter(JsonNamingPolicy.CamelCase),
            new RasterConverter(),
            new FrameRateConverter(),
        },
    };

    /// <summary>Something that comes in several kinds and does not say which is refused like any other wrong document. Without this the
    /// library takes it for an error of the program.</summary>
    public static void DemandKind(JsonTypeInfo type)
    {
        if (type is { PolymorphismOptions: { } kinds, Kind: JsonTypeInfoKind.Object } && type.Type.IsAbstract)
        {
            type.CreateObject = () => throw new JsonException($"Its '{kinds.TypeDiscriminatorPropertyName}' is missing.");
        }
    }

    /// <summary>A value of an enumeration, spelt as in JSON, for the other formats.</summary>
    public static string Name<T>(T value)
        where T : struct, Enum => Names<T>.All.TryGetValue(value, out var name) ? name : JsonNamingPolicy.CamelCase.ConvertName($"{value}");

    /// <summary>A long run has millions of rows with a name in each: one text serves them all.</summary>
    private static class Names<T>
        where T : struct, Enum
    {
        public static readonly FrozenDictionary<T, string> All = Enum.GetValues<T>().Distinct()
            .ToFrozenDictionary(value => value, value => JsonNamingPolicy.CamelCase.ConvertName($"{value}"));
    }
}
