using HardyBench.Core.Machines;

namespace HardyBench.Core.StandIns;

/// <summary>The temperature of a machine as one thermal mass: C·dT/dt = P − (T − Ta)/R.</summary>
/// <param name="startCelsius">Null for a machine that has rested.</param>
/// <param name="mostWatts">The most power it may draw; null for no such limit.</param>
public sealed class Heat(Cooling cooling, double? startCelsius = null, double? mostWatts = null)
{
    /// <summary>A processor does not go below this share of its clock.</summary>
    internal const double LowestClock = 0.1;

    /// <summary>A little less than calculated, for rounding.</summary>
    private const double Surely = 0.999;

    /// <summary>A fan at its fastest, in turns a minute, and how far from rest to its limit a machine has warmed when it begins to turn.
    /// Made-up values that look like real runs.</summary>
    private const double FastestFan = 3200, FanFrom = 0.2;

    public double Celsius { get; private set; } = startCelsius ??
        cooling.AmbientCelsius + cooling.IdleWatts * cooling.ResistanceKelvinPerWatt;

    /// <summary>Power that was drawn during the last time that passed.</summary>
    public double Watts { get; private set; } = cooling.IdleWatts;

    /// <summary>Share of the rated clock that the heat leaves, above 0 up to 1.</summary>
    public double ClockShare { get; private set; } = 1;

    /// <summary>How long the clock is certain to stay as it is, whatever the load: until full power would have brought the machine to its
    /// limit. Null for ever.</summary>
    public TimeSpan? StaysCoolFor()
    {
        if (ClockShare < 1 || mostWatts < cooling.FullWatts)
        {
            return TimeSpan.Zero;
        }

        var settled = cooling.AmbientCelsius + cooling.FullWatts * cooling.ResistanceKelvinPerWatt;
        var (above, below) = (settled - cooling.LimitCelsius, cooling.LimitCelsius - Celsius);
        return above < 0 && below > 0 ? null
            : below <= 0 ? TimeSpan.Zero
            : TimeSpan.FromSeconds(Math.Log((settled - Celsius) / Math.Max(above, 1e-9))
                * cooling.ResistanceKelvinPerWatt * cooling.CapacityJoulesPerKelvin * Surely);
    }

    /// <summary>Turns a minute at a temperature: none up to where the fan begins, then in proportion up to the limit. Null without a
    /// fan.</summary>
    public static double? FanAt(Cooling cooling, double celsius)
    {
        if (cooling.Fanless)
        {
            return null;
        }

        var rest = cooling.AmbientCelsius + cooling.IdleWatts * cooling.ResistanceKelvinPerWatt;
        var warmed = (celsius - rest) / Math.Max(1, cooling.LimitCelsius - rest);
        return FastestFan * Math.Clamp((warmed - FanFrom) / (1 - FanFrom), 0, 1);
    }

    /// <summary>Lets time pass at a constant load. Closed form for constant power (Newton's law of cooling):
    /// T(t) = Ta + P·R + (T0 − Ta − P·R)·e^(−t/RC). At the limit the clock falls until the power can be carried away.</summary>
    /// <param name="busyShare">Share of the processor in use, 0 to 1.</param>
    public void Pass(TimeSpan time, double busyShare)
    {
        var asked = (cooling.FullWatts - cooling.IdleWatts) * busyShare;
        var watts = cooling.IdleWatts + asked * ClockShare;
        Watts = watts;
        var settled = cooling.AmbientCelsius + watts * cooling.ResistanceKelvinPerWatt;
        var decay = Math.Exp(-time.TotalSeconds / (cooling.ResistanceKelvinPerWatt * cooling.CapacityJoulesPerKelvin));
        Celsius = settled + (Celsius - settled) * decay;

        var bearable = (cooling.LimitCelsius - cooling.AmbientCelsius) / cooling.ResistanceKelvinPerWatt - cooling.IdleWatts;
        var hot = Celsius >= cooling.LimitCelsius && asked > bearable ? bearable / asked : 1;
        var capped = mostWatts is { } most && most - cooling.IdleWatts < asked ? (most - cooling.IdleWatts) / asked : 1;
        ClockShare = Math.Max(LowestClock, Math.Min(hot, capped));
    }
}
