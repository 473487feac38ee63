using HardyBench.Core.Playback;
using static System.FormattableString;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>Heat lowers the clock. Before the processor, because a throttled processor is also a busy one.</summary>
public sealed class HeatRule : LimiterRule
{
    protected override IReadOnlyDictionary<Limiter, LimiterAdvice> Names { get; } = new Dictionary<Limiter, LimiterAdvice>
    {
        [Limiter.Heat] = new(
            "Better cooling, or less work at once.",
            "A short test does not show this: it appears after some minutes.",
            "heat still lowers the clock",
            IsOfProcessor: true),
    };

    public override LimiterFinding? Find(LoadMeans loads, Conditions conditions) =>
        FallenClockOf(loads, conditions) is var (clock, rated) && loads.Of(LoadKind.Temperature) is { } celsius
            && !PowerRule.IsOfPower(loads)
            ? Found(loads, Limiter.Heat, new FallenClock(clock, rated, celsius))
            : null;

    protected override string? KnownBy(LimiterFinding finding) => finding.Evidence is FallenClock clock
        ? Invariant($"clock down to {clock.Clock / 1e9:0.0} of {clock.Rated / 1e9:0.0} GHz at {clock.Celsius:0} °C")
        : null;
}
