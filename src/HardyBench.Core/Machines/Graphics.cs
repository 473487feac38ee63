namespace HardyBench.Core.Machines;

/// <summary>A graphics unit.</summary>
/// <param name="PeakGigaflops">Single-precision peak.</param>
/// <param name="BandwidthGigabytesPerSecond">Of its memory.</param>
/// <param name="MemoryGigabytes">Its own, or what it may take of the main memory.</param>
/// <param name="BusGigabytesPerSecond">Between main memory and its own; null for a built-in unit, which shares memory.</param>
public sealed record Graphics(
    string Name,
    double PeakGigaflops,
    double BandwidthGigabytesPerSecond,
    double MemoryGigabytes,
    double? BusGigabytesPerSecond)
{
    /// <summary>What memory gives it: a built-in unit cannot have more than main memory carries.</summary>
    public double ReachedBandwidth(Memory main) => BusGigabytesPerSecond is null && main.BandwidthGigabytesPerSecond is { } shared
        ? Math.Min(BandwidthGigabytesPerSecond, shared)
        : BandwidthGigabytesPerSecond;
}

/// <summary>What a bus carries: transfers a second and lane, 128 of 130 bits of payload, in gigabytes a second (PCI Express base
/// specifications 3.0 to 5.0: 8, 16 and 32 GT/s).</summary>
public static class BusRate
{
    /// <param name="generation">3 to 5.</param>
    /// <exception cref="ArgumentOutOfRangeException">There is no such generation.</exception>
    public static double GigabytesPerSecond(int generation, int lanes)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(generation, 3);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(generation, 5);
        return Math.Pow(2, generation) * 128 / 130 / 8 * lanes;
    }
}
