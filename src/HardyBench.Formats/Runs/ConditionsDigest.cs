using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Nodes;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Formats.Json;
using HardyBench.Formats.Machines;
using HardyBench.Formats.Timelines;

namespace HardyBench.Formats.Runs;

/// <summary>Tells whether two runs are repeats of each other.</summary>
public static class ConditionsDigest
{
    /// <summary>Lower-case hex SHA-256 of timeline, machine, settings, clips and player.</summary>
    public static string Of(RunHeader header) => Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(
        new ComparedConditions(
            TimelineJson.Digest(header.Timeline),
            $"{header.Machine.Id} {MachineDigest.Of(header.Machine)}",
            SettingsOf(header),
            header.Conditions.Player,
            header.IsByHand,
            [.. header.ClipChecksums.OrderBy(clip => clip.Key, StringComparer.Ordinal).Select(clip => $"{clip.Key} {clip.Value}")]),
        BenchJson.Options)));

    /// <summary>What an export writes stands at the end of the settings, so that runs that were digested when it was one of them keep their
    /// digest.</summary>
    private static JsonNode SettingsOf(RunHeader header)
    {
        var settings = JsonSerializer.SerializeToNode(header.Settings, BenchJson.Options)!;
        if (header.Subject is Export export)
        {
            settings["export"] = JsonSerializer.SerializeToNode(export, BenchJson.Options);
        }

        return settings;
    }

    private sealed record ComparedConditions(
        string Timeline, string Machine, JsonNode Settings, string Player, bool ByHand, IReadOnlyList<string> Clips);
}
