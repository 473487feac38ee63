using System.Text.Json;
using System.Text.Json.Nodes;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Timelines.Imports;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Interchange;

/// <summary>Reads OpenTimelineIO JSON: timelines, stacks, tracks, clips, gaps, transitions, linear time warps, freeze frames,
/// effects, markers, references of all kinds. Nested stacks and tracks are flattened, their trims and speeds carried to what lies in
/// them.</summary>
public sealed class OtioReader
{
    private const int DeepestNesting = 32;
    private const double LongestFrames = 100_000_000;

    private readonly List<Placed> items = [];
    private readonly List<(double At, TimelineMark Mark)> marks = [];
    private readonly List<string> notes = [];
    private readonly JsonArray tracks = [];
    private readonly Dictionary<string, ImportedMedia> media = [];
    private FrameRate rate;
    private int order;
    private int placed;

    private OtioReader()
    {
    }

    /// <exception cref="InterchangeException">The text is no such timeline.</exception>
    public static ImportedTimeline Read(string json)
    {
        try
        {
            var root = JsonNode.Parse(json, documentOptions: new JsonDocumentOptions { MaxDepth = 200 }) as JsonObject
                ?? throw new InterchangeException("The file contains no OpenTimelineIO object.");
            return new OtioReader().Timeline(root);
        }
        catch (JsonException wrong)
        {
            throw new InterchangeException($"The file is not JSON: {wrong.Message}", wrong);
        }
        catch (Exception wrong)
            when (wrong is InvalidOperationException or FormatException or OverflowException or ArgumentException or KeyNotFoundException)
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
            var other => throw new InterchangeException($"The file contains '{other}', not a timeline."),
        };
        rate = Rates.Nearest(
            FirstRate(root) ?? throw new InterchangeException("The file does not state its frame rate.")
        );
        Composition(top, 0, new Context([], [], null, 0));
        var ours = Ours(root["metadata"]);
        var title = Text(root["name"]) is { Length: > 0 } name ? name : "Imported timeline";
        return new ImportedTimeline(
            title, rate, [.. items.Where(item => Whole(item.End) > Whole(item.Start)).Select(Item)], [.. media.Values],
            [.. marks.Where(mark => mark.At >= -0.5).Select(mark => mark.Mark with { Frame = Whole(mark.At) })],
            Kept(
                root["metadata"],
                ("global_start_time", Number(root["global_start_time"]?["value"]) is null or 0 ? null : root["global_start_time"]),
                ("tracks", tracks.Count > 0 ? tracks : null)
            ),
            notes,
            Value<Raster?>(ours?["raster"]), Value<int?>(ours?["bitDepth"])) { About = Text(ours?["about"]) };
    }

    /// <summary>Places are kept as they are and rounded once, at the end: lengths rounded one by one would drift.</summary>
    private static long Whole(double frames) => (long)Math.Floor(frames + 0.5 + 1e-6);

    private static TrackItem Item(Placed item)
    {
        var (start, end) = (Whole(item.Start), Whole(item.End));
        return new TrackItem(
            start,
            end - start,
            item.Order,
            item.MediaKey,
            item.MediaStart,
            item.Effects,
            item.Retime,
            item.Over,
            item.StackName,
            item.Metadata,
            item.Transition,
            item.Transition is null ? 0 : Math.Max(0, Whole(item.Start + item.TransitionLength) - start)
        )
        {
            Opacity = item.Opacity,
        };
    }

    /// <summary>Places what a stack or track holds; returns its length in frames.</summary>
    private double Composition(JsonObject node, double start, Context context)
    {
        if (context.Depth > DeepestNesting)
        {
            throw new InterchangeException($"Stacks are nested more than {DeepestNesting} deep.");
        }

        var effects = Effects(node, out var retime);
        var within = Schema(node) == "Stack"
            ? context with
            {
                Over = [.. context.Over, .. effects], Depth = context.Depth + 1,
                StackName = context.Depth > 0 && Text(node["name"]) is { Length: > 0 } name ? name : context.StackName,
            }
            : context with { LayerEffects = [.. effects, .. context.LayerEffects], Depth = context.Depth + 1 };
        var speed = SpeedOf(node, retime);
        var (trimStart, trimLength) = Range(node["source_range"]) is { } range
            ? (Frames(range.Start), (double?)Frames(range.Length))
            : (0, null);
        var (itemsBefore, marksBefore) = (items.Count, marks.Count);
        Markers(node, start - trimStart);
        var inner = Schema(node) == "Stack" ? Stack(node, start - trimStart, within) : Track(node, start - trimStart, within);
        var length = trimLength ?? inner / speed;
        if (!IsOn(node))
        {
            items.RemoveRange(itemsBefore, items.Count - itemsBefore);
            marks.RemoveRange(marksBefore, marks.Count - marksBefore);
            return length;
        }

        if (trimLength is not null)
        {
            Trim(itemsBefore, marksBefore, start, start + length * speed);
        }

        if (speed != 1)
        {
            var what = Text(node["name"]) is { Length: > 0 } called ? $"'{called}', a {Schema(node)}," : $"A {Schema(node)} without a name";
            notes.Add(FormattableString.Invariant($"{what} runs at {speed:0.###} times its speed; each clip in it was given that speed."));
            Retimed(itemsBefore, marksBefore, start, speed);
        }

        return length;
    }

    /// <summary>How fast what lies within a stack or track runs; a standing one cannot be played.</summary>
    private double SpeedOf(JsonObject node, Retime? retime)
    {
        if (retime is { Speed: 0 })
        {
            notes.Add($"'{Text(node["name"])}' is frozen as a whole, which cannot be played; its clips play instead.");
        }

        return retime is { Speed: > 0 } ? retime.Speed : 1;
    }

    private double Stack(JsonObject node, double start, Context context) =>
        Children(node).Select(child => Child(child, start, context with { Order = order++ }).Length).DefaultIfEmpty(0).Max();

    private double Track(JsonObject node, double start, Context context)
    {
        if (Text(node["kind"]) is { } kind && kind != "Video")
        {
            notes.Add($"The track '{Text(node["name"])}' of kind {kind} was left out: only pictures are played.");
            return 0;
        }

        if (Kept(node["metadata"]) is { } metadata)
        {
            tracks.Add(new JsonObject { ["name"] = Text(node["name"]), ["metadata"] = JsonNode.Parse(metadata) });
        }

        var at = start;
        var mine = context with { Order = context.Order ?? order++ };
        var (coming, leaving, previous) = ((JsonObject?)null, (Placed?)null, (JsonObject?)null);
        foreach (var child in Children(node))
        {
            if (Schema(child) == "Transition")
            {
                if (coming is not null)
                {
                    notes.Add($"Two transitions follow each other at {Place(at)}; the second was left out.");
                    continue;
                }

                coming = child;
                continue;
            }

            var (length, item) = Child(child, at, mine);
            if (coming is not null)
            {
                item = Come(coming, leaving, item, child, previous, at);
            }

            (coming, leaving, previous) = (null, item, child);
            at = Sane(at + length);
        }

        if (coming is not null)
        {
            Come(coming, leaving, null, null, previous, at);
        }

        return at - start;
    }

    /// <summary>Lets an item come in by a transition; where there is nothing that it comes from or nothing that comes, it is a cut, and
    /// that is reported.</summary>
    private Placed? Come(JsonObject transition, Placed? leaving, Placed? item, JsonObject? child, JsonObject? previous, double at)
    {
        var (before, after) = (OffsetOf(transition, "in_offset"), OffsetOf(transition, "out_offset"));
        if (WhyCut(leaving, item, previous, child) is { } why)
        {
            notes.Add($"The transition at {Place(at)} {why}");
        }

        if (IsComposition(previous) || IsComposition(child) || before + after <= 0)
        {
            return item;
        }

        // What leaves stays on screen until the transition is over.
        if (leaving is not null)
        {
            Replace(leaving with { End = leaving.End + after });
        }

        if (item is null)
        {
            return null;
        }

        var early = Math.Min(before, item.Start);
        var whole = item with
        {
            Start = item.Start - early,
            MediaStart = item.MediaStart with
            {
                Frames = item.MediaStart.Frames - early * (item.Retime?.Speed ?? 1) * item.MediaStart.Rate / rate.FramesPerSecond,
            },
            Transition = leaving is null ? null : KindOf(transition),
            TransitionLength = leaving is null ? 0 : early + after,
            Metadata = Joined(item.Metadata, "transition", Kept(transition["metadata"])),
        };
        Replace(whole);
        return whole;
    }

    private static string? WhyCut(Placed? leaving, Placed? item, JsonObject? previous, JsonObject? child) =>
        leaving is not null && item is not null ? null
        : IsComposition(previous) || IsComposition(child)
            ? $"between '{Text(previous?["name"])}' and '{Text(child?["name"])}' became a cut: a transition needs clips on both sides."
        : leaving is not null ? "fades to nothing; the footage is played to its end and then cut."
        : item is not null ? "fades from nothing; the footage begins with a cut and is played whole."
        : "is between items that are not played and was left out.";

    private static bool IsComposition(JsonObject? node) => node is not null && Schema(node) is "Stack" or "Track";

    /// <summary>It is one of the newest, so it is looked for from the end.</summary>
    private void Replace(Placed item) => items[items.FindLastIndex(one => one.Number == item.Number)] = item;

    private double OffsetOf(JsonObject transition, string name) =>
        transition[name] is JsonObject offset ? Math.Max(0, Frames(Time(offset))) : 0;

    private string Place(double at) => Timecode.Of(Math.Max(0, Whole(at)), rate);

    /// <summary>Places one child; returns its length, and the item if it became one.</summary>
    private (double Length, Placed? Item) Child(JsonObject node, double start, Context context)
    {
        switch (Schema(node))
        {
            case "Clip":
                return Clip(node, start, context);
            case "Gap":
                Markers(node, start - (Range(node["source_range"]) is { } trim ? Frames(trim.Start) : 0));
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

    private (double Length, Placed? Item) Clip(JsonObject node, double start, Context context)
    {
        var reference = (node["media_references"] as JsonObject)?[Text(node["active_media_reference_key"]) ?? "DEFAULT_MEDIA"] as JsonObject
            ?? node["media_reference"] as JsonObject;
        var available = Range(reference?["available_range"]);
        var range = Range(node["source_range"]) ?? available
            ?? throw new InterchangeException($"The clip '{Text(node["name"])}' has no length.");
        var length = Frames(range.Length);
        if (!IsOn(node))
        {
            return (length, null);
        }

        Markers(node, start - Frames(range.Start));
        if (length == 0)
        {
            return (0, null);
        }

        var effects = Effects(node, out var retime);
        var item = new Placed(
            placed++, start, start + length, context.Order ?? order++, Media(node, reference),
            Within(range.Start, available?.Start, node), [.. effects, .. context.LayerEffects], retime, context.Over, context.StackName,
            Joined(Kept(node["metadata"]), "reference", Kept(reference?["metadata"])), null, 0)
        {
            Opacity = Number(Ours(node["metadata"])?["opacity"]) is { } opacity ? Math.Clamp(opacity, 0, 1) : null,
        };
        items.Add(item);
        return (length, item);
    }

    /// <summary>Where in its file a clip begins. Cameras count from the time of day, and a reference says from which moment on.</summary>
    private MediaTime Within(MediaTime start, MediaTime? first, JsonObject clip)
    {
        if (first is not { Frames: not 0 } begins)
        {
            return start;
        }

        var frames = start.Frames - begins.Frames * start.Rate / begins.Rate;
        if (frames < -1e-6)
        {
            notes.Add($"'{Text(clip["name"])}' begins before its footage does; it is played from the footage's beginning.");
        }

        return start with { Frames = Math.Max(0, frames), IsCounted = true };
    }

    /// <summary>Whether an item, a track or an effect is switched on; what is switched off is reported.</summary>
    private bool IsOn(JsonObject node)
    {
        if (IsEnabled(node))
        {
            return true;
        }

        notes.Add($"'{Text(node["name"]) ?? Text(node["effect_name"])}', a {Schema(node)}, is disabled and was left out.");
        return false;
    }

    private static bool IsEnabled(JsonObject node) =>
        node["enabled"] is not JsonValue enabled || enabled.GetValueKind() != JsonValueKind.False;

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
            if (Schema(effect) == "Effect" && Text(ours?["id"]) is { } id && EffectCatalogue.Find(id) is not null)
            {
                effects.Add(new Effect(id, Settings(ours!["settings"]), Text(ours["text"])) { IsOff = !IsEnabled(effect) });
                continue;
            }

            if (!IsOn(effect))
            {
                continue;
            }

            switch (Schema(effect))
            {
                case "LinearTimeWarp":
                    var speed = Number(effect["time_scalar"]) ?? 1;
                    if (speed < 0)
                    {
                        notes.Add($"'{Text(node["name"])}' runs backwards, which cannot be played; it plays forwards instead.");
                    }

                    retime = Then(retime, new Retime(Math.Min(100, Math.Abs(speed)), Method(ours)), node);
                    break;
                case "FreezeFrame":
                    retime = Then(retime, new Retime(0, Method(ours)), node);
                    break;
                default:
                    notes.Add(
                        $"The effect '{Text(effect["effect_name"]) ?? Schema(effect)}' on '{Text(node["name"])}' is not known here "
                            + "and was left out."
                    );
                    break;
            }
        }

        return effects;
    }

    /// <summary>One speed after another: each runs what the one before shows, so they are multiplied.</summary>
    private Retime Then(Retime? first, Retime next, JsonObject node)
    {
        if (first is null)
        {
            return next;
        }

        var both = next with { Speed = Math.Min(100, first.Speed * next.Speed) };
        notes.Add(FormattableString.Invariant(
            $"'{Text(node["name"])}' has more than one speed; they are multiplied to {both.Speed:0.###} times."));
        return both;
    }

    private static RetimeMethod Method(JsonObject? ours) =>
        Enum.TryParse<RetimeMethod>(Text(ours?["method"]), ignoreCase: true, out var method) && Enum.IsDefined(method)
            ? method
            : RetimeMethod.Repeat;

    private static Dictionary<string, double> Settings(JsonNode? node) =>
        (node as JsonObject)
            ?.Where(setting => Number(setting.Value) is not null)
            .ToDictionary(setting => setting.Key, setting => Number(setting.Value)!.Value)
        ?? [];

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

    /// <summary>Marks count in the time of what they are on, which begins at <paramref name="origin"/>.</summary>
    private void Markers(JsonObject node, double origin)
    {
        foreach (var marker in (node["markers"] as JsonArray)?.OfType<JsonObject>() ?? [])
        {
            if (Range(marker["marked_range"]) is { } range)
            {
                marks.Add(
                    (
                        origin + Frames(range.Start),
                        new TimelineMark(0, Text(marker["name"]) ?? string.Empty)
                        {
                            Metadata = Kept(
                                marker["metadata"],
                                ("color", Text(marker["color"]) == OtioWriter.MarkColour ? null : marker["color"]),
                                ("comment", marker["comment"])
                            ),
                        }
                    )
                );
            }
        }
    }

    /// <summary>Cuts what was placed since to a trimmed stretch.</summary>
    private void Trim(int fromItem, int fromMark, double start, double end)
    {
        for (var i = items.Count - 1; i >= fromItem; i--)
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
                Start = left, End = right, MediaStart = item.MediaStart with { Frames = item.MediaStart.Frames + skipped },
                TransitionLength = Math.Max(0, item.TransitionLength - (left - item.Start)),
            };
        }

        for (var i = marks.Count - 1; i >= fromMark; i--)
        {
            if (marks[i].At < start || marks[i].At >= end)
            {
                notes.Add($"The mark '{marks[i].Mark.Name}' is outside the visible part of its stack and was left out.");
                marks.RemoveAt(i);
            }
        }
    }

    /// <summary>Lets all that was placed since run at a speed.</summary>
    private void Retimed(int fromItem, int fromMark, double start, double speed)
    {
        for (var i = fromItem; i < items.Count; i++)
        {
            var item = items[i];
            var retime = item.Retime ?? new Retime(1);
            items[i] = item with
            {
                Start = start + (item.Start - start) / speed,
                End = start + (item.End - start) / speed,
                TransitionLength = item.TransitionLength / speed,
                Retime = retime with { Speed = Math.Min(100, retime.Speed * speed) },
            };
        }

        for (var i = fromMark; i < marks.Count; i++)
        {
            marks[i] = (start + (marks[i].At - start) / speed, marks[i].Mark);
        }
    }

    /// <summary>A moment in frames of the timeline, not rounded.</summary>
    private double Frames(MediaTime time) => Sane(Math.Clamp(time.Frames * rate.FramesPerSecond / time.Rate, -1e12, 1e12));

    private static double Sane(double frames) => Math.Abs(frames) <= LongestFrames
        ? frames
        : throw new InterchangeException($"A length or position of {frames:0} frames is far too large.");

    private static (MediaTime Start, MediaTime Length)? Range(JsonNode? node) =>
        node is JsonObject range && range["duration"] is JsonObject duration
            ? (
                range["start_time"] is JsonObject start ? Time(start) : new MediaTime(0, Time(duration).Rate),
                Time(duration) is { Frames: >= 0 } length ? length : throw new InterchangeException("A clip or gap has a negative length.")
            )
            : null;

    private static MediaTime Time(JsonNode? node)
    {
        var (value, rate) = (Number(node?["value"]) ?? 0, Number(node?["rate"]) ?? 0);
        return rate is > 0 and <= 100_000 && double.IsFinite(value)
            ? new MediaTime(value, rate)
            : throw new InterchangeException("A time has no rate.");
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
            JsonObject parent
                when parent["global_start_time"] is JsonObject start && Number(start["rate"]) is >= 1 and <= 1000 and var rate => rate,
            // The timeline's own lengths come before those of footage.
            JsonObject parent => FirstRate(parent["source_range"]?["duration"], depth + 1)
                ?? parent
                    .Where(child => child.Key is not "metadata" and not "media_references" and not "media_reference")
                    .Select(child => FirstRate(child.Value, depth + 1))
                    .FirstOrDefault(rate => rate is not null)
                ?? FirstRate(parent["media_reference"], depth + 1) ?? FirstRate(parent["media_references"], depth + 1),
            JsonArray children => children.Select(child => FirstRate(child, depth + 1)).FirstOrDefault(rate => rate is not null),
            _ => null,
        };
    }

    private static IEnumerable<JsonObject> Children(JsonObject node) => (node["children"] as JsonArray)?.OfType<JsonObject>() ?? [];

    /// <summary>The kind of an object, its version aside.</summary>
    private static string Schema(JsonObject node) => Text(node["OTIO_SCHEMA"])?.Split('.')[0] ?? "nothing";

    private static JsonObject? Ours(JsonNode? metadata) => (metadata as JsonObject)?[OtioWriter.Namespace] as JsonObject;

    /// <summary>Metadata of other programs, to go out again as it came, with what else has no place in a timeline of ours under our
    /// name.</summary>
    private string? Kept(JsonNode? metadata, params (string Name, JsonNode? Value)[] more)
    {
        var all = new JsonObject(
            (metadata as JsonObject ?? [])
                .Where(entry => entry.Key != OtioWriter.Namespace)
                .Select(entry => KeyValuePair.Create(entry.Key, entry.Value?.DeepClone()))
        );
        var kept = new JsonObject(
            more.Where(one => one.Value is not null).Select(one => KeyValuePair.Create(one.Name, one.Value?.DeepClone()))
        );
        if (kept.Count > 0)
        {
            all[OtioWriter.Namespace] = kept;
        }

        return all.Count == 0 ? null : Short(all.ToJsonString());
    }

    /// <summary>Metadata with that of something else beside it, under our name.</summary>
    private string? Joined(string? metadata, string name, string? other) =>
        other is null
            ? metadata
            : Kept(metadata is null ? null : JsonNode.Parse(metadata), [.. OursIn(metadata), (name, JsonNode.Parse(other))]);

    private static IEnumerable<(string Name, JsonNode? Value)> OursIn(string? metadata) =>
        metadata is null ? [] : (Ours(JsonNode.Parse(metadata)) ?? []).Select(entry => (entry.Key, entry.Value));

    /// <summary>What is too long to be kept is left out, and told.</summary>
    private string? Short(string metadata)
    {
        if (metadata.Length <= TimelineLimits.LongestMetadata)
        {
            return metadata;
        }

        notes.Add(
            $"Metadata of another program has {metadata.Length} letters and was left out; "
                + $"at most {TimelineLimits.LongestMetadata} can be saved."
        );
        return null;
    }

    private static string? Text(JsonNode? node) => node is JsonValue value && value.TryGetValue<string>(out var text) ? text : null;

    private static double? Number(JsonNode? node) => node is JsonValue value && value.TryGetValue<double>(out var number) ? number : null;

    private sealed record Context(
        IReadOnlyList<Effect> LayerEffects, IReadOnlyList<Effect> Over, string? StackName, int Depth, int? Order = null);

    /// <summary>A clip on its place, which is not rounded yet.</summary>
    private sealed record Placed(
        int Number,
        double Start,
        double End,
        int Order,
        string MediaKey,
        MediaTime MediaStart,
        IReadOnlyList<Effect> Effects,
        Retime? Retime,
        IReadOnlyList<Effect> Over, string? StackName, string? Metadata, Transition? Transition, double TransitionLength)
    {
        public double? Opacity { get; init; }
    }
}
