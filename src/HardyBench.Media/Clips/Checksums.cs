using System.Security.Cryptography;

namespace HardyBench.Media.Clips;

/// <summary>The checksum by which a file is known again.</summary>
public static class Checksums
{
    /// <returns>Lower-case hex SHA-256 of a file.</returns>
    public static async Task<string> OfFileAsync(string file, CancellationToken stop)
    {
        await using var stream = File.OpenRead(file);
        return Convert.ToHexStringLower(await SHA256.HashDataAsync(stream, stop));
    }
}
