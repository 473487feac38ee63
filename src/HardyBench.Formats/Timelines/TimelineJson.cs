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
        JsonSerializer.Deserialize<Timeline>(json, BenchJson.Options) ?? throw new JsonException("The text contains no timeline.");

    /// <summary>Lower-case hex SHA-256 of all that is played: a timeline that differs in nothing but words, marks and what came with an
    /// import keeps its digest, and with it its results.</summary>
    public static string Digest(Timeline timeline) =>
        Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(Played(timeline), BenchJson.Options)));

    /// <summary>The same of one passage, whatever timeline it stands in: it is the same where two play the same.</summary>
    public static string Digest(Timeline timeline, int passage) => Digest(timeline.Only(passage) with { Id = string.Empty });

    private static Timeline Played(Timeline timeline) => timeline with
    {
        Title = string.Empty,
        About = null,
        Marks = null,
        Metadata = null,
        Passages = [.. timeline.Passages.Select(passage => passage.WithoutOff()).Select(passage => passage with
        {
            Question = string.Empty,
            Layers =
            [
                .. passage.Layers.Select(layer =>
                    layer with
                    {
                        Metadata = null,
                        Opacity = layer.IsTranslucent ? layer.Opacity : null,
                    }
                ),
            ],
        })],
    };
}
