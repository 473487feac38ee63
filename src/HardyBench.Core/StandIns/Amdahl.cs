namespace HardyBench.Core.StandIns;

/// <summary>Amdahl's law (1967).</summary>
internal static class Amdahl
{
    /// <summary>How many times faster than one core so many are.</summary>
    /// <param name="serialPart">The part of the work that no second thread can share, 0 to 1.</param>
    /// <param name="usable">Threads beyond which nothing is gained.</param>
    public static double SpeedUp(double serialPart, double cores, int usable) =>
        1 / (serialPart + (1 - serialPart) / Math.Min(cores, usable));
}
