using HardyBench.Core.Playback;

namespace HardyBench.Core.Trials;

/// <summary>Whether a machine has come to the temperature that it keeps.</summary>
public static class SoakHeat
{
    private const int RoundsAlike = 3;
    private const double AlikeCelsius = 1;

    /// <summary>A rise of less in one round counts as none, degrees Celsius. Our own choice.</summary>
    public const double Still = 0.3;

    /// <summary>The last rounds ended at temperatures within a degree of each other. Without a reading heat never settles,
    /// and the soak runs its full time.</summary>
    public static bool IsSettled(IReadOnlyList<StepOutcome> rounds)
    {
        var last = rounds.TakeLast(RoundsAlike).Select(round => round.EndCelsius).ToList();
        return last.Count == RoundsAlike && last.All(celsius => celsius is not null) && last.Max() - last.Min() <= AlikeCelsius;
    }

    /// <summary>Mean of the last second of a round, degrees Celsius; null where it was not read.</summary>
    public static double? EndTemperature(Run round)
    {
        var readings = round.Loads.Where(load => load.Kind == LoadKind.Temperature).ToList();
        return readings.Count == 0
            ? null
            : readings.Where(load => load.At > readings[^1].At - TimeSpan.FromSeconds(1)).Average(load => (double)load.Value);
    }
}
