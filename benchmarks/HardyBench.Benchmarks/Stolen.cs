using System.Globalization;

namespace HardyBench.Benchmarks;

/// <summary>Share of the processor that a host took, because it disturbs figures on a virtual machine.</summary>
internal sealed class Stolen
{
    private readonly (long Stolen, long All) before = Read();

    public string SoFar() => string.Create(CultureInfo.InvariantCulture, $"stolen {100 * Share:0} %");

    /// <summary>Of the time of all cores, 0 to 1.</summary>
    public double Share
    {
        get
        {
            var now = Read();
            return (double)(now.Stolen - before.Stolen) / Math.Max(1, now.All - before.All);
        }
    }

    private static (long Stolen, long All) Read()
    {
        var times = File.ReadLines("/proc/stat").First().Split(' ', StringSplitOptions.RemoveEmptyEntries)[1..9]
            .Select(field => long.Parse(field, CultureInfo.InvariantCulture)).ToArray();
        return (times[7], times.Sum());
    }
}
