using System.Globalization;
using System.Text.Json.Nodes;
using HardyBench.Core.Footage;

namespace HardyBench.Media.Clips.Probing;

/// <summary>How a track's time stamps become frame numbers.</summary>
/// <param name="Start">Time stamp of the first frame that is shown.</param>
/// <param name="FrameCount">Slots from the first frame to the end of the last.</param>
/// <param name="Keys">Frames on which decoding can start afresh.</param>
/// <param name="Unevenness">What to know where the stamps are not even: a phrase; null where they are.</param>
internal sealed record ClipTiming(FrameRate Rate, long Start, int FrameCount, IReadOnlyList<int> Keys, string? Unevenness)
{
    /// <returns>Null where nothing says how fast it runs.</returns>
    public static ClipTiming? Of(JsonNode stream, JsonNode root, ProbedPackets packets, ProbedPictures decoded)
    {
        if (Ratio((string?)stream["time_base"]) is not { } unit)
        {
            return null;
        }

        var said = StatedRate(stream, "avg_frame_rate") ?? StatedRate(stream, "r_frame_rate");
        var step = said is { } often ? Math.Max(1, (long)Math.Round((double)unit.Denominator / unit.Numerator / often.FramesPerSecond)) : 1;
        var start = decoded.All[0].Stamp ?? 0;
        // Pieces that are never shown, such as pictures before an edit or those that lack what they refer to, have no slot.
        var stamps = decoded.AreAll
            ? Followed(decoded.All.Select(picture => picture.Stamp), step)
            : [.. packets.All.Where(packet => !packet.Discarded && packet.Stamp >= start).Select(packet => packet.Stamp!.Value).Order()];
        if (stamps.Count == 0)
        {
            stamps = [start];
        }

        var even = stamps.Count > 2 ? StandardRates.Of(stamps, unit, said) : said ?? new FrameRate(25);
        var rate = even ?? (stamps[^1] > stamps[0] ? StandardRates.NearestTo(stamps, unit) : said);
        if (rate is not { } known || known.FramesPerSecond is < 1 or > 1000)
        {
            return null;
        }

        var last =
            packets.All.Count > 0
                ? packets.All.Where(packet => packet.Stamp == stamps[^1]).Select(packet => packet.Length).FirstOrDefault()
                : 0;
        var lastSlots = even is not null ? 1 : Math.Max(1, Slot(stamps[^1] + last) - Slot(stamps[^1]));
        var frames =
            packets.AreAll || decoded.AreAll ? Slot(stamps[^1]) + lastSlots : StatedFrames(stream, root, known) ?? Slot(stamps[^1]) + 1;
        var keys = packets.AllKeys && !decoded.AllKeys
            ?
            [
                .. decoded
                    .All.Where(picture => picture is { Key: true, Stamp: not null })
                    .Select(picture => (int)Slot(picture.Stamp!.Value))
                    .Distinct()
                    .Order(),
            ]
            : packets.AllStamped
            ? packets
                .All.Where(packet => packet.Key && !packet.Discarded && packet.Shown >= start)
                .Select(packet => (int)Math.Min(int.MaxValue, Slot(packet.Shown!.Value)))
                .Distinct()
                .Order()
                .ToList()
            : [0];
        return new ClipTiming(
            known,
            start,
            (int)Math.Clamp(frames, 1, int.MaxValue),
            keys,
            even is null ? Words(stamps, known, Slot) : null
        );

        long Slot(long stamp) =>
            (long)
                Math.Round(
                    (double)(stamp - start) * unit.Numerator / unit.Denominator * known.FramesPerSecond,
                    MidpointRounding.AwayFromZero
                );
    }

    /// <summary>Pictures without a stamp, as some containers leave at their end, follow the one before at the usual distance.</summary>
    private static List<long> Followed(IEnumerable<long?> stamps, long step)
    {
        var all = new List<long>();
        foreach (var stamp in stamps)
        {
            all.Add(stamp ?? (all.Count > 0 ? all[^1] + step : 0));
        }

        return [.. all.Order()];
    }

    private static string Words(List<long> stamps, FrameRate rate, Func<long, long> slot)
    {
        var slots = stamps.Select(slot).ToList();
        var (shown, hidden) = (slots.Distinct().Count(), slots.Count - slots.Distinct().Count());
        return $"variable frame rate; {shown} pictures in slots of {rate}, those between repeat the one before"
            + (hidden > 0 ? $", and {hidden} that come closer together are never shown" : string.Empty);
    }

    private static long? StatedFrames(JsonNode stream, JsonNode root, FrameRate rate) =>
        (ClipProbe.Number(stream, "duration") ?? ClipProbe.Number(root["format"], "duration")) is { } seconds
            ? (long)Math.Round(seconds * rate.FramesPerSecond)
            : (long?)ClipProbe.Number(stream, "nb_frames");

    private static FrameRate? StatedRate(JsonNode stream, string name) =>
        Ratio((string?)stream[name]) is var (numerator, denominator) && numerator / denominator <= 1000
            ? FrameRate.Of(numerator, denominator)
            : null;

    private static (long Numerator, long Denominator)? Ratio(string? text)
    {
        var parts = (text ?? string.Empty).Split('/');
        return parts.Length == 2
            && long.TryParse(parts[0], NumberStyles.None, CultureInfo.InvariantCulture, out var numerator)
            && long.TryParse(parts[1], NumberStyles.None, CultureInfo.InvariantCulture, out var denominator)
            && numerator > 0 && denominator > 0
                ? (numerator, denominator)
                : null;
    }
}
