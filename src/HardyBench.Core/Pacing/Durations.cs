namespace HardyBench.Core.Pacing;

/// <summary>How long the last pieces of one kind of work took. Nothing is assumed of their distribution.</summary>
public sealed class Durations
{
    /// <summary>Pieces that are remembered: enough for a quantile of nine tenths, few enough to follow a change within a second or
    /// two.</summary>
    internal const int Remembered = 16;

    private readonly long[] ring = new long[Remembered];
    private long[]? sorted;
    private long sum;
    private int next;

    /// <summary>Pieces that are known, up to those remembered.</summary>
    public int Known { get; private set; }

    /// <summary>Zero while nothing is known.</summary>
    public TimeSpan Mean => new(Known == Remembered ? sum / Remembered : Known == 0 ? 0 : sum / Known);

    public void Add(TimeSpan duration)
    {
        var ticks = Math.Max(0, duration.Ticks);
        var place = Known;
        if (Known == Remembered)
        {
            sum -= ring[next];
            place = sorted is null ? 0 : Array.IndexOf(sorted, ring[next]);
        }
        else
        {
            Known++;
        }

        sum += ticks;
        ring[next] = ticks;
        next = (next + 1) % Remembered;
        if (sorted is not null)
        {
            Place(sorted, ticks, place, Known);
        }
    }

    /// <summary>A time within which a share of the pieces was done; zero while nothing is known.</summary>
    /// <param name="share">0 to 1.</param>
    public TimeSpan Within(double share)
    {
        if (sorted is null)
        {
            // Kept in order only from the first question on: of most kinds of work the mean is all that is ever asked.
            sorted = new long[Remembered];
            for (var known = 0; known < Known; known++)
            {
                Place(sorted, ring[known], known, known + 1);
            }
        }

        return Known == 0 ? TimeSpan.Zero : new TimeSpan(sorted[Math.Clamp((int)Math.Ceiling(share * Known) - 1, 0, Known - 1)]);
    }

    /// <summary>Forgets all, as when the work becomes another.</summary>
    public void Clear() => (Known, next, sum) = (0, 0, 0);

    /// <summary>Puts a value where it belongs among sorted ones, of which the one at <paramref name="free"/> is let go.</summary>
    private static void Place(long[] among, long ticks, int free, int count)
    {
        for (; free > 0 && among[free - 1] > ticks; free--)
        {
            among[free] = among[free - 1];
        }

        for (; free < count - 1 && among[free + 1] < ticks; free++)
        {
            among[free] = among[free + 1];
        }

        among[free] = ticks;
    }
}
