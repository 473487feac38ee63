using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Reads what changes slowly, or there is much of, once a second only.</summary>
public sealed class SlowReader(ILoadReader reader) : ILoadReader
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(1);
    private TimeSpan waited = Every;

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        waited += elapsed;
        if (waited >= Every)
        {
            reader.Read(at, elapsed == TimeSpan.Zero ? TimeSpan.Zero : waited, into);
            waited = TimeSpan.Zero;
        }
    }
}
