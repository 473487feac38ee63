using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Findings;

/// <summary>The stretch of a passage in which both is known: the frames that were finished and how busy each part was meanwhile. What was
/// prepared before the first slot lies outside it, and so does the next passage.</summary>
/// <param name="Rate">Frames finished a second.</param>
/// <param name="DecodeCost">What those frames cost to decode, as a share of what frames of whole GOPs do.</param>
public sealed record WorkWindow(TimeSpan From, TimeSpan To, double Rate, double DecodeCost)
{
    /// <summary>Fewer frames than this tell no rate.</summary>
    private const int Fewest = 4;

    /// <param name="frames">The settled slots of the passage, in order.</param>
    /// <param name="loads">Of the passage at least; loads are known from reading to reading, so the window begins and ends with one.</param>
    /// <param name="gop">As in <see cref="GopOf"/>.</param>
    /// <returns>Null where too few frames were finished.</returns>
    public static WorkWindow? Of(IReadOnlyList<FrameRecord> frames, IReadOnlyList<LoadReading> loads, int gop)
    {
        var done = frames.Where(frame => frame.Ready is not null);
        var ready = done.Select(frame => frame.Ready!.Value).Where(at => at >= frames[0].SlotStart).Order().ToList();
        if (ready.Count < Fewest)
        {
            return null;
        }

        var moments = loads.Where(load => load.Kind == LoadKind.Core && load.At >= ready[0] && load.At <= ready[^1])
            .Select(load => load.At).Distinct().Order().ToList();
        if (moments.Count < 2)
        {
            return null;
        }

        var (from, to) = (moments[0], moments[^1]);
        var within = done.Where(frame => frame.Ready > from && frame.Ready <= to);
        return within.Count() is >= Fewest and var count
            ? new WorkWindow(from, to, count / (to - from).TotalSeconds, CostOf(within, done, gop))
            : null;
    }

    /// <summary>What some frames of a passage cost to decode, as a share of what its frames do over whole GOPs: one of one GOP is counted
    /// without the frame that stands alone, which costs most.</summary>
    /// <param name="done">All of the passage's frames that were finished, in order.</param>
    /// <returns>1 where every frame stands alone, and where there is no whole GOP to compare with.</returns>
    public static double CostOf(IEnumerable<FrameRecord> counted, IEnumerable<FrameRecord> done, int gop)
    {
        if (gop <= 1)
        {
            return 1;
        }

        var whole = done.Take(done.Count() / gop * gop).Select(frame => frame.Decode.TotalSeconds).DefaultIfEmpty().Average();
        return whole > 0 && counted.Any() ? counted.Average(frame => frame.Decode.TotalSeconds) / whole : 1;
    }

    /// <summary>Frames of a passage until decoding of all its layers can start afresh; 1 where every frame stands alone.</summary>
    public static int GopOf(RunHeader header, Passage passage) => passage.Layers.Max(layer =>
        header.Conditions.Footage?.GetValueOrDefault(layer.ClipId)?.KeySeconds is { } seconds
        && (layer.Retime?.Speed ?? 1) is > 0 and var speed
            ? Math.Max(1, (int)Math.Round(seconds * header.Timeline.Rate.FramesPerSecond / speed))
            : 1);
}
