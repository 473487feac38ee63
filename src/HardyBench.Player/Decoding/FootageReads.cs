using HardyBench.Core.Playback;
using HardyBench.Telemetry;

namespace HardyBench.Player.Decoding;

/// <summary>What share of the time each open clip is waited for while it is read. It tells of a slow drive where the system does not call
/// the drive busy: one on a network, or one that is held back.</summary>
public sealed class FootageReads : ILoadReader
{
    private readonly Lock gate = new();
    private readonly List<Watched?> places = [];

    /// <summary>Those of this program's layers.</summary>
    public static readonly FootageReads OfProgram = new();

    /// <summary>Watches a clip until what is returned is disposed; nobody asks after it any more then.</summary>
    /// <param name="reading">Time spent reading it so far.</param>
    public IDisposable Watch(Func<TimeSpan> reading)
    {
        var watched = new Watched(this, reading);
        lock (gate)
        {
            var free = places.IndexOf(null);
            if (free < 0)
            {
                places.Add(watched);
            }
            else
            {
                places[free] = watched;
            }
        }

        return watched;
    }

    /// <inheritdoc />
    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        lock (gate)
        {
            foreach (var (place, watched) in places.Index())
            {
                if (watched is not null && watched.Since() is var spent && elapsed > TimeSpan.Zero)
                {
                    into.Add(new LoadReading(at, LoadKind.FootageWait, place, (float)Math.Clamp(spent / elapsed, 0, 1)));
                }
            }
        }
    }

    private void Forget(Watched watched)
    {
        lock (gate)
        {
            places[places.IndexOf(watched)] = null;
        }
    }

    private sealed class Watched(FootageReads all, Func<TimeSpan> reading) : IDisposable
    {
        private TimeSpan before = reading();

        /// <summary>Spent since it was last asked; a read that ends just then can count a moment later.</summary>
        public TimeSpan Since()
        {
            var now = reading();
            var spent = now - before;
            before = now;
            return spent;
        }

        public void Dispose() => all.Forget(this);
    }
}
