namespace HardyBench.Core.StandIns;

/// <summary>How long each station worked in each interval of a simulated run.</summary>
public sealed class BusyLedger
{
    /// <summary>The same interval at which a real machine is sampled.</summary>
    public static readonly TimeSpan Interval = TimeSpan.FromMilliseconds(100);

    private static readonly VisitKind[] Kinds = Enum.GetValues<VisitKind>();
    private static readonly int KindCount = Kinds.Length;
    private static readonly int Rows = Enum.GetValues<Station>().Length * KindCount;
    private readonly Dictionary<int, double> decoding = [];
    private readonly long[][] ticks = [.. Enumerable.Repeat(Array.Empty<long>(), Rows)];

    /// <summary>Notes a service, split over the intervals that it spans.</summary>
    /// <param name="cores">Of <see cref="Station.DecoderCores"/>: how many it keeps busy.</param>
    public void Add(Station station, VisitKind kind, TimeSpan from, TimeSpan to, double cores = 0) =>
        AddTicks(station, kind, from.Ticks, to.Ticks, cores: cores);

    /// <param name="sign">−1 takes a service back.</param>
    internal void AddTicks(Station station, VisitKind kind, long start, long end, int sign = 1, double cores = 0)
    {
        ref var row = ref ticks[Row(station, kind)];
        for (var index = start / Interval.Ticks; start < end; index++)
        {
            if (index >= row.Length)
            {
                Array.Resize(ref row, (int)Math.Max(index + 1, 2L * row.Length));
            }

            var part = Math.Min(end, (index + 1) * Interval.Ticks);
            row[index] += sign * (part - start);
            if (cores > 0)
            {
                decoding[(int)index] = decoding.GetValueOrDefault((int)index) + sign * cores * (part - start) / Interval.Ticks;
            }

            start = part;
        }
    }

    /// <summary>Cores that decoders kept busy on average in interval <paramref name="index"/>, where an editing program gives them
    /// few.</summary>
    public double CoresDecoding(int index) => decoding.GetValueOrDefault(index);

    /// <summary>Share of interval <paramref name="index"/> that a station spent on one kind of visit, 0 to 1.</summary>
    public double Share(Station station, VisitKind kind, int index)
    {
        var row = ticks[Row(station, kind)];
        return index < row.Length ? (double)row[index] / Interval.Ticks : 0;
    }

    /// <summary>Share of interval <paramref name="index"/> that a station worked at all, 0 to 1.</summary>
    public double Share(Station station, int index) =>
        Kinds.Sum(kind => Share(station, kind, index));

    /// <summary>Share of interval <paramref name="index"/> that a core worked, 0 to 1: the first is the one that also works alone,
    /// and what is shared out leaves it meanwhile. Decoders with few cores move about, and load all of them alike.</summary>
    public double CoreShare(int core, int index, int cores)
    {
        var (shared, alone, decoding) = (Share(Station.Processor, index), Share(Station.OneCore, index), CoresDecoding(index) / cores);
        var beside = decoding + shared * (1 - decoding);
        return core == 0 ? alone + beside * (1 - alone) : beside;
    }

    /// <summary>What other programs take of a core that the player leaves them.</summary>
    /// <param name="share">Of the time that the player's work was on it; then they have only their turns of it.</param>
    public static double WithOthers(double share, double others) => share + (1 - share) * others;

    /// <summary>Share of the whole processor that worked in interval <paramref name="index"/>, 0 to 1.</summary>
    public double ProcessorShare(int index, int cores) =>
        Enumerable.Range(0, cores).Average(core => CoreShare(core, index, cores));

    /// <summary>All the time that a station worked.</summary>
    public TimeSpan Total(Station station) =>
        TimeSpan.FromTicks(Kinds.Sum(kind => ticks[Row(station, kind)].Sum()));

    private static int Row(Station station, VisitKind kind) => (int)station * KindCount + (int)kind;
}
