using System.Globalization;

namespace HardyBench.Benchmarks;

/// <summary>Share of the processor that a host took away, because it spoils figures on a virtual machine.</summary>
internal sealed class Stolen
{
    private readonly (long Stolen, long All) before = Read();

    public string SoFar()
    {
        var now = Read();
        var all = Math.Max(1, now.All - before.All);
        return string.Create(CultureInfo.InvariantCulture, $"stolen {100.0 * (now.Stolen - before.Stolen) / all:0} %");
    }

    private static (long Stolen, long All) Read()
    {
        var times = File.ReadLines("/proc/stat").First().Split(' ', StringSplitOptions.RemoveEmptyEntries)[1..9]
            .Select(field => long.Parse(field, CultureInfo.InvariantCulture)).ToArray();
        return (times[7], times.Sum());
    }
}
