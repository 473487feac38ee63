using System.Security.Cryptography;
using System.Text;

namespace HardyBench.Telemetry;

/// <summary>Tells one computer from another, without saying which it is.</summary>
public static class HostFingerprint
{
    /// <summary>Lower-case hex: the system's own id, hashed with a key of this product, as machine-id(5) of systemd asks of programs
    /// that keep it (https://www.freedesktop.org/software/systemd/man/latest/machine-id.html).</summary>
    /// <returns>Null where the system has no such id, as in many containers.</returns>
    public static string? Of(SystemFiles files) =>
        files.ReadText("etc/machine-id")?.Trim() is { Length: 32 } id && id.All(char.IsAsciiHexDigitLower)
            ? Convert.ToHexStringLower(HMACSHA256.HashData("Hardy Bench"u8, Encoding.ASCII.GetBytes(id)))
            : null;
}
