namespace HardyBench.Core.StandIns;

/// <summary>How long each station worked in each interval of a simulated run.</summary>
public sealed class BusyLedger
{
    /// <summary>The same interval at which a real machine is sampled.</summary>
    public static readonly TimeSpan Interval = TimeSpan.FromMilliseconds(100);

    private static readonly int Rows = Enum.GetValues<Station>().Length * KindCount;
    private const int KindCount = 4;
    private readonly Dictionary<int, double> decoding = [];
    private readonly List<long>[] ticks = [.. Enumerable.Range(0, Rows).Select(_ => new List<long>())];

    /// <summary>Notes a service, split over the intervals that it spans.</summary>
    /// <param name="cores">Of <see cref="Station.DecoderCores"/>: how many it keeps busy.</param>
    public void Add(Station station, VisitKind kind, TimeSpan from, TimeSpan to, double cores = 0)
    {
        var row = ticks[Row(station, kind)];
        var (start, end) = (from.Ticks, to.Ticks);
        while (start < end)
        {
            var index = (int)(start / Interval.Ticks);
            while (row.Count <= index)
            {
                row.Add(0);
            }

            var part = Math.Min(end, (index + 1L) * Interval.Ticks);
            row[index] += part - start;
            if (cores > 0)
            {
                decoding[index] = decoding.GetValueOrDefault(index) + cores * (part - start) / Interval.Ticks;
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
        return index < row.Count ? (double)row[index] / Interval.Ticks : 0;
    }

    /// <summary>Share of interval <paramref name="index"/> that a station worked at all, 0 to 1.</summary>
    public double Share(Station station, int index) =>
        Enum.GetValues<VisitKind>().Sum(kind => Share(station, kind, index));

    /// <summary>Share of interval <paramref name="index"/> that a core worked, 0 to 1: the first is the one that also works alone,
    /// and what is shared out leaves it meanwhile. Decoders with few cores move about, and load all of them alike.</summary>
    public double CoreShare(int core, int index, int cores)
    {
        var (shared, alone, decoding) = (Share(Station.Processor, index), Share(Station.OneCore, index), CoresDecoding(index) / cores);
        var beside = decoding + shared * (1 - decoding);
        return core == 0 ? alone + beside * (1 - alone) : beside;
    }

    /// <summary>Share of the whole processor that worked in interval <paramref name="index"/>, 0 to 1.</summary>
    public double ProcessorShare(int index, int cores) =>
        Enumerable.Range(0, cores).Average(core => CoreShare(core, index, cores));

    /// <summary>All the time that a station worked.</summary>
    public TimeSpan Total(Station station) =>
        TimeSpan.FromTicks(Enum.GetValues<VisitKind>().Sum(kind => ticks[Row(station, kind)].Sum()));

    private static int Row(Station station, VisitKind kind) => (int)station * KindCount + (int)kind;
}
