using MathNet.Numerics.Distributions;

namespace HardyBench.Core.StandIns;

/// <summary>Makes service times as uneven as real ones: log-normal around the mean, and now and then a stall. What is drawn depends on the
/// seed and on what it is drawn for (passage, frame, station, kind of work) and on nothing else. So the same seed gives the same run on
/// every machine, and two runs that differ in one setting differ in nothing that the setting does not change.</summary>
public sealed class ServiceSpread
{
    private const int TableSize = 1024;
    private const ulong Step = 0x9E3779B97F4A7C15;
    private readonly double[] factors;
    private readonly double stallChance;
    private readonly long stallTicks;
    private readonly ulong seed;

    /// <param name="sigma">Standard deviation of the logarithm; 0 makes every service last its mean.</param>
    /// <param name="stallChance">Chance that a service is held up, 0 to 1.</param>
    /// <param name="stall">For how long.</param>
    public ServiceSpread(int seed, double sigma, double stallChance, TimeSpan stall)
    {
        this.seed = Mix((uint)seed + Step);
        this.stallChance = stallChance;
        stallTicks = stall.Ticks;
        factors = [.. Enumerable.Range(0, TableSize)
            .Select(i => Math.Exp(sigma * Normal.InvCDF(0, 1, (i + 0.5) / TableSize)))];
        var mean = factors.Average();
        factors = [.. factors.Select(factor => factor / mean)];
    }

    /// <summary>Every service lasts exactly its mean.</summary>
    public static ServiceSpread None => new(0, 0, 0, TimeSpan.Zero);

    /// <param name="passage">From 0.</param>
    /// <param name="frame">From 0 in the passage.</param>
    public TimeSpan Draw(TimeSpan mean, int passage, int frame, Station station, VisitKind kind) =>
        new(DrawTicks(mean.Ticks, passage, frame, station, kind));

    internal long DrawTicks(long mean, int passage, int frame, Station station, VisitKind kind)
    {
        var place = ((ulong)(uint)passage << 40) ^ ((ulong)(uint)frame << 8) ^ ((ulong)station << 4) ^ (ulong)kind;
        var random = Mix(seed + place * Step);
        var ticks = (long)(mean * factors[random % TableSize] + 0.5);
        var chance = (random >> 11) * (1.0 / (1UL << 53));
        return chance < stallChance ? ticks + stallTicks : ticks;
    }

    /// <summary>The longest that a draw may come to, in ticks.</summary>
    internal long Longest(long mean) => (long)(mean * factors[^1] + 0.5) + (stallChance > 0 ? stallTicks : 0);

    /// <summary>The output function of SplitMix64 (Steele, Lea, Flood: Fast splittable pseudorandom number generators, 2014).</summary>
    private static ulong Mix(ulong z)
    {
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EB;
        return z ^ (z >> 31);
    }
}
