using System.Diagnostics;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using HardyBench.Core.Footage;
using HardyBench.Player.Native;

namespace HardyBench.Player.Clips;

/// <summary>What a file really is.</summary>
/// <param name="Profile">Profile and level as the file says, or null.</param>
/// <param name="Caveats">What to know before trusting it: phrases.</param>
public sealed record ProbeReport(ClipFormat Format, int FrameCount, string? Profile, IReadOnlyList<string> Caveats);

/// <summary>Looks into files that may be broken or hostile. The looking is done by FFmpeg's own probe in a process apart,
/// which may neither reach other files nor the network, nor write, and has limits on memory, processor time and output.</summary>
public static class ClipProbe
{
    private const string Containers = "mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,mpegts,mpeg,mpegvideo,mxf,avi,asf,flv,ogg,ivf,h264,hevc,m4v,dv,"
        + "image2,png_pipe,jpeg_pipe,j2k_pipe,tiff_pipe,dpx_pipe,exr_pipe,bmp_pipe,gif,y4m,yuv4mpegpipe,obu,wav";

    private static readonly int[] Depths = [16, 14, 12, 10, 9];

    private const int LongestSide = 16384, MostPackets = 3000;
    private const long MemoryBytes = 4L << 30, OutputCharacters = 4 << 20;
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(30);

    /// <exception cref="MediaException">It is no clip, or it was too much for the limits; the message says why.</exception>
    public static async Task<ProbeReport> LookAsync(string path, CancellationToken stop)
    {
        var json = await RunAsync(path, stop, "-show_streams", "-show_format", "-select_streams", "v", "-of", "json");
        var root = Parse(json, path);
        var stream = root["streams"]?.AsArray().FirstOrDefault(stream => Number(stream, "width") > 0)
            ?? throw new MediaException($"{Name(path)} holds no video.");
        var raster = RasterOf(stream, path);
        var rate = RateOf(stream, "avg_frame_rate") ?? RateOf(stream, "r_frame_rate")
            ?? throw new MediaException($"{Name(path)} does not say how many frames a second it has.");
        var packets = await PacketsAsync(path, stop);
        var frames = FrameCount(stream, root, rate, packets);
        if (frames < 1)
        {
            throw new MediaException($"{Name(path)} holds no frame that could be found.");
        }

        var (chroma, depth) = PixelsOf((string?)stream["pix_fmt"] ?? string.Empty);
        var codec = CodecOf((string?)stream["codec_name"] ?? string.Empty);
        var seconds = rate.StartOf(frames).TotalSeconds;
        var bytes = packets.Count == frames ? packets.Sum(packet => packet.Bytes) : new FileInfo(path).Length;
        var format = new ClipFormat(
            codec, chroma, depth, raster, rate, codec.IsAlwaysIntra ? 1 : LongestGop(packets), new DataRate((long)(bytes * 8 / seconds)));
        return new ProbeReport(format, frames, ProfileOf(stream), [.. CaveatsOf(stream, root, packets, format, codec)]);
    }

    private static IEnumerable<string> CaveatsOf(
        JsonNode stream, JsonNode root, IReadOnlyList<Packet> packets, ClipFormat format, Codec codec)
    {
        if (IsUneven(packets))
        {
            yield return "variable frame rate";
        }

        if ((string?)stream["field_order"] is { } order && order is not ("progressive" or "unknown"))
        {
            yield return "interlaced";
        }

        if (stream["side_data_list"]?.AsArray().Any(data => Number(data, "rotation") is not null and not 0) == true)
        {
            yield return "meant to be shown rotated; it is played as stored";
        }

        if (((string?)root["format"]?["format_name"])?.Split(',')[0] is "mpegts" or "mpeg" or "h264" or "hevc" or "obu")
        {
            yield return "no index, so it cannot be sought exactly";
        }

        if (format.Raster.Width % 2 != 0 || format.Raster.Height % 2 != 0)
        {
            yield return $"odd raster {format.Raster}";
        }

        if ((string?)stream["color_transfer"] is "smpte2084" or "arib-std-b67")
        {
            yield return "HDR transfer; it is shown without conversion";
        }

        if (codec == Codec.Other)
        {
            yield return $"a codec outside the table ({(string?)stream["codec_name"] ?? "unnamed"}); stand-ins only guess its cost";
        }
    }

    private static async Task<List<Packet>> PacketsAsync(string path, CancellationToken stop)
    {
        var text = await RunAsync(
            path, stop, "-select_streams", "v:0", "-show_entries", "packet=pts,size,flags", "-read_intervals", $"%+#{MostPackets}", "-of", "csv=p=0");
        var packets = new List<Packet>();
        foreach (var line in text.Split('\n'))
        {
            var fields = line.Split(',');
            if (fields.Length >= 3 && long.TryParse(fields[1], NumberStyles.None, CultureInfo.InvariantCulture, out var bytes))
            {
                long? time = long.TryParse(fields[0], NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var pts) ? pts : null;
                packets.Add(new Packet(time, bytes, fields[2].Contains('K', StringComparison.Ordinal)));
            }
        }

        return packets;
    }

    /// <summary>The longest stretch from one picture that stands alone to the next, among the packets looked at.</summary>
    private static int LongestGop(IReadOnlyList<Packet> packets)
    {
        var keys = packets.Index().Where(packet => packet.Item.Key).Select(packet => packet.Index).Append(packets.Count).ToList();
        return Math.Max(1, keys.Count < 2 ? packets.Count : keys.Zip(keys.Skip(1), (from, to) => to - from).Max());
    }

    /// <summary>Steps between frames that differ by more than the rounding of the time base.</summary>
    private static bool IsUneven(IReadOnlyList<Packet> packets)
    {
        var times = packets.Select(packet => packet.Time).OfType<long>().Order().ToList();
        var steps = times.Zip(times.Skip(1), (a, b) => b - a).ToList();
        return steps.Count > 2 && steps.Max() - steps.Min() > Math.Max(1, steps.Min() / 20 + 1);
    }

    private static int FrameCount(JsonNode stream, JsonNode root, FrameRate rate, IReadOnlyList<Packet> packets)
    {
        if (packets.Count < MostPackets)
        {
            return packets.Count;
        }

        var said = Number(stream, "nb_frames") ?? (Number(stream, "duration") ?? Number(root["format"], "duration")) * rate.FramesPerSecond;
        return (int)Math.Clamp(said ?? packets.Count, 0, int.MaxValue);
    }

    private static Raster RasterOf(JsonNode stream, string path)
    {
        var (width, height) = ((int)(Number(stream, "width") ?? 0), (int)(Number(stream, "height") ?? 0));
        return width >= 1 && height >= 1 && width <= LongestSide && height <= LongestSide
            ? new Raster(width, height)
            : throw new MediaException($"{Name(path)} claims a raster of {width}×{height}; up to {LongestSide} a side can be played.");
    }

    private static FrameRate? RateOf(JsonNode stream, string name)
    {
        var parts = ((string?)stream[name] ?? string.Empty).Split('/');
        return parts.Length == 2
            && int.TryParse(parts[0], NumberStyles.None, CultureInfo.InvariantCulture, out var numerator)
            && int.TryParse(parts[1], NumberStyles.None, CultureInfo.InvariantCulture, out var denominator)
            && numerator > 0 && denominator > 0 && numerator / denominator <= 1000
                ? new FrameRate(numerator, denominator)
                : null;
    }

    /// <summary>Chroma and depth from FFmpeg's name of a pixel format, such as yuv422p10le.</summary>
    private static (ChromaSubsampling Chroma, int Depth) PixelsOf(string name)
    {
        var chroma = name.Contains("420", StringComparison.Ordinal) || name.StartsWith("nv12", StringComparison.Ordinal) || name.StartsWith("p010", StringComparison.Ordinal)
            ? ChromaSubsampling.Quarter
            : name.Contains("422", StringComparison.Ordinal) ? ChromaSubsampling.Half
            : name.StartsWith("gray", StringComparison.Ordinal) ? ChromaSubsampling.Quarter
            : ChromaSubsampling.Full;
        var depth = Depths.FirstOrDefault(bits =>
            name.Contains($"p{bits}", StringComparison.Ordinal) || name.EndsWith($"{bits}le", StringComparison.Ordinal) || name.EndsWith($"{bits}be", StringComparison.Ordinal), 8);
        return (chroma, name.StartsWith("p010", StringComparison.Ordinal) ? 10 : depth);
    }

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

        return Number(stream, "level") is { } level && LevelName((string?)stream["codec_name"], (int)level) is { } name ? $"{profile}, level {name}" : profile;
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

    private static double? Number(JsonNode? node, string name) => node?[name] switch
    {
        null => null,
        var value when value.GetValueKind() == JsonValueKind.Number => value.GetValue<double>(),
        var value => double.TryParse(value.ToString(), NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? number : null,
    };

    private static JsonNode Parse(string json, string path)
    {
        try
        {
            return JsonNode.Parse(json) ?? throw new MediaException($"{Name(path)} could not be read as a clip.");
        }
        catch (JsonException)
        {
            throw new MediaException($"{Name(path)} could not be read as a clip.");
        }
    }

    private static async Task<string> RunAsync(string path, CancellationToken stop, params string[] arguments)
    {
        var start = new ProcessStartInfo("prlimit") { RedirectStandardOutput = true, RedirectStandardError = true };
        string[] limits = [$"--as={MemoryBytes}", $"--cpu={(int)Longest.TotalSeconds}", "--fsize=0", "--core=0", "--nproc=4096"];
        string[] probe = ["ffprobe", "-v", "error", "-threads", "1", "-protocol_whitelist", "file", "-format_whitelist", Containers, "-max_streams", "64"];
        foreach (var argument in (string[])[.. limits, .. probe, .. arguments, "-i", $"file:{path}"])
        {
            start.ArgumentList.Add(argument);
        }

        using var process = Start(start);
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(stop);
        limit.CancelAfter(Longest);
        try
        {
            var (output, errors) = (ReadAsync(process.StandardOutput, limit.Token), ReadAsync(process.StandardError, limit.Token));
            await process.WaitForExitAsync(limit.Token);
            return process.ExitCode == 0
                ? await output
                : throw new MediaException($"{Name(path)} could not be read as a clip: {Reason(await errors, path)}.");
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            throw new MediaException($"{Name(path)} could not be read as a clip: looking into it took more than {Longest.TotalSeconds:0} s or wrote too much.");
        }
        finally
        {
            KillQuietly(process);
        }
    }

    private static Process Start(ProcessStartInfo start)
    {
        try
        {
            return Process.Start(start)!;
        }
        catch (System.ComponentModel.Win32Exception missing)
        {
            throw new PlayerUnavailableException("The commands prlimit and ffprobe are missing; install them with 'make setup'.", missing);
        }
    }

    /// <summary>Reads to the end, but never more than the limit.</summary>
    private static async Task<string> ReadAsync(StreamReader reader, CancellationToken stop)
    {
        var (buffer, text) = (new char[8192], new System.Text.StringBuilder());
        for (int read; (read = await reader.ReadAsync(buffer, stop)) > 0;)
        {
            text.Append(buffer, 0, read);
            if (text.Length > OutputCharacters)
            {
                throw new OperationCanceledException();
            }
        }

        return text.ToString();
    }

    private static string Reason(string errors, string path)
    {
        var lines = errors.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        var last = lines.LastOrDefault() ?? "the probe was ended by its limits";
        return last.Replace($"file:{path}: ", string.Empty, StringComparison.Ordinal).TrimEnd('.');
    }

    private static void KillQuietly(Process process)
    {
        try
        {
            process.Kill(entireProcessTree: true);
        }
        catch (InvalidOperationException)
        {
            // It has ended.
        }
    }

    private static string Name(string path) => OwnClips.Shown(Path.GetFileName(path));

    private readonly record struct Packet(long? Time, long Bytes, bool Key);
}
