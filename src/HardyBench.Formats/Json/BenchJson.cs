using System.Text.Json;
using System.Text.Json.Serialization;

namespace HardyBench.Formats.Json;

/// <summary>How the product writes JSON: names in camel case, enumerations as words, nulls written out.</summary>
public static class BenchJson
{
    public static JsonSerializerOptions Options { get; } = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        NumberHandling = JsonNumberHandling.Strict,
        IgnoreReadOnlyProperties = true,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase), new RasterConverter(), new FrameRateConverter() },
    };
}
