using System.Text.Json;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Formats.Json;
using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Advice;

/// <summary>Briefs as JSON, one or all; docs/formats.md describes every member.</summary>
public static class BriefJson
{
    private const string Format = "hardy-bench-briefs/1";

    private static readonly IReadOnlyDictionary<string, JsonElement> Missing = new Dictionary<string, JsonElement>
    {
        ["id"] = JsonSerializer.SerializeToElement(string.Empty),
    };

    public static string Write(IReadOnlyList<Brief> briefs) =>
        JsonSerializer.Serialize(new { Format, Briefs = briefs }, BenchJson.Options);

    /// <summary>Reads the document that <see cref="Write"/> writes, a bare list, or one brief.</summary>
    /// <returns>Those that can be worked with, and what was left out.</returns>
    /// <exception cref="ShelfException">The text is no JSON, or holds no briefs.</exception>
    public static (IReadOnlyList<Brief> Briefs, IReadOnlyList<RowProblem> Problems) Read(string text) =>
        ShelfJson.Read<Brief>(text, Format, "brief", "briefs", Missing, BriefLimits.Checked);
}
