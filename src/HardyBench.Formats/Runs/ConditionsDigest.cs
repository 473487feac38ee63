using System.Security.Cryptography;
using System.Text.Json;
using HardyBench.Core.Playback;
using HardyBench.Formats.Json;
using HardyBench.Formats.Timelines;

namespace HardyBench.Formats.Runs;

/// <summary>Tells whether two runs are repeats of each other.</summary>
public static class ConditionsDigest
{
    /// <summary>Lower-case hex SHA-256 of timeline, machine, settings, clips and player.</summary>
    public static string Of(RunHeader header) => Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(
        new
        {
            Timeline = TimelineJson.Digest(header.Timeline),
            Machine = header.Machine.Id,
            header.Settings,
            Clips = header.ClipChecksums.OrderBy(clip => clip.Key, StringComparer.Ordinal),
            header.Conditions.Player,
            header.ByHand,
        },
        BenchJson.Options)));
}
