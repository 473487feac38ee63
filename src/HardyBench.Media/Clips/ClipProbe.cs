using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Media.Clips.Probing;
using HardyBench.Media.Commands;

namespace HardyBench.Media.Clips;

/// <summary>What a file really is.</summary>
/// <param name="Profile">Profile and level as stated in the file, or null.</param>
/// <param name="Caveats">What to know before trusting it: phrases.</param>
/// <param name="Track">The track that was looked at, and that is to be played.</param>
/// <param name="Container">By FFmpeg's names of it, the usual one first.</param>
public sealed record ProbeReport(
    ClipFormat Format, int FrameCount, string? Profile, IReadOnlyList<string> Caveats, ClipTrack Track, IReadOnlyList<string> Container);

/// <summary>Inspects files that may be broken or hostile. The looking is done by FFmpeg's own probe in a process apart,
/// which may neither reach other files nor the network, nor write, and has limits on memory, processor time and output.</summary>
public static class ClipProbe
{
    private static readonly string[] BareStreams = ["h264", "hevc", "mpegvideo", "m4v", "obu", "vc1"];
    /// <summary>As many as H.264 and HEVC allow (ITU-T H.264, A.3.1 h; H.265, A.4.2).</summary>
    private const int MaxHeldBack = 16;

    private static readonly string[] WithoutIndex = ["mpegts", "mpeg"];

    private static readonly CommandLimits Limits = new(4L << 30, TimeSpan.FromSeconds(30), TimeSpan.FromSeconds(30), 0);

    /// <summary>Pictures are decoded for so long at most; those that came by then are judged.</summary>
    private static readonly CommandLimits DecodingLimits = Limits with
    {
        Processor = TimeSpan.FromSeconds(20),
        Clock = TimeSpan.FromSeconds(12),
    };

    /// <param name="path">The file.</param>
    /// <param name="name">What people call it, for errors; null for the file's own name.</param>
    /// <exception cref="MediaException">It is no clip, or it was too much for the limits; the message says why.</exception>
    public static async Task<ProbeReport> LookAsync(string path, string? name, CancellationToken stop)
    {
        name = OwnClips.Shown(name ?? Path.GetFileName(path));
        var root = Parse(await AskAsync(path, name, stop, "-show_streams", "-show_format", "-of", "json"), name);
        var container = ((string?)root["format"]?["format_name"] ?? string.Empty).Split(',');
        if (BareStreams.Contains(container[0]))
        {
            throw new MediaException(
                $"{name} is a stream without a container and has no timestamps. Put it into an mp4, "
                    + "mov or mkv file and import that."
            );
        }

        var pictures = root["streams"]?.AsArray().Where(IsPicture).Select(stream => stream!).ToList() ?? [];
        var stream = pictures.OrderByDescending(IsDefault).ThenByDescending(Pixels).FirstOrDefault()
            ?? throw new MediaException($"{name} contains no video.");
        CheckRaster(stream, name);
        var index = (int)Number(stream, "index")!.Value;
        var packets = await ProbedPackets.ReadAsync(path, index, (arguments, token) => AskAsync(path, name, token, arguments), stop);
        var decoded = await ProbedPictures.ReadAsync(path, index, DecodingLimits, stop);
        if (decoded.All.Count == 0)
        {
            throw new MediaException(
                $"{name} could not be read as a clip: no picture of it can be decoded{(decoded.Errors is { } why ? $" ({why})" : string.Empty)}."
            );
        }

        if (decoded.Change is { } change)
        {
            throw new MediaException(
                $"{name} changes in mid-stream, {change}, which cannot be played. Convert it to one raster and pixel format and bring "
                    + "it again."
            );
        }

        var codec = CodecOf((string?)stream["codec_name"] ?? string.Empty);
        var timing = ClipTiming.Of(stream, root, packets, decoded)
            ?? throw new MediaException($"{name} does not state its frame rate.");
        // However small a frame is coded, it takes a byte.
        if (new FileInfo(path).Length is var bytes && timing.FrameCount > bytes)
        {
            throw new MediaException(
                $"{name} claims {timing.FrameCount:N0} frames and has {bytes:N0} bytes, so it cannot hold them. It was not added.");
        }

        var pixels = (string?)stream["pix_fmt"] ?? decoded.All[0].PixelFormat;
        var allIntra = codec.IsAlwaysIntra || (packets.AllKeys && decoded.AllKeys);
        var format = new ClipFormat(
            codec, PixelFormats.ChromaOf(pixels), Math.Max(PixelFormats.DepthOf(pixels), RawDepth(stream)), RasterOf(stream), timing.Rate,
            allIntra ? 1 : GopOf(packets, decoded),
            packets.DataRate(timing));
        return new ProbeReport(
            format, timing.FrameCount, ProfileOf(stream), [.. CaveatsOf(stream, pictures, container, format, timing, decoded)],
            new ClipTrack(
                index,
                timing.Start,
                KeysOf(codec, allIntra, packets, timing),
                TimecodeOf(stream, root),
                Number(stream, "has_b_frames") is >= 0 and <= MaxHeldBack and var held ? (int)held : null,
                timing.Unevenness is null
            ),
            container
        );
    }

    private static IEnumerable<string> CaveatsOf(
        JsonNode stream, List<JsonNode> pictures, string[] container, ClipFormat format, ClipTiming timing, ProbedPictures decoded)
    {
        if (timing.Unevenness is { } uneven)
        {
            yield return uneven;
        }

        if (pictures.Count > 1)
        {
            yield return $"{pictures.Count} tracks of pictures; track {(int)Number(stream, "index")!.Value}, {format.Raster}, is played";
        }

        if ((string?)stream["field_order"] is { } order && order is not ("progressive" or "unknown") || decoded.Fields)
        {
            yield return "interlaced";
        }

        if (stream["side_data_list"]?.AsArray().Any(data => Number(data, "rotation") is not null and not 0) == true)
        {
            yield return "meant to be shown rotated; it is played as stored";
        }

        if ((string?)stream["sample_aspect_ratio"] is { } shape && shape is not ("1:1" or "0:1" or "N/A"))
        {
            yield return $"pixels that are not square ({shape}); it is played as stored";
        }

        if (PixelFormats.HasTransparency((string?)stream["pix_fmt"] ?? string.Empty))
        {
            yield return "transparency, which is not shown";
        }

        if (WithoutIndex.Contains(container[0]))
        {
            yield return "no index, so seeking is not exact";
        }

        if (decoded.Errors is not null)
        {
            yield return $"damaged: the decoder reported errors in its first {decoded.All.Count} frames";
        }

        if (format.Raster.Width % 2 != 0 || format.Raster.Height % 2 != 0)
        {
            yield return $"odd raster {format.Raster}";
        }

        if ((string?)stream["color_transfer"] is "smpte2084" or "arib-std-b67")
        {
            yield return "HDR transfer; it is shown without conversion";
        }

        if (format.Codec == Codec.Other)
        {
            yield return $"an unknown codec ({(string?)stream["codec_name"] ?? "unnamed"}); stand-ins can only guess its cost";
        }
    }

    /// <summary>By the pictures decoded where there are two to measure between, else by what the container says.</summary>
    private static int GopOf(ProbedPackets packets, ProbedPictures decoded) =>
        packets.AllKeys ? decoded.LongestKeyInterval ?? decoded.All.Count
        : decoded.LongestGop is { } seen ? Math.Min(seen, packets.LongestGop)
        : packets.LongestGop;

    /// <summary>FFV1 is written down as all-intra everywhere, and need not be: only its first picture surely stands alone.</summary>
    private static IReadOnlyList<int>? KeysOf(Codec codec, bool allIntra, ProbedPackets packets, ClipTiming timing) =>
        codec == Codec.Ffv1 ? [0]
        : allIntra || !packets.AreAll ? null
        : timing.Keys;

    private static bool IsPicture(JsonNode? stream) =>
        (string?)stream?["codec_type"] == "video"
        && Number(stream, "width") > 0
        && Number(stream["disposition"], "attached_pic") is null or 0;

    private static bool IsDefault(JsonNode stream) => Number(stream["disposition"], "default") == 1;

    private static double Pixels(JsonNode stream) => (Number(stream, "width") ?? 0) * (Number(stream, "height") ?? 0);

    private static Raster RasterOf(JsonNode stream) => new((int)(Number(stream, "width") ?? 0), (int)(Number(stream, "height") ?? 0));

    private static void CheckRaster(JsonNode stream, string name)
    {
        var (width, height) = (Number(stream, "width") ?? 0, Number(stream, "height") ?? 0);
        if (
            !(
                width >= 2
                && height >= 2
                && width <= TimelineLimits.LargestSide
                && height <= TimelineLimits.LargestSide
                && width * height <= TimelineLimits.MaxPixels
            )
        )
        {
            throw new MediaException(
                $"{name} claims a raster of {width}×{height}; allowed: 2 to {TimelineLimits.LargestSide} a side and "
                    + $"{TimelineLimits.MaxPixels / 1e6:0} million pixels."
            );
        }
    }

    /// <summary>Some decoders give more bits than the file has; some files say how many they have.</summary>
    private static int RawDepth(JsonNode stream) => Number(stream, "bits_per_raw_sample") is >= 8 and <= 16 and var bits ? (int)bits : 0;

    private static Codec CodecOf(string name) => name switch
    {
        "h264" => Codec.Avc,
        "hevc" => Codec.Hevc,
        "av1" => Codec.Av1,
        "vp9" => Codec.Vp9,
        "mpeg2video" => Codec.Mpeg2,
        "mjpeg" => Codec.MotionJpeg,
        "jpeg2000" => Codec.Jpeg2000,
        "dnxhd" => Codec.Vc3,
        "cfhd" => Codec.Vc5,
        "prores" => Codec.Rdd36,
        "ffv1" => Codec.Ffv1,
        "png" => Codec.Png,
        _ => Codec.Other,
    };

    private static string? ProfileOf(JsonNode stream)
    {
        var profile = (string?)stream["profile"];
        if (profile is null or "unknown" || (string?)stream["codec_name"] is not ("h264" or "hevc" or "av1" or "vp9" or "mpeg2video"))
        {
            return null;
        }

        return Number(stream, "level") is { } level && LevelName((string?)stream["codec_name"], (int)level) is { } name
            ? $"{profile}, level {name}"
            : profile;
    }

    /// <summary>Levels as the streams number them: AVC in tenths, HEVC in thirtieths, AV1 from 2.0 on in quarters of a step.</summary>
    private static string? LevelName(string? codec, int level) => codec switch
    {
        "h264" when level > 0 => Tenths(level),
        "hevc" when level > 0 => Tenths(level / 3),
        "av1" when level is >= 0 and < 24 => FormattableString.Invariant($"{2 + level / 4}.{level % 4}"),
        _ => null,
    };

    private static string Tenths(int level) =>
        level % 10 == 0 ? $"{level / 10}" : FormattableString.Invariant($"{level / 10}.{level % 10}");

    /// <summary>Of the track itself, of the track beside it that holds it, or of the file.</summary>
    private static string? TimecodeOf(JsonNode stream, JsonNode root) =>
        new[] { stream["tags"], root["format"]?["tags"] }
            .Concat(root["streams"]!.AsArray().Where(other => (string?)other?["codec_type"] == "data").Select(other => other!["tags"]))
            .Select(tags => (string?)tags?["timecode"] ?? (string?)tags?["TIMECODE"])
            .FirstOrDefault(code => code is { Length: > 0 and < 32 });

    internal static double? Number(JsonNode? node, string name) => node?[name] switch
    {
        null => null,
        var value when value.GetValueKind() == JsonValueKind.Number => value.GetValue<double>(),
        var value => double.TryParse(value.ToString(), NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? number : null,
    };

    private static JsonNode Parse(string json, string name)
    {
        try
        {
            return JsonNode.Parse(json) ?? throw new MediaException($"{name} could not be read as a clip.");
        }
        catch (JsonException)
        {
            throw new MediaException($"{name} could not be read as a clip.");
        }
    }

    private static async Task<string> AskAsync(string path, string name, CancellationToken stop, params IEnumerable<string> asked)
    {
        var outcome = await MediaCommand.RunAsync(MediaCommand.ProbeOf(path, ["-threads", "1", .. asked]), Limits, null, stop);
        return outcome.WasEnded
            ? throw new MediaException(
                $"{name} could not be read as a clip: inspecting it took more than {Limits.Clock.TotalSeconds:0} s or exceeded another limit."
            )
            : outcome.ExitCode != 0
                ? throw new MediaException($"{name} could not be read as a clip: {MediaCommand.ReasonOf(outcome, path)}.")
            : outcome.Output;
    }
}
