using System.Text.Json;
using System.Text.Json.Nodes;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Interchange;

/// <summary>Writes OpenTimelineIO JSON: one track of stacks, a stack a passage, a track a layer, so that passages and the
/// effects over all their layers stay what they are. What the format has no place for stands in metadata.</summary>
public static class OtioWriter
{
    /// <summary>The name under which our own metadata stands.</summary>
    public const string Namespace = "hardy-bench";

    /// <summary>The colour of marks that have none of their own.</summary>
    internal const string MarkColour = "CYAN";

    private static readonly JsonSerializerOptions Indented = new() { WriteIndented = true };

    public static string Write(Timeline timeline, IReadOnlyDictionary<string, Clip> clips)
    {
        var passages = new JsonArray([.. timeline.Passages.Select(passage => Stack(passage, timeline, clips))]);
        var track = Named("Track.1", "passages", null);
        Fill(track, null, [], []);
        track["children"] = passages;
        track["kind"] = "Video";
        var tracks = Named("Stack.1", "tracks", null);
        Fill(tracks, null, [], timeline.Marks ?? [], timeline.Rate);
        tracks["children"] = new JsonArray(track);
        var kept = OursIn(timeline.Metadata);
        var root = Named("Timeline.1", timeline.Title, Metadata(timeline.Metadata, new JsonObject
        {
            ["raster"] = JsonSerializer.SerializeToNode(timeline.Raster, BenchJson.Options),
            ["bitDepth"] = timeline.BitDepth,
        }));
        if (timeline.About is { } about)
        {
            root["metadata"]![Namespace]!["about"] = about;
        }

        if (kept["tracks"] is { } others)
        {
            // Our tracks are not those it came with, so what was noted on those stands with the timeline.
            root["metadata"]![Namespace]!["tracks"] = others.DeepClone();
        }

        root["global_start_time"] = kept["global_start_time"]?.DeepClone() ?? Time(0, timeline.Rate);
        root["tracks"] = tracks;
        return root.ToJsonString(Indented);
    }

    private static JsonObject Stack(Passage passage, Timeline timeline, IReadOnlyDictionary<string, Clip> clips)
    {
        var stack = Named("Stack.1", passage.Question, null);
        Fill(stack, Range(0, passage.FrameCount, timeline.Rate), passage.Over, []);
        stack["children"] = passage is { Transition: { } transition, Layers.Count: 2 }
            ? new JsonArray(TransitionTrack(passage, transition, timeline, clips))
            : new JsonArray([.. passage.Layers.Select((layer, i) =>
                Track($"layer {i + 1}", Clip(layer, 0, passage.FrameCount, timeline, clips)))]);
        return stack;
    }

    /// <summary>Half of the passage by the clip that leaves, half by the one that comes, and a transition as long as both.</summary>
    private static JsonObject TransitionTrack(Passage passage, Transition kind, Timeline timeline, IReadOnlyDictionary<string, Clip> clips)
    {
        var (before, after) = (passage.FrameCount / 2, passage.FrameCount - passage.FrameCount / 2);
        var transition = Named(
            "Transition.1",
            string.Empty,
            Metadata(
                OursIn(passage.Layers[1].Metadata)["transition"]?.ToJsonString(),
                new JsonObject { ["kind"] = kind.ToString().ToLowerInvariant() }
            )
        );
        transition["in_offset"] = Time(before, timeline.Rate);
        transition["out_offset"] = Time(after, timeline.Rate);
        transition["transition_type"] = kind == Transition.Dissolve ? "SMPTE_Dissolve" : "Custom_Transition";
        return Track(
            "layers",
            Clip(passage.Layers[0], 0, before, timeline, clips),
            transition,
            Clip(passage.Layers[1], before, after, timeline, clips)
        );
    }

    private static JsonObject Track(string name, params JsonNode[] children)
    {
        var track = Named("Track.1", name, null);
        Fill(track, null, [], []);
        track["children"] = new JsonArray(children);
        track["kind"] = "Video";
        return track;
    }

    private static JsonObject Clip(Layer layer, int from, int length, Timeline timeline, IReadOnlyDictionary<string, Clip> clips)
    {
        var known = clips.GetValueOrDefault(layer.ClipId);
        var source = known?.Format.Rate ?? timeline.Rate;
        var clip = Named(
            "Clip.2",
            layer.ClipId,
            Metadata(layer.Metadata, layer.Opacity is { } opacity ? new JsonObject { ["opacity"] = opacity } : null)
        );
        Fill(clip, new JsonObject
        {
            ["OTIO_SCHEMA"] = "TimeRange.1",
            ["duration"] = Time(length, timeline.Rate),
            // Not rounded to whole source frames, so that a start half way through a transition leads back to the same one.
            ["start_time"] = Time(
                layer.StartFrame
                    + (from + layer.Skipped) * (layer.Retime?.Speed ?? 1) * source.FramesPerSecond / timeline.Rate.FramesPerSecond,
                source
            ),
        }, layer.Effects, [], retime: layer.Retime);
        var reference = Named(
            "ExternalReference.1",
            layer.ClipId,
            Metadata(
                OursIn(layer.Metadata)["reference"]?.ToJsonString(),
                new JsonObject
        {
            ["id"] = layer.ClipId,
            ["sha256"] = known?.Sha256,
            ["format"] = known is null ? null : JsonSerializer.SerializeToNode(known.Format, BenchJson.Options),
        }));
        reference["available_range"] = known is null ? null : Range(0, known.FrameCount, source);
        reference["available_image_bounds"] = null;
        reference["target_url"] = layer.ClipId;
        clip["media_references"] = new JsonObject { ["DEFAULT_MEDIA"] = reference };
        clip["active_media_reference_key"] = "DEFAULT_MEDIA";
        return clip;
    }

    private static void Fill(
        JsonObject node,
        JsonNode? range,
        IReadOnlyList<Effect> effects,
        IReadOnlyList<TimelineMark> marks,
        FrameRate rate = default,
        Retime? retime = null
    )
    {
        node["source_range"] = range;
        node["effects"] = new JsonArray([.. retime is null ? [] : new[] { Warp(retime) }, .. effects.Select(Effect)]);
        node["markers"] = new JsonArray([.. marks.Select(mark => Marker(mark, rate))]);
        node["enabled"] = true;
    }

    private static JsonObject Warp(Retime retime)
    {
        var warp = Named(retime.Speed == 0 ? "FreezeFrame.1" : "LinearTimeWarp.1", string.Empty, Metadata(null, new JsonObject
        {
            ["method"] = JsonNamingPolicy.CamelCase.ConvertName(retime.Method.ToString()),
        }));
        warp["effect_name"] = retime.Speed == 0 ? "FreezeFrame" : "LinearTimeWarp";
        warp["time_scalar"] = retime.Speed;
        return warp;
    }

    private static JsonObject Effect(Effect effect)
    {
        var node = Named("Effect.1", effect.Label, Metadata(null, new JsonObject
        {
            ["id"] = effect.Id,
            ["settings"] = new JsonObject(
                effect.Settings.Select(setting => KeyValuePair.Create(setting.Key, (JsonNode?)JsonValue.Create(setting.Value)))
            ),
            ["text"] = effect.Text,
        }));
        node["effect_name"] = effect.Id;
        if (effect.IsOff)
        {
            node["enabled"] = false;
        }

        return node;
    }

    private static JsonObject Marker(TimelineMark mark, FrameRate rate)
    {
        var kept = OursIn(mark.Metadata);
        var marker = Named("Marker.2", mark.Name, Metadata(mark.Metadata, null));
        marker["color"] = kept["color"]?.DeepClone() ?? MarkColour;
        marker["comment"] = kept["comment"]?.DeepClone();
        marker["marked_range"] = Range(mark.Frame, 0, rate);
        return marker;
    }

    private static JsonObject Named(string schema, string name, JsonObject? metadata) => new()
    {
        ["OTIO_SCHEMA"] = schema, ["metadata"] = metadata ?? [], ["name"] = name,
    };

    private static JsonObject Metadata(string? kept, JsonObject? ours)
    {
        var metadata = kept is null ? [] : JsonNode.Parse(kept) as JsonObject ?? [];
        metadata.Remove(Namespace);
        if (ours is not null)
        {
            metadata[Namespace] = ours;
        }

        return metadata;
    }

    /// <summary>What the reader kept under our name because a timeline of ours has no place for it.</summary>
    private static JsonObject OursIn(string? kept) =>
        kept is null ? [] : (JsonNode.Parse(kept) as JsonObject)?[Namespace] as JsonObject ?? [];

    private static JsonObject Range(long start, long length, FrameRate rate) => new()
    {
        ["OTIO_SCHEMA"] = "TimeRange.1", ["duration"] = Time(length, rate), ["start_time"] = Time(start, rate),
    };

    private static JsonObject Time(double frames, FrameRate rate) => new()
    {
        ["OTIO_SCHEMA"] = "RationalTime.1", ["rate"] = rate.FramesPerSecond, ["value"] = frames,
    };
}
