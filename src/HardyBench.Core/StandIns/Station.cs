using HardyBench.Core.Machines;

namespace HardyBench.Core.StandIns;

/// <summary>The places of a stand-in that frames queue for, in the order of a frame's way through it.
/// Each serves one frame at a time, several media engines or graphics units one each; the processor's cores work on it together, but for
/// what only one of them can do.</summary>
public enum Station
{
    Drive,
    MediaEngine,
    Processor,
    Bus,
    Graphics,

    /// <summary>One core of the processor, alone, with work that cannot be shared out.</summary>
    OneCore,

    /// <summary>The drive that takes what memory cannot hold, where that is not the one that holds the media.</summary>
    SwapDrive,

    /// <summary>The cores that decoders keep busy, where an editing program gives each decoder fewer than there are.</summary>
    DecoderCores,

    /// <summary>What a media engine encodes with, beside what it decodes with.</summary>
    EncodingEngine,

    /// <summary>What cooling carries away through a working session. No frame queues for it; it bounds the processor's work.</summary>
    Heat,

    /// <summary>What the machine may draw. No frame queues for it either.</summary>
    Power,
}

/// <summary>What a visit to a station is for.</summary>
public enum VisitKind
{
    Read,
    Decode,
    Copy,
    Effects,

    /// <summary>Only where a film is written.</summary>
    Encode,
}

/// <summary>What is true of visits of a kind.</summary>
public static class VisitKinds
{
    extension(VisitKind kind)
    {
        /// <summary>Whether it comes after decoding, when the frame stands alone.</summary>
        public bool IsTreatment => kind is VisitKind.Effects or VisitKind.Encode;
    }
}

/// <summary>One stop on a frame's way.</summary>
/// <param name="Service">Time it takes by the frame's place in its GOP; one entry where the place does not matter.</param>
public sealed record Visit(Station Station, VisitKind Kind, IReadOnlyList<TimeSpan> Service)
{
    public TimeSpan MeanService => TimeSpan.FromTicks((long)Service.Average(service => service.Ticks));
}

/// <summary>What each frame of a passage asks of a machine.</summary>
/// <param name="Visits">In the order of the frame's way.</param>
/// <param name="KeyInterval">Timeline frames between two from which decoding can start afresh; 1 for all-intra.</param>
/// <param name="MemoryBytes">Main memory that the passage needs on top of what is in use.</param>
/// <param name="GraphicsMemoryBytes">Graphics memory that it needs.</param>
/// <param name="ReadBytesPerFrame">Compressed bytes a frame.</param>
/// <param name="SwapBytesPerFrame">Bytes that have to go to and from the drive for want of memory.</param>
/// <param name="SilentFallbacks">Why layers are decoded on the processor though there is a media engine.</param>
public sealed record PassageDemand(
    int FrameCount,
    IReadOnlyList<Visit> Visits,
    int KeyInterval,
    double MemoryBytes,
    double GraphicsMemoryBytes,
    double ReadBytesPerFrame,
    double SwapBytesPerFrame,
    IReadOnlyList<EngineRefusal> SilentFallbacks)
{
    /// <summary>How many cores are busy while <see cref="Station.DecoderCores"/> works.</summary>
    public double CoresDecoding { get; init; }

    /// <summary>Of the processor, in fast ones.</summary>
    public double Cores { get; init; } = 1;

    /// <summary>How many media engines share its frames out.</summary>
    public int Engines { get; init; } = 1;

    /// <summary>Mean seconds a frame asks of a station, all visits together: D in the operational laws.</summary>
    public double DemandSeconds(Station station) =>
        Visits.Where(visit => visit.Station == station).Sum(visit => visit.MeanService.TotalSeconds);

    /// <summary>The bottleneck law (Denning and Buzen 1978): frames a second X = min(r, 1 / max D).</summary>
    /// <param name="graphics">Graphics units that share its frames out.</param>
    public double ThroughputBound(double rate, int graphics = 1)
    {
        var (_, longest) = Bottleneck(graphics);
        return longest > 0 ? Math.Min(rate, 1 / longest) : rate;
    }

    /// <summary>The station with the highest demand, and its seconds a frame: max D.</summary>
    /// <param name="graphics">Graphics units that share its frames out.</param>
    /// <param name="counts">Stations that are looked at; null for all.</param>
    public (Station Station, double Seconds) Bottleneck(int graphics = 1, Func<Station, bool>? counts = null)
    {
        var asked = SecondsByStation(graphics, counts);
        var most = Array.IndexOf(asked, asked.Max());
        return ((Station)most, asked[most]);
    }

    /// <summary>Mean seconds a frame that the whole processor works, as power counts it: a core that works alone is a part of it.</summary>
    /// <param name="cores">All of the processor's.</param>
    public double ProcessorSeconds(int cores) =>
        DemandSeconds(Station.Processor) + DemandSeconds(Station.OneCore) / cores
            + DemandSeconds(Station.DecoderCores) * CoresDecoding / cores;

    /// <summary>Mean seconds a frame that each station takes of the time, several servers sharing them out; by the number of the
    /// station.</summary>
    /// <inheritdoc cref="Bottleneck"/>
    public double[] SecondsByStation(int graphics = 1, Func<Station, bool>? counts = null)
    {
        var asked = new double[Enum.GetValues<Station>().Length];
        foreach (var visit in Visits.Where(visit => counts?.Invoke(visit.Station) != false))
        {
            asked[(int)visit.Station] += visit.MeanService.TotalSeconds / ServersOf(visit.Station, graphics);
        }

        // Decoders with cores of their own take them from what is shared out (utilisation law).
        asked[(int)Station.Processor] += asked[(int)Station.DecoderCores] * CoresDecoding / Cores;
        return asked;
    }

    private int ServersOf(Station station, int graphics) =>
        station == Station.MediaEngine ? Engines
        : station == Station.Graphics ? graphics
        : 1;
}
