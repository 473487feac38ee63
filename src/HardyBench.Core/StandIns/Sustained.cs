using HardyBench.Core.Machines;

namespace HardyBench.Core.StandIns;

/// <summary>What heat and power leave a processor for as long as somebody works. A part of power is a station like any other: work that
/// draws more than can be supplied, or carried away for that long, is held back by it.</summary>
/// <param name="HeatWatts">That work may draw on average through the session without reaching the machine's limit; null where heat never
/// holds it back.</param>
/// <param name="PowerWatts">That work may draw at any time; null where full load may.</param>
/// <param name="FullWatts">That work draws with every core busy.</param>
public sealed record Sustained(double? HeatWatts, double? PowerWatts, double FullWatts)
{
    /// <param name="session">How long somebody works at a stretch.</param>
    /// <param name="others">The part of the processor that other programs take meanwhile, 0 to 1: they draw power too.</param>
    public static Sustained Of(Machine machine, TimeSpan session, double others = 0)
    {
        if (machine.Cooling is not { } cooling)
        {
            return new Sustained(null, null, 0);
        }

        var full = cooling.FullWatts - cooling.IdleWatts;
        return new Sustained(
            Left(MaxWatts(cooling, session) - cooling.IdleWatts), Left(machine.PowerLimit - cooling.IdleWatts), full);

        // A clock does not fall without end, so some work is always done.
        double? Left(double? watts) =>
            watts is { } most && most < full ? Math.Max(full * Heat.LowestClock, most - full * others) : null;
    }

    /// <summary>Seconds of the power station's time that a frame takes, as of one that can draw so many watts.</summary>
    /// <param name="processorSeconds">The frame's time on the whole processor.</param>
    public double Seconds(double processorSeconds, double watts) => processorSeconds * FullWatts / watts;

    /// <summary>The temperature after a session.</summary>
    /// <param name="busyShare">Share of the processor in use throughout, 0 to 1.</param>
    /// <returns>No more than the machine's limit.</returns>
    public static double CelsiusAfter(Cooling cooling, TimeSpan session, double busyShare)
    {
        var heat = new Heat(cooling);
        var settled = cooling.AmbientCelsius
            + (cooling.IdleWatts + (cooling.FullWatts - cooling.IdleWatts) * busyShare) * cooling.ResistanceKelvinPerWatt;
        return Math.Min(cooling.LimitCelsius, settled + (heat.Celsius - settled) * Decay(cooling, session));
    }

    /// <summary>Constant power that brings a machine which was idle just to its limit at the end of a session. Newton's law of cooling,
    /// T(t) = Ta + P·R + (T0 − Ta − P·R)·e^(−t/RC), solved for P.</summary>
    private static double MaxWatts(Cooling cooling, TimeSpan session)
    {
        var (decay, rest) = (Decay(cooling, session), cooling.IdleWatts * cooling.ResistanceKelvinPerWatt);
        var above = cooling.LimitCelsius - cooling.AmbientCelsius;
        return decay >= 1 ? double.PositiveInfinity : (above - rest * decay) / ((1 - decay) * cooling.ResistanceKelvinPerWatt);
    }

    private static double Decay(Cooling cooling, TimeSpan session) =>
        Math.Exp(-session.TotalSeconds / (cooling.ResistanceKelvinPerWatt * cooling.CapacityJoulesPerKelvin));
}
