using HardyBench.Core.Playback;
using static System.FormattableString;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>The processor may not draw the power that the work takes. Before heat: a machine that draws all it may is not held back by how
/// warm it is, and one that is cool is not either.</summary>
public sealed class PowerRule : LimiterRule
{
    /// <summary>Share of the power limit from which on power, not heat, keeps the clock down; and a temperature below which heat does not.
    /// The temperature is common practice, no source.</summary>
    private const double Ceiling = 0.95, TooCoolForHeat = 60;

    protected override IReadOnlyDictionary<Limiter, LimiterAdvice> Names { get; } = new Dictionary<Limiter, LimiterAdvice>
    {
        [Limiter.Power] = new(
            "Mains instead of battery, a higher power limit, or less work at once.",
            "Better cooling will not help: the clock is low because of the power limit, not the heat.",
            "the power limit still lowers the clock",
            IsOfProcessor: true),
    };

    public override LimiterFinding? Find(LoadMeans loads, Conditions conditions) =>
        FallenClockOf(loads, conditions) is var (clock, rated) && IsOfPower(loads)
            ? Found(loads, Limiter.Power, new CappedPower(clock, rated, loads.Of(LoadKind.PowerLimit), loads.Of(LoadKind.Temperature)))
            : null;

    /// <summary>Whether it is power that keeps a clock down, and not heat.</summary>
    internal static bool IsOfPower(LoadMeans loads) =>
        loads.Of(LoadKind.PackagePower) >= Ceiling * loads.Of(LoadKind.PowerLimit) || loads.Of(LoadKind.Temperature) < TooCoolForHeat;

    protected override string? KnownBy(LimiterFinding finding) => finding.Evidence is CappedPower power
        ? Invariant($"clock down to {power.Clock / 1e9:0.0} of {power.Rated / 1e9:0.0} GHz ")
            + (power.Limit is { } watts ? Invariant($"at the power limit of {watts:0} W") : "for lack of power")
            + (power.Celsius is { } celsius ? Invariant($", at {celsius:0} °C") : string.Empty)
        : null;
}
