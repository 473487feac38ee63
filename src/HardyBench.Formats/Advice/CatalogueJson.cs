using System.Text.Json;
using HardyBench.Core.Advice.Parts;
using HardyBench.Formats.Json;
using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Advice;

/// <summary>Parts as JSON, one or all; docs/formats.md describes every member.</summary>
public static class CatalogueJson
{
    private const string Format = "hardy-bench-parts/1";

    internal static readonly IReadOnlyDictionary<string, JsonElement> Missing = new Dictionary<string, JsonElement>
    {
        ["id"] = JsonSerializer.SerializeToElement(string.Empty),
    };

    public static string Write(IReadOnlyList<Part> parts) => JsonSerializer.Serialize(new { Format, Parts = parts }, BenchJson.Options);

    /// <summary>Reads the document that <see cref="Write"/> writes, a bare list, or one part.</summary>
    /// <returns>Those that can be worked with, and what was left out.</returns>
    /// <exception cref="ShelfException">The text is no JSON, or holds no parts.</exception>
    public static (IReadOnlyList<Part> Parts, IReadOnlyList<RowProblem> Problems) Read(string text) =>
        ShelfJson.Read<Part>(text, Format, "part", "parts", Missing, PartLimits.Checked);
}
