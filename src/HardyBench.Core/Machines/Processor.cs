namespace HardyBench.Core.Machines;

/// <summary>The processor.</summary>
/// <param name="Cores">All of them, slow ones too.</param>
/// <param name="RelativeCoreSpeed">Of a fast core against the reference core of <c>StandIns/DecodeCost</c>, which is 1;
/// null when it has not been measured.</param>
/// <param name="SlowCores">How many of the cores are slow ones.</param>
/// <param name="RelativeSlowSpeed">Of a slow core, against the reference core too; null without slow ones.</param>
/// <param name="VectorBits">Width of its vector units.</param>
public sealed record Processor(
    string Name, int Cores, int Threads, double? RelativeCoreSpeed, double? ClockGigahertz,
    int SlowCores = 0, double? RelativeSlowSpeed = null, int? VectorBits = null)
{
    /// <summary>The cores together, in fast ones: work that is shared out loads all of them according to their speed.</summary>
    public double InFastCores => Cores - SlowCores + SlowCores * (RelativeSlowSpeed ?? FastSpeed) / FastSpeed;

    /// <summary>Of a fast core; 1 where it has not been measured.</summary>
    public double FastSpeed => RelativeCoreSpeed ?? 1;
}
