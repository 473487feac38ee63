namespace HardyBench.Core.Playback;

/// <summary>How long the last pieces of one kind of work took. Nothing is assumed of their distribution.</summary>
public sealed class Durations
{
    /// <summary>Pieces that are remembered: enough for a quantile of nine tenths, few enough to follow a change within a second or
    /// two.</summary>
    private const int Remembered = 16;

    private readonly long[] ring = new long[Remembered];
    private readonly long[] sorted = new long[Remembered];
    private long sum;
    private int next;

    /// <summary>Pieces that are known, up to those remembered.</summary>
    public int Known { get; private set; }

    /// <summary>Zero while nothing is known.</summary>
    public TimeSpan Mean => Known == 0 ? TimeSpan.Zero : new TimeSpan(sum / Known);

    public void Add(TimeSpan duration)
    {
        var ticks = Math.Max(0, duration.Ticks);
        Forget(Known == Remembered ? ring[next] : null);
        ring[next] = ticks;
        next = (next + 1) % Remembered;
        sum += ticks;
        var place = Known++;
        for (; place > 0 && sorted[place - 1] > ticks; place--)
        {
            sorted[place] = sorted[place - 1];
        }

        sorted[place] = ticks;
    }

    /// <summary>A time within which a share of the pieces was done; zero while nothing is known.</summary>
    /// <param name="share">0 to 1.</param>
    public TimeSpan Within(double share) =>
        Known == 0 ? TimeSpan.Zero : new TimeSpan(sorted[Math.Clamp((int)Math.Ceiling(share * Known) - 1, 0, Known - 1)]);

    /// <summary>Forgets all, as when the work becomes another.</summary>
    public void Clear() => (Known, next, sum) = (0, 0, 0);

    private void Forget(long? ticks)
    {
        if (ticks is not { } oldest)
        {
            return;
        }

        var place = Array.BinarySearch(sorted, 0, Known, oldest);
        Array.Copy(sorted, place + 1, sorted, place, Known - place - 1);
        sum -= oldest;
        Known--;
    }
}
