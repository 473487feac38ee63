using System.Globalization;
using System.Text.RegularExpressions;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Imports;

namespace HardyBench.Formats.Interchange;

/// <summary>Reads CMX 3600 edit decision lists: cuts, dissolves, wipes, M2 speeds, drop and non-drop timecode, clip names in
/// comments. The format has one picture track and says nothing of rasters.</summary>
public sealed partial class EdlReader
{
    private const long LongestEvent = 100_000_000;

    /// <summary>Lines of one event that a speed is looked for among, and notes that are kept.</summary>
    private const int MaxLines = 64, MaxNotes = 1000;

    private readonly FrameRate rate;
    private readonly List<Event> events = [];
    private readonly List<string> notes = [];
    private readonly HashSet<string> noted = [];
    private readonly Dictionary<string, int> lastOfReel = new(StringComparer.OrdinalIgnoreCase);
    private int lastPicture = -1;
    private string title = "Imported list";
    private bool? dropFrame;

    private EdlReader(FrameRate rate) => this.rate = rate;

    /// <param name="rate">Frames a second, which the format does not say.</param>
    /// <exception cref="InterchangeException">The text is no such list; the message names the line.</exception>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more.</exception>
    public static ImportedTimeline Read(string text, FrameRate rate, CancellationToken stop = default)
    {
        var reader = new EdlReader(rate);
        foreach (var (index, line) in text.Split('\n').Index())
        {
            stop.ThrowIfCancellationRequested();
            try
            {
                reader.Line(Bare(line));
            }
            catch (Exception wrong) when (wrong is FormatException or OverflowException)
            {
                throw new InterchangeException($"Line {index + 1}: {wrong.Message}", wrong);
            }
        }

        return reader.ToTimeline();
    }

    private void Line(string line)
    {
        if (line.StartsWith("TITLE:", StringComparison.OrdinalIgnoreCase))
        {
            title = line[6..].Trim() is { Length: > 0 } named ? named : title;
        }
        else if (line.StartsWith("FCM:", StringComparison.OrdinalIgnoreCase))
        {
            dropFrame = LeavesOut(line);
        }
        else if (line.StartsWith("M2", StringComparison.OrdinalIgnoreCase))
        {
            Speed(line);
        }
        else if (line.StartsWith('*') || line.StartsWith('>'))
        {
            Comment(line[1..].Trim());
        }
        else if (EventLine().Match(line) is { Success: true } match)
        {
            Add(match);
        }
        else if (line.Length > 0 && char.IsAsciiDigit(line[0]))
        {
            throw new FormatException($"'{Short(line)}' is not an event that can be read.");
        }
    }

    /// <summary>Whether a line says that frame numbers are left out (drop-frame).</summary>
    internal static bool LeavesOut(string line) => line.StartsWith("FCM:", StringComparison.OrdinalIgnoreCase)
        && !line.Contains("NON", StringComparison.OrdinalIgnoreCase) && line.Contains("DROP", StringComparison.OrdinalIgnoreCase);

    /// <summary>A line without what surrounds it, as other systems end and begin lines.</summary>
    internal static string Bare(string line) => line.Trim('\r', ' ', '\t', '\u001a', '\ufeff');

    private void Add(Match match)
    {
        var channel = match.Groups["channel"].Value.ToUpperInvariant();
        var isSound = !channel.Contains('V', StringComparison.Ordinal) && channel != "B";
        if (isSound)
        {
            Note($"Sound on channel {channel} was left out: only pictures are played.");
        }

        var length = match.Groups["length"] is { Success: true } given ? long.Parse(given.Value, CultureInfo.InvariantCulture) : 0;
        var kind = match.Groups["kind"].Value.ToUpperInvariant() switch
        {
            "C" => (Transition?)null,
            "D" => Transition.Dissolve,
            ['W', ..] => Transition.Wipe,
            var other => throw new FormatException($"'{other}' is not a known kind of edit; known: C, D and W."),
        };
        var one = new Event(
            match.Groups["number"].Value, match.Groups["reel"].Value, kind, length,
            Parse(match.Groups["in"].Value),
            Parse(match.Groups["out"].Value),
            Parse(match.Groups["recin"].Value),
            Parse(match.Groups["recout"].Value)
        )
        {
            IsSound = isSound,
        };
        if (one.RecordOut < one.RecordIn || one.RecordOut - one.RecordIn > LongestEvent)
        {
            throw new FormatException("an event ends before it begins.");
        }

        lastOfReel[one.Reel] = events.Count;
        lastPicture = isSound ? lastPicture : events.Count;
        events.Add(one);
    }

    private long Parse(string timecode) => Timecode.Parse(timecode, rate, dropFrame);

    /// <summary>A speed belongs to the line before it that is of its reel and begins on its timecode; sound and picture of one event can
    /// have speeds of their own.</summary>
    private void Speed(string line)
    {
        if (SpeedLine().Match(line) is not { Success: true } match)
        {
            Note($"The speed '{Short(line)}' cannot be read and was left out.");
            return;
        }

        var (reel, framesPerSecond) = (
            match.Groups["reel"].Value,
            double.Parse(match.Groups["rate"].Value, NumberStyles.Float, CultureInfo.InvariantCulture)
        );
        if (events.Count == 0)
        {
            throw new FormatException($"a speed is given for '{reel}', which no earlier event uses.");
        }

        var index = Meant(reel, match.Groups["at"] is { Success: true } at ? Parse(at.Value) : null);
        if (index < 0)
        {
            Note($"A speed is given for '{reel}', which no earlier event uses; it was left out.");
            return;
        }

        if (framesPerSecond < 0 && !events[index].IsSound)
        {
            Note($"'{reel}' runs backwards, which cannot be played; it plays forwards instead.");
        }

        // Speeds are written with one decimal; whole shares of the rate are meant.
        var speed = Math.Min(100, Math.Abs(framesPerSecond) / rate.NominalFramesPerSecond);
        events[index] = events[index] with { Speed = Math.Round(speed, 4) };
    }

    private int Meant(string reel, long? at)
    {
        // Both clips of a transition can be on one reel; speeds then come in the order of their lines.
        var ofEvent = Enumerable.Range(Math.Max(0, events.Count - MaxLines), Math.Min(MaxLines, events.Count))
            .Select(index => (Index: index, Item: events[index]))
            .Where(one =>
                one.Item.Number == events[^1].Number
                && one.Item.Reel.Equals(reel, StringComparison.OrdinalIgnoreCase)
                && one.Item.Speed is null
            )
            .ToList();
        var exact = ofEvent.Where(one => one.Item.SourceIn == at).ToList();
        var pictures = (exact.Count > 0 ? exact : ofEvent).Where(one => !one.Item.IsSound).ToList();
        return pictures.Count > 0 ? pictures[0].Index
            : exact.Count > 0 ? exact[0].Index
            : ofEvent.Count > 0 ? ofEvent[0].Index
            : lastOfReel.GetValueOrDefault(reel, -1);
    }

    private void Comment(string text)
    {
        var last = lastPicture;
        if (last < 0)
        {
            return;
        }

        if (NameAfter(text, "FROM CLIP NAME:") is { } from)
        {
            // In a transition the name is that of the clip that leaves, which has a line of no length of its own.
            var leaving = events[last].Kind is not null && last > 0 && events[last - 1].Number == events[last].Number ? last - 1 : last;
            events[leaving] = events[leaving] with { Name = from };
        }
        else if (NameAfter(text, "TO CLIP NAME:") is { } to)
        {
            events[last] = events[last] with { Name = to };
        }
        else if (
            text.StartsWith("EFFECT NAME:", StringComparison.OrdinalIgnoreCase)
            || text.StartsWith("NOT CARRIED:", StringComparison.OrdinalIgnoreCase)
        )
        {
            Note($"Event {events[last].Number}: {text}.");
        }
        else if (text.Length > 0)
        {
            Note($"Event {events[last].Number}: the comment '{Short(text)}' was left out.");
        }
    }

    private ImportedTimeline ToTimeline()
    {
        events.RemoveAll(one => one.IsSound);
        if (events.Count == 0)
        {
            throw new InterchangeException("The list has no video event.");
        }

        WarnOfOverlaps();
        var zero = events.Min(one => one.RecordIn);
        var (items, media) = (new List<TrackItem>(), new Dictionary<string, ImportedMedia>());
        var before = (Event?)null;
        foreach (var (place, one) in events.Index())
        {
            var (earlier, next) = (before, place + 1 < events.Count ? events[place + 1] : null);
            before = one.RecordOut > one.RecordIn ? one : before;
            var coming = one.Kind is not null && one.Length > 0;
            if (coming && items.Count > 0 && items[^1] is var leaving && leaving.End == one.RecordIn - zero)
            {
                items[^1] = leaving with { Length = leaving.Length + Math.Min(one.Length, one.RecordOut - one.RecordIn) };
            }

            if (IsBlack(one.Reel) && one.Name is null)
            {
                if (one.RecordOut > one.RecordIn)
                {
                    Note($"Event {one.Number} is black and was left out.");
                }

                continue;
            }

            if (one.RecordOut == one.RecordIn && !IsLeaving(one, earlier, next))
            {
                continue;
            }

            var key = one.Name ?? one.Reel;
            media.TryAdd(key, new ImportedMedia(key, key, null, null, null));
            items.Add(new TrackItem(
                one.RecordIn - zero, one.RecordOut - one.RecordIn, 0, key, new MediaTime(one.SourceIn, rate.FramesPerSecond), [],
                one.Speed is { } speed and not 1 ? new Retime(speed) : null, [], null, null,
                coming ? one.Kind : null, coming ? Math.Min(one.Length, one.RecordOut - one.RecordIn) : 0));
        }

        return new ImportedTimeline(title, rate, [.. items.Where(item => item.Length > 0)], [.. media.Values], [], null, notes);
    }

    /// <summary>The format has one picture track, so two events at once are an oversight, or layers of a program that writes them
    /// so.</summary>
    private void WarnOfOverlaps()
    {
        var latest = (Event?)null;
        foreach (var one in events.Where(one => one.RecordOut > one.RecordIn).OrderBy(one => one.RecordIn))
        {
            if (latest is not null && one.RecordIn < latest.RecordOut)
            {
                Note(
                    $"Events {latest.Number} and {one.Number} overlap by {Math.Min(latest.RecordOut, one.RecordOut) - one.RecordIn} "
                        + $"frames from {Timecode.Of(one.RecordIn, rate)} on; both are played, the later one over the other."
                );
            }

            latest = latest is null || one.RecordOut > latest.RecordOut ? one : latest;
        }
    }

    /// <summary>A line of no length that says which clip a transition leaves, where no event before it shows that clip.</summary>
    /// <param name="before">The last one before it that has a length; null without one.</param>
    /// <param name="next">The one after it; null for the last.</param>
    private static bool IsLeaving(Event one, Event? before, Event? next) =>
        next is { Kind: not null } && next.Number == one.Number
        && (
            before is null
            || before.RecordOut != one.RecordIn
            || before.SourceOut != one.SourceIn
            || (one.Speed is not null && one.Speed != (before.Speed ?? 1))
            || (before.Name ?? before.Reel) != (one.Name ?? one.Reel));

    private static bool IsBlack(string reel) =>
        reel.Equals("BL", StringComparison.OrdinalIgnoreCase) || reel.Equals("BLACK", StringComparison.OrdinalIgnoreCase);

    private static string? NameAfter(string text, string head) =>
        text.StartsWith(head, StringComparison.OrdinalIgnoreCase) && text[head.Length..].Trim() is { Length: > 0 } name ? name : null;

    private static string Short(string line) => line.Length <= 60 ? line : line[..60] + "…";

    private void Note(string note)
    {
        if (notes.Count < MaxNotes && noted.Add(note))
        {
            notes.Add(notes.Count < MaxNotes - 1 ? note : "More was left out that is not listed.");
        }
    }

    [GeneratedRegex(
        @"^(?<number>\d{1,6})\s+(?<reel>\S+)\s+(?<channel>[A-Za-z0-9/]+)\s+(?<kind>[A-Za-z]\d{0,3})\s+(?:(?<length>\d{1,4})\s+)?(?<in>\d\S{10,11})\s+(?<out>\d\S{10,11})\s+(?<recin>\d\S{10,11})\s+(?<recout>\d\S{10,11})\s*$",
        RegexOptions.CultureInvariant,
        matchTimeoutMilliseconds: 1000
    )]
    private static partial Regex EventLine();

    [GeneratedRegex(
        @"^M2[\s:]+(?<reel>\S+)\s+(?<rate>[+-]?\d{1,5}(\.\d{1,6})?)(\s+(?<at>\d\S{10,11}))?\s*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        matchTimeoutMilliseconds: 1000
    )]
    private static partial Regex SpeedLine();

    private sealed record Event(
        string Number, string Reel, Transition? Kind, long Length, long SourceIn, long SourceOut, long RecordIn, long RecordOut)
    {
        public string? Name { get; init; }

        public double? Speed { get; init; }

        public bool IsSound { get; init; }
    }
}
