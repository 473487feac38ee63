using System.Text.Json;
using HardyBench.Core.Playback.Programs;
using HardyBench.Formats.Json;
using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Programs;

/// <summary>Editing programs as JSON, one or all; docs/formats.md describes every member.</summary>
public static class ProgramJson
{
    private const string Format = "hardy-bench-programs/1";

    private static readonly IReadOnlyDictionary<string, JsonElement> Missing = new Dictionary<string, JsonElement>
    {
        ["id"] = JsonSerializer.SerializeToElement(string.Empty),
    };

    public static string Write(IReadOnlyList<EditingProgram> programs) =>
        JsonSerializer.Serialize(new { Format, Programs = programs }, BenchJson.Options);

    /// <summary>Reads the document that <see cref="Write"/> writes, a bare list, or one program.</summary>
    /// <returns>Those that can be worked with, and what was left out.</returns>
    /// <exception cref="ShelfException">The text is no JSON, or holds no editing programs.</exception>
    public static (IReadOnlyList<EditingProgram> Programs, IReadOnlyList<RowProblem> Problems) Read(string text) =>
        ShelfJson.Read<EditingProgram>(text, Format, "editing program", "programs", Missing, ProgramLimits.Checked);
}
