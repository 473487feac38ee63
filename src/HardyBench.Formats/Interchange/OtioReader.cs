using System.Text.Json;
using System.Text.Json.Nodes;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Timelines.Imports;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Interchange;

/// <summary>Reads OpenTimelineIO JSON: timelines, stacks, tracks, clips, gaps, transitions, linear time warps, freeze frames,
/// effects, markers, references of all kinds. Nested stacks and tracks are flattened.</summary>
public sealed class OtioReader
{
    private const int DeepestNesting = 32;
    private const long LongestFrames = 100_000_000;

    private readonly List<TrackItem> items = [];
    private readonly List<TimelineMark> marks = [];
    private readonly List<string> notes = [];
    private readonly Dictionary<string, ImportedMedia> media = [];
    private FrameRate rate;
    private int order;
    private long transitionAfter;

    private OtioReader()
    {
    }

    /// <exception cref="InterchangeException">The text is no such timeline.</exception>
    public static ImportedTimeline Read(string json)
    {
        try
        {
            var root = JsonNode.Parse(json, documentOptions: new JsonDocumentOptions { MaxDepth = 200 }) as JsonObject
                ?? throw new InterchangeException("The file holds no OpenTimelineIO object.");
            return new OtioReader().Timeline(root);
        }
        catch (JsonException wrong)
        {
            throw new InterchangeException($"The file is no JSON: {wrong.Message}", wrong);
        }
        catch (Exception wrong) when (wrong is InvalidOperationException or FormatException or OverflowException or ArgumentException or KeyNotFoundException)
        {
            throw new InterchangeException($"The file does not follow OpenTimelineIO: {wrong.Message}", wrong);
        }
    }

    private ImportedTimeline Timeline(JsonObject root)
    {
        var top = Schema(root) switch
        {
            "Timeline" => root["tracks"] as JsonObject ?? throw new InterchangeException("The timeline has no tracks."),
            "Stack" or "Track" => root,
            var other => throw new InterchangeException($"The file holds '{other}', not a timeline."),
        };
        rate = Rates.Nearest(FirstRate(root) ?? throw new InterchangeException("Nothing in the file says how many frames a second it has."));
        Composition(top, 0, new Context([], [], null, 0));
        var ours = Ours(root["metadata"]);
        var title = Text(root["name"]) is { Length: > 0 } name ? name : "Imported timeline";
        return new ImportedTimeline(title, rate, items, [.. media.Values], marks, Kept(root["metadata"]), notes,
            Value<Raster?>(ours?["raster"]), Value<int?>(ours?["bitDepth"]));
    }

    /// <summary>Places what a stack or track holds; returns its length in frames.</summary>
    private long Composition(JsonObject node, long start, Context context)
    {
        if (context.Depth > DeepestNesting)
        {
            throw new InterchangeException($"Stacks lie more than {DeepestNesting} deep in one another.");
        }

        var effects = Effects(node, out _);
        var within = Schema(node) == "Stack"
            ? context with
            {
                Over = [.. context.Over, .. effects], Depth = context.Depth + 1,
                StackName = context.Depth > 0 && Text(node["name"]) is { Length: > 0 } name ? name : context.StackName,
            }
            : context with { LayerEffects = [.. effects, .. context.LayerEffects], Depth = context.Depth + 1 };
        Markers(node, start);
        var (trimStart, trimLength) = Range(node["source_range"]) is { } range ? (Frames(range.Start), (long?)Frames(range.Length)) : (0L, null);
        var before = items.Count;
        var length = Schema(node) == "Stack" ? Stack(node, start - trimStart, within) : Track(node, start - trimStart, within);
        if (trimLength is { } trimmed)
        {
            Trim(before, start, start + trimmed);
        }

        return trimLength ?? length;
    }

    private long Stack(JsonObject node, long start, Context context) =>
        Children(node).Select(child => Child(child, start, context).Length).DefaultIfEmpty(0).Max();

    private long Track(JsonObject node, long start, Context context)
    {
        if (Text(node["kind"]) is { } kind && kind != "Video")
        {
            notes.Add($"The track '{Text(node["name"])}' of kind {kind} was left out: only pictures are played.");
            return 0;
        }

        var at = start;
        var mine = order++;
        var (coming, comingIn, leaving) = ((Transition?)null, 0L, (TrackItem?)null);
        foreach (var child in Children(node))
        {
            if (Schema(child) == "Transition")
            {
                var (before, after) = (Frames(Time(child["in_offset"])), Frames(Time(child["out_offset"])));
                coming = KindOf(child);
                comingIn = before;
                // What leaves stays on screen until the transition is over.
                if (leaving is not null && items.Count > 0 && ReferenceEquals(items[^1], leaving))
                {
                    items[^1] = leaving with { Length = leaving.Length + after };
                }

                transitionAfter = after;
                continue;
            }

            var (length, item) = Child(child, at, context with { Order = mine });
            if (item is not null && coming is { } transition && comingIn + transitionAfter > 0)
            {
                var early = Math.Min(comingIn, item.Start);
                var speed = item.Retime?.Speed ?? 1;
                items[^1] = item = item with
                {
                    Start = item.Start - early,
                    Length = item.Length + early,
                    MediaStart = item.MediaStart with { Frames = item.MediaStart.Frames - early * speed * item.MediaStart.Rate / rate.FramesPerSecond },
                    Transition = transition,
                    TransitionLength = early + transitionAfter,
                };
            }

            (coming, leaving, transitionAfter) = (null, item, 0);
            at = Sane(at + length);
        }

        return at - start;
    }

    /// <summary>Places one child; returns its length, and the item if it became one.</summary>
    private (long Length, TrackItem? Item) Child(JsonObject node, long start, Context context)
    {
        switch (Schema(node))
        {
            case "Clip":
                return Clip(node, start, context);
            case "Gap":
                Markers(node, start);
                return (Range(node["source_range"]) is { } gap ? Frames(gap.Length) : 0, null);
            case "Stack" or "Track":
                return (Composition(node, start, context), null);
            case "Transition":
                return (0, null);
            default:
                notes.Add($"'{Schema(node)}' is not known and was left out.");
                return (0, null);
        }
    }

    private (long Length, TrackItem? Item) Clip(JsonObject node, long start, Context context)
    {
        var reference = (node["media_references"] as JsonObject)?[Text(node["active_media_reference_key"]) ?? "DEFAULT_MEDIA"] as JsonObject
            ?? node["media_reference"] as JsonObject;
        var range = Range(node["source_range"]) ?? Range(reference?["available_range"])
            ?? throw new InterchangeException($"The clip '{Text(node["name"])}' has no length.");
        var length = Frames(range.Length);
        Markers(node, start);
        if (node["enabled"] is JsonValue enabled && enabled.GetValueKind() == JsonValueKind.False)
        {
            notes.Add($"The clip '{Text(node["name"])}' is switched off and was left out.");
            return (length, null);
        }

        if (length == 0)
        {
            return (0, null);
        }

        var effects = Effects(node, out var retime);
        var item = new TrackItem(
            start, length, context.Order ?? order++, Media(node, reference), range.Start, [.. effects, .. context.LayerEffects], retime,
            context.Over, context.StackName, Kept(node["metadata"]));
        items.Add(item);
        return (length, item);
    }

    private string Media(JsonObject clip, JsonObject? reference)
    {
        var ours = Ours(reference?["metadata"]) ?? Ours(clip["metadata"]);
        var address = Text(reference?["target_url"]);
        var name = Text(ours?["id"]) ?? (Text(reference?["name"]) is { Length: > 0 } named ? named : null)
            ?? (Text(clip["name"]) is { Length: > 0 } called ? called : null) ?? address?.Split('/')[^1] ?? "unnamed footage";
        if (reference is not null && Schema(reference) is "MissingReference" or "GeneratorReference" or "ImageSequenceReference")
        {
            var note = $"'{name}' is a {Schema(reference)}; choose a clip for it.";
            if (!notes.Contains(note))
            {
                notes.Add(note);
            }
        }

        var key = address ?? name;
        media.TryAdd(key, new ImportedMedia(key, name, address, Text(ours?["sha256"]), Value<ClipFormat>(ours?["format"])));
        return key;
    }

    /// <summary>One of our own values in metadata, or nothing where it is not what it should be.</summary>
    private static T? Value<T>(JsonNode? node)
    {
        try
        {
            return node is null ? default : node.Deserialize<T>(BenchJson.Options);
        }
        catch (JsonException)
        {
            return default;
        }
    }

    private List<Effect> Effects(JsonObject node, out Retime? retime)
    {
        retime = null;
        var effects = new List<Effect>();
        foreach (var effect in (node["effects"] as JsonArray)?.OfType<JsonObject>() ?? [])
        {
            var ours = Ours(effect["metadata"]);
            switch (Schema(effect))
            {
                case "LinearTimeWarp":
                    var speed = Number(effect["time_scalar"]) ?? 1;
                    if (speed < 0)
                    {
                        notes.Add($"'{Text(node["name"])}' runs backwards, which cannot be played; it runs forwards instead.");
                    }

                    retime = new Retime(Math.Min(100, Math.Abs(speed)), Method(ours));
                    break;
                case "FreezeFrame":
                    retime = new Retime(0, Method(ours));
                    break;
                case "Effect" when Text(ours?["id"]) is { } id && EffectCatalogue.Find(id) is not null:
                    effects.Add(new Effect(id, Settings(ours!["settings"]), Text(ours["text"])));
                    break;
                default:
                    notes.Add($"The effect '{Text(effect["effect_name"]) ?? Schema(effect)}' on '{Text(node["name"])}' is not known here and was left out.");
                    break;
            }
        }

        return effects;
    }

    private static RetimeMethod Method(JsonObject? ours) =>
        Enum.TryParse<RetimeMethod>(Text(ours?["method"]), ignoreCase: true, out var method) && Enum.IsDefined(method) ? method : RetimeMethod.Repeat;

    private static Dictionary<string, double> Settings(JsonNode? node) =>
        (node as JsonObject)?.Where(setting => Number(setting.Value) is not null).ToDictionary(setting => setting.Key, setting => Number(setting.Value)!.Value) ?? [];

    private Transition KindOf(JsonObject node)
    {
        var (type, ours) = (Text(node["transition_type"]) ?? string.Empty, Text(Ours(node["metadata"])?["kind"]));
        if (Enum.TryParse<Transition>(ours, ignoreCase: true, out var kind) && Enum.IsDefined(kind))
        {
            return kind;
        }

        if (type.Contains("wipe", StringComparison.OrdinalIgnoreCase))
        {
            return Transition.Wipe;
        }

        if (!type.Contains("dissolve", StringComparison.OrdinalIgnoreCase))
        {
            notes.Add($"A transition of type '{type}' became a dissolve.");
        }

        return Transition.Dissolve;
    }

    private void Markers(JsonObject node, long start)
    {
        foreach (var marker in (node["markers"] as JsonArray)?.OfType<JsonObject>() ?? [])
        {
            if (Range(marker["marked_range"]) is { } range)
            {
                // A marker on a clip counts from the clip's footage; on a stack or track from its own start.
                var origin = Schema(node) == "Clip" && Range(node["source_range"]) is { } source ? Frames(source.Start) : 0;
                marks.Add(new TimelineMark(Math.Max(0, start + Frames(range.Start) - origin), Text(marker["name"]) ?? string.Empty));
            }
        }
    }

    /// <summary>Cuts what was placed since to a trimmed stretch.</summary>
    private void Trim(int from, long start, long end)
    {
        for (var i = items.Count - 1; i >= from; i--)
        {
            var item = items[i];
            var (left, right) = (Math.Max(item.Start, start), Math.Min(item.End, end));
            if (left >= right)
            {
                items.RemoveAt(i);
                continue;
            }

            var skipped = (left - item.Start) * (item.Retime?.Speed ?? 1) * item.MediaStart.Rate / rate.FramesPerSecond;
            items[i] = item with
            {
                Start = left, Length = right - left, MediaStart = item.MediaStart with { Frames = item.MediaStart.Frames + skipped },
                TransitionLength = Math.Max(0, item.TransitionLength - (left - item.Start)),
            };
        }
    }

    private long Frames(MediaTime time) => Sane((long)Math.Round(Math.Clamp(time.Frames * rate.FramesPerSecond / time.Rate, -1e12, 1e12)));

    private static long Sane(long frames) => Math.Abs(frames) <= LongestFrames
        ? frames
        : throw new InterchangeException($"A length or position of {frames} frames is out of all measure.");

    private static (MediaTime Start, MediaTime Length)? Range(JsonNode? node) =>
        node is JsonObject range && range["duration"] is JsonObject duration
            ? (range["start_time"] is JsonObject start ? Time(start) : new MediaTime(0, Time(duration).Rate), Time(duration) is { Frames: >= 0 } length
                ? length
                : throw new InterchangeException("A clip or gap has a negative length."))
            : null;

    private static MediaTime Time(JsonNode? node)
    {
        var (value, rate) = (Number(node?["value"]) ?? 0, Number(node?["rate"]) ?? 0);
        return rate is > 0 and <= 100_000 && double.IsFinite(value) ? new MediaTime(value, rate) : throw new InterchangeException("A time has no rate.");
    }

    private static double? FirstRate(JsonNode? node, int depth = 0)
    {
        if (depth > 150)
        {
            return null;
        }

        return node switch
        {
            JsonObject time when Schema(time) == "RationalTime" && Number(time["rate"]) is >= 1 and <= 1000 and var rate => rate,
            JsonObject parent when parent["global_start_time"] is JsonObject start && Number(start["rate"]) is >= 1 and <= 1000 and var rate => rate,
            // The timeline's own lengths come before those of footage.
            JsonObject parent => FirstRate(parent["source_range"]?["duration"], depth + 1)
                ?? parent.Where(child => child.Key is not "metadata" and not "media_references" and not "media_reference").Select(child => FirstRate(child.Value, depth + 1)).FirstOrDefault(rate => rate is not null)
                ?? FirstRate(parent["media_reference"], depth + 1) ?? FirstRate(parent["media_references"], depth + 1),
            JsonArray children => children.Select(child => FirstRate(child, depth + 1)).FirstOrDefault(rate => rate is not null),
            _ => null,
        };
    }

    private static IEnumerable<JsonObject> Children(JsonObject node) => (node["children"] as JsonArray)?.OfType<JsonObject>() ?? [];

    /// <summary>The kind of an object, its version aside.</summary>
    private static string Schema(JsonObject node) => Text(node["OTIO_SCHEMA"])?.Split('.')[0] ?? "nothing";

    private static JsonObject? Ours(JsonNode? metadata) => (metadata as JsonObject)?[OtioWriter.Namespace] as JsonObject;

    /// <summary>Metadata of other programs, to go out again as it came.</summary>
    private static string? Kept(JsonNode? metadata)
    {
        if (metadata is not JsonObject all)
        {
            return null;
        }

        var others = all.Where(entry => entry.Key != OtioWriter.Namespace).ToList();
        return others.Count == 0 ? null : new JsonObject(others.Select(entry => KeyValuePair.Create(entry.Key, entry.Value?.DeepClone()))).ToJsonString();
    }

    private static string? Text(JsonNode? node) => node is JsonValue value && value.TryGetValue<string>(out var text) ? text : null;

    private static double? Number(JsonNode? node) => node is JsonValue value && value.TryGetValue<double>(out var number) ? number : null;

    private sealed record Context(
        IReadOnlyList<Effect> LayerEffects, IReadOnlyList<Effect> Over, string? StackName, int Depth, int? Order = null);
}
