namespace HardyBench.Core.Machines;

/// <summary>Memory of the machine.</summary>
/// <param name="InUseGigabytes">What the system and other programs hold before playing starts.</param>
/// <param name="Channels">64-bit channels in use.</param>
public sealed record Memory(double Gigabytes, double InUseGigabytes, int? Sticks, int? MegatransfersPerSecond, int? Channels = null)
{
    /// <summary>Transfers of 8 bytes on every channel: DDR5-5600 carries 44.8 GB/s on one (the naming arithmetic of JEDEC's DDR
    /// standards).</summary>
    public double? BandwidthGigabytesPerSecond => MegatransfersPerSecond * 8 / 1000.0 * Channels;
}
