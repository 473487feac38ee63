using MathNet.Numerics.Distributions;

namespace HardyBench.Core.StandIns;

/// <summary>Makes service times as uneven as real ones: log-normal around the mean, and now and then a stall.
/// The same seed gives the same run on every machine.</summary>
public sealed class ServiceSpread
{
    private const int TableSize = 1024;
    private const ulong Step = 0x9E3779B97F4A7C15;
    private static readonly int Streams = Enum.GetValues<Station>().Length;
    private readonly double[] factors;
    private readonly double stallChance;
    private readonly long stallTicks;
    private readonly ulong[] states;

    /// <param name="sigma">Standard deviation of the logarithm; 0 makes every service last its mean.</param>
    /// <param name="stallChance">Chance that a service is held up, 0 to 1.</param>
    /// <param name="stall">For how long.</param>
    public ServiceSpread(int seed, double sigma, double stallChance, TimeSpan stall)
    {
        // Streams that do not share draws: less work in one place changes nothing elsewhere.
        states = [.. Enumerable.Range(0, Streams).Select(stream => (ulong)(uint)seed ^ ((ulong)stream << 32))];
        this.stallChance = stallChance;
        stallTicks = stall.Ticks;
        factors = [.. Enumerable.Range(0, TableSize)
            .Select(i => Math.Exp(sigma * Normal.InvCDF(0, 1, (i + 0.5) / TableSize)))];
        var mean = factors.Average();
        factors = [.. factors.Select(factor => factor / mean)];
    }

    /// <summary>Every service lasts exactly its mean.</summary>
    public static ServiceSpread None => new(0, 0, 0, TimeSpan.Zero);

    /// <param name="stream">A <see cref="Station"/> by its number: which sequence of draws it is taken from.</param>
    public TimeSpan Draw(TimeSpan mean, int stream = 0) => new(DrawTicks(mean.Ticks, stream));

    internal long DrawTicks(long mean, int stream)
    {
        var random = Next(ref states[stream]);
        var ticks = (long)(mean * factors[random % TableSize] + 0.5);
        var chance = (random >> 11) * (1.0 / (1UL << 53));
        return chance < stallChance ? ticks + stallTicks : ticks;
    }

    /// <summary>Takes the last draw of a stream back: the next one is the same again.</summary>
    internal void Rewind(int stream) => states[stream] -= Step;

    /// <summary>The longest that a draw may come to, in ticks.</summary>
    internal long Longest(long mean) => (long)(mean * factors[^1] + 0.5) + (stallChance > 0 ? stallTicks : 0);

    /// <summary>SplitMix64 (Steele, Lea, Flood: Fast splittable pseudorandom number generators, 2014).</summary>
    private static ulong Next(ref ulong state)
    {
        state += Step;
        var z = state;
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EB;
        return z ^ (z >> 31);
    }
}
