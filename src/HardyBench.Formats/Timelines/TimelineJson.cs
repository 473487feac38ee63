using System.Security.Cryptography;
using System.Text.Json;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Timelines;

/// <summary>Timelines as JSON.</summary>
public static class TimelineJson
{
    public static string Write(Timeline timeline) => JsonSerializer.Serialize(timeline, BenchJson.Options);

    /// <exception cref="JsonException">The text is not a timeline.</exception>
    public static Timeline Read(string json) =>
        JsonSerializer.Deserialize<Timeline>(json, BenchJson.Options) ?? throw new JsonException("The text holds no timeline.");

    /// <summary>Lower-case hex SHA-256 of all that is played: two timelines with the same digest ask the same.</summary>
    public static string Digest(Timeline timeline) =>
        Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(timeline, BenchJson.Options)));
}
