using System.Security.Cryptography;
using System.Text.Json;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Advice;

/// <summary>Short names of what an answer hangs on.</summary>
public static class BriefDigest
{
    /// <summary>SHA-256 of the value as JSON.</summary>
    public static string Of<T>(T value) =>
        Convert.ToHexString(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(value, BenchJson.Options)));
}
