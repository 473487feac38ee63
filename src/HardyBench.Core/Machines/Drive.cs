namespace HardyBench.Core.Machines;

/// <summary>What lies on a drive.</summary>
public enum DriveRole
{
    Media,
    Project,
    Renders,

    /// <summary>The system, its programs and its swap.</summary>
    System,
}

/// <summary>A drive and what lies on it.</summary>
/// <param name="Kind">In words: "NVMe", "SATA", "mechanical", "striped array".</param>
/// <param name="LatencyMilliseconds">Until the first byte of a place elsewhere.</param>
public sealed record Drive(
    IReadOnlyList<DriveRole> Roles, string Kind, double ReadMegabytesPerSecond, double WriteMegabytesPerSecond, double LatencyMilliseconds)
{
    /// <summary>Everything lies on it.</summary>
    public static IReadOnlyList<DriveRole> AllRoles { get; } = Enum.GetValues<DriveRole>();
}
