using System.Globalization;
using HardyBench.Core.Footage;

namespace HardyBench.Media.Clips.Probing;

/// <summary>A piece of a track as its container holds it. Time stamps are in the track's own units.</summary>
/// <param name="Shown">When it is shown; null where the container does not say.</param>
/// <param name="Decoded">When it is to be decoded; null where the container does not say.</param>
/// <param name="Key">Whether decoding can start afresh on it.</param>
/// <param name="Discarded">Whether the container says that it is decoded and not shown.</param>
internal readonly record struct ProbedPacket(long? Shown, long? Decoded, long Length, long Bytes, bool Key, bool Discarded)
{
    public long? Stamp => Shown ?? Decoded;
}

/// <summary>The pieces of a track, up to a number that is enough to judge it.</summary>
internal sealed class ProbedPackets
{
    private const int Most = 20_000;

    private ProbedPackets(IReadOnlyList<ProbedPacket> all) => All = all;

    public IReadOnlyList<ProbedPacket> All { get; }

    /// <summary>Whether these are all there are.</summary>
    public bool AreAll => All.Count < Most;

    public bool AllKeys => All.Count > 0 && All.All(packet => packet.Key);

    /// <summary>Whether each says when it is shown.</summary>
    public bool AllStamped => All.All(packet => packet.Shown is not null);

    /// <summary>The longest stretch from one that stands alone to the next, in the order in which they are decoded.</summary>
    public int LongestGop
    {
        get
        {
            var keys = All.Index().Where(packet => packet.Item.Key).Select(packet => packet.Index).Append(All.Count).ToList();
            return Math.Max(1, keys.Count < 2 ? All.Count : keys.Zip(keys.Skip(1), (from, to) => to - from).Max());
        }
    }

    public static async Task<ProbedPackets> ReadAsync(
        string path, int track, Func<IReadOnlyList<string>, CancellationToken, Task<string>> ask, CancellationToken stop)
    {
        var text = await ask(
            [
                "-select_streams",
                $"{track}",
                "-show_entries",
                "packet=pts,dts,duration,size,flags",
                "-read_intervals",
                $"%+#{Most}",
                "-of",
                "compact=p=0",
            ],
            stop
        );
        return new ProbedPackets([
            .. text.Split('\n')
                .Select(Fields.Of)
                .Where(fields => fields.ContainsKey("size"))
                .Select(fields => new ProbedPacket(
            fields.Number("pts"), fields.Number("dts"), fields.Number("duration") ?? 0, fields.Number("size") ?? 0,
            fields.GetValueOrDefault("flags", string.Empty).StartsWith('K'),
            fields.GetValueOrDefault("flags", string.Empty).Contains('D', StringComparison.Ordinal)
                )),
]);
    }

    /// <summary>Of those read, sound and all else in the file left out.</summary>
    public DataRate DataRate(ClipTiming timing)
    {
        var frames = AreAll ? timing.FrameCount : All.Count;
        return new DataRate(
            (long)(All.Sum(packet => packet.Bytes) * 8 / Math.Max(1e-6, timing.Rate.StartOf(Math.Max(1, frames)).TotalSeconds))
        );
    }
}

/// <summary>Lines of names and values as the probe writes them: <c>pts=0|dts=N/A</c>.</summary>
internal static class Fields
{
    public static Dictionary<string, string> Of(string line)
    {
        var fields = new Dictionary<string, string>();
        foreach (var part in line.Trim().Split('|'))
        {
            if (part.IndexOf('=', StringComparison.Ordinal) is > 0 and var sign)
            {
                fields[part[..sign]] = part[(sign + 1)..];
            }
        }

        return fields;
    }

    public static long? Number(this Dictionary<string, string> fields, string name) =>
        fields.TryGetValue(name, out var text)
        && long.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
            ? number
            : null;
}
