using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Turns of every fan that the kernel's hardware monitors tell of, from /sys/class/hwmon.</summary>
public sealed class Fans(SystemFiles files) : ILoadReader
{
    private const string Root = "sys/class/hwmon";

    private readonly IReadOnlyList<string> fans = [.. files.Names(Root).SelectMany(monitor => files.Names($"{Root}/{monitor}")
        .Where(file => file.StartsWith("fan", StringComparison.Ordinal) && file.EndsWith("_input", StringComparison.Ordinal))
        .Select(file => $"{Root}/{monitor}/{file}"))];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        foreach (var (index, fan) in fans.Index())
        {
            if (files.ReadNumber(fan) is { } turns)
            {
                into.Add(new LoadReading(at, LoadKind.FanSpeed, index, (float)turns));
            }
        }
    }
}
