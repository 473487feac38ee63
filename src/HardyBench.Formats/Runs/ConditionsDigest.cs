using System.Security.Cryptography;
using System.Text.Json;
using HardyBench.Core.Playback;
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
            header.Settings,
            header.Conditions.Player,
            header.ByHand,
            [.. header.ClipChecksums.OrderBy(clip => clip.Key, StringComparer.Ordinal).Select(clip => $"{clip.Key} {clip.Value}")]),
        BenchJson.Options)));

    private sealed record ComparedConditions(
        string Timeline, string Machine, PlaybackSettings Settings, string Player, bool ByHand, IReadOnlyList<string> Clips);
}
