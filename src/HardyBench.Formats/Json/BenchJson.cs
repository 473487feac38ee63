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
        TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { FormerNames.Accept } },
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase), new RasterConverter(), new FrameRateConverter() },
    };

    /// <summary>A value of an enumeration, spelt as in JSON, for the other formats.</summary>
    public static string Name<T>(T value)
        where T : struct, Enum => JsonNamingPolicy.CamelCase.ConvertName(value.ToString());
}
