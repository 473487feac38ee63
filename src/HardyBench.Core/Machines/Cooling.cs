namespace HardyBench.Core.Machines;

/// <summary>What heat does to the machine, as one thermal mass behind one resistance.</summary>
/// <param name="IdleWatts">Power with nothing to do.</param>
/// <param name="FullWatts">Power with every core busy at full clock.</param>
/// <param name="MainsWatts">The most it may draw from the mains for long; null for no such limit.</param>
/// <param name="BatteryWatts">The most it may draw from its battery; null for a machine without one.</param>
public sealed record Cooling(
    bool Fanless,
    double ResistanceKelvinPerWatt,
    double CapacityJoulesPerKelvin,
    double AmbientCelsius,
    double LimitCelsius,
    double IdleWatts,
    double FullWatts,
    double? MainsWatts = null,
    double? BatteryWatts = null);
