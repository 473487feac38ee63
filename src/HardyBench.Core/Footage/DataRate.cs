using System.Globalization;

namespace HardyBench.Core.Footage;

/// <summary>Bits a second.</summary>
public readonly record struct DataRate(long BitsPerSecond)
{
    public static DataRate FromMegabits(double megabitsPerSecond) => new((long)(megabitsPerSecond * 1e6));

    public double MegabitsPerSecond => BitsPerSecond / 1e6;

    /// <summary>"93 Mb/s".</summary>
    public override string ToString() =>
        MegabitsPerSecond.ToString(MegabitsPerSecond < 10 ? "0.0" : "0", CultureInfo.InvariantCulture) + " Mb/s";
}
