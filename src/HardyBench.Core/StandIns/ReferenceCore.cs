namespace HardyBench.Core.StandIns;

/// <summary>The core that all relative speeds are against: one core of the machine on which the decode costs were
/// timed. Its effective rates on picture work, rounded.</summary>
internal static class ReferenceCore
{
    public const double FlopPerSecond = 6e9;

    public const double BytesPerSecond = 5e9;
}
