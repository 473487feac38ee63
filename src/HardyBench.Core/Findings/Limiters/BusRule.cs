using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>The bus to the graphics unit is full.</summary>
public sealed class BusRule() : BusyDeviceRule(LoadKind.BusBusy, Limiter.Bus, "bus to the graphics unit", new LimiterAdvice(
    "Decoding on the graphics unit's own media engine, or a wider bus.",
    null,
    "the bus still is at its limit"));
