using static System.FormattableString;

namespace HardyBench.Core.Wording;

/// <summary>Figures as people read them.</summary>
internal static class Figures
{
    /// <param name="share">0 to 1.</param>
    public static string Percent(double share) => Invariant($"{Math.Round(share * 100)} %");
}
