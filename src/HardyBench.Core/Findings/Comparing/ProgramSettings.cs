using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using HardyBench.Core.Playback.Programs;

namespace HardyBench.Core.Findings.Comparing;

/// <summary>What an editing program's form sets, member by member: two programs may have one name.</summary>
internal static partial class ProgramSettings
{
    private static readonly JsonSerializerOptions Written = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter() },
    };

    /// <summary>What says nothing of how it plays.</summary>
    private static readonly string[] Names = ["id", "name", "summary"];

    /// <summary>By the member's name in words.</summary>
    public static IEnumerable<(string Member, string? Value)> Of(EditingProgram program) =>
        JsonSerializer.SerializeToNode(program, Written)!.AsObject()
            .Where(member => !Names.Contains(member.Key))
            .Select(member => (Words(member.Key), member.Key == "onMediaEngine" ? EngineFormats(program) : Text(member.Value)));

    private static string EngineFormats(EditingProgram program) =>
        program.OnMediaEngine is { } rows ? string.Join(", ", rows.Select(row => row.Notation)) : "everything";

    private static string? Text(JsonNode? value) => value switch
    {
        JsonArray list => string.Join(", ", list.Select(one => one?.ToString())),
        _ => value?.ToString(),
    };

    private static string Words(string member) => Capital().Replace(member, letter => $" {letter.Value.ToLowerInvariant()}");

    [GeneratedRegex("[A-Z]")]
    private static partial Regex Capital();
}
