using System.Collections.Concurrent;
using System.Diagnostics;
using System.Text.Json;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Media.Clips;
using HardyBench.Player.Course;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;
using HardyBench.Player.Native;
using HardyBench.Player.Playing;
using HardyBench.Player.Tests.Playing;

namespace HardyBench.Player.Tests.Clips;

/// <summary>Clips that were not made by our recipes, in the containers, codecs and time stamps that people bring along;
/// tests/foreign/clips.json lists them. Every picture carries its number as eight bars. What has to be shown is read from FFmpeg's own
/// decoding of the same file, what is shown from the pictures of the player, so that no counter of ours takes part.</summary>
public sealed class ForeignClipTests
{
    private const int Bits = 8;
    private static readonly Raster Small = new(320, 180);
    private static readonly ConcurrentDictionary<string, Lazy<Task<Probed>>> Made = new();
    private static readonly Dictionary<string, ForeignClip> All = JsonSerializer.Deserialize<List<ForeignClip>>(
        File.ReadAllText(Repository.PathOf("tests", "foreign", "clips.json")), JsonSerializerOptions.Web)!.ToDictionary(clip => clip.Name);

    public static TheoryData<string> Names => new(All.Keys);

    [Theory]
    [MemberData(nameof(Names))]
    public async Task Every_slot_shows_the_picture_that_is_on_then_by_FFmpegs_own_decoding(string name)
    {
        var clip = await ProbedAsync(name);
        var expected = clip.Expected;

        Assert.Equal(expected.Count, clip.Clip.FrameCount);
        // Into the second loop, which must show the same again.
        var slots = Math.Min(clip.Clip.FrameCount * 2, clip.Clip.FrameCount + 4);
        Assert.Equal(Enumerable.Range(0, slots).Select(slot => expected[slot % expected.Count]), Shown(clip, new Layer("c", []), slots));
    }

    [Theory]
    [MemberData(nameof(Names))]
    public async Task A_hand_and_a_late_start_show_the_same_pictures(string name)
    {
        var clip = await ProbedAsync(name);
        var expected = clip.Expected;
        var count = expected.Count;
        // FFmpeg's AVC decoder, begun on a recovery point, does not give the one picture that follows it to the end of the stream.
        var last = All[name].LastAfterSeeking == false ? count - 2 : count - 1;
        int[] places = [last, 0, count / 2, count / 2 + 1, count / 3, count + 1];
        using var reach = new ReachableLayer(ClipSource.Of(clip.Clip, clip.Files), 1, null, new Layer("c", []));
        using var reading = new Reading(reach.Reach(0, clip.Clip.Format.Rate).Picture, clip.Clip.Format.Rate);

        Assert.Equal(places.Select(place => expected[place % count]), places.Select(place =>
        {
            using var frame = reach.Reach(place, clip.Clip.Format.Rate);
            return reading.Of(frame);
        }));
        foreach (var start in new[] { count / 2, Math.Max(0, last - 2) })
        {
            Assert.Equal(Enumerable.Range(start, 3).Select(slot => expected[slot % count]), Shown(clip, new Layer("c", [], start), 3));
        }
    }

    [Theory]
    [MemberData(nameof(Names))]
    public async Task What_it_is_and_what_to_know_of_it_is_said(string name)
    {
        var (clip, expected) = ((await ProbedAsync(name)).Clip, All[name]);

        if (expected.Encoding is { } encoding)
        {
            Assert.Equal(encoding, clip.Format.Encoding);
        }

        if (expected.Rate is { } rate)
        {
            Assert.Equal(Rates.Parse(rate), clip.Format.Rate);
        }

        if (expected.Gop is { } gop)
        {
            Assert.Equal(gop, clip.Format.GopLength);
        }

        Assert.Equal(expected.Timecode, clip.Track!.Timecode);
        if (expected.Caveat is { } caveat)
        {
            Assert.Contains(clip.Caveats!, said => said.StartsWith(caveat, StringComparison.Ordinal));
        }
        else
        {
            Assert.DoesNotContain(
                clip.Caveats!,
                said =>
                    said.StartsWith("variable", StringComparison.Ordinal)
                    || said.StartsWith("damaged", StringComparison.Ordinal)
                || said.StartsWith("interlaced", StringComparison.Ordinal) || said.StartsWith("transparency", StringComparison.Ordinal));
        }
    }

    [Theory]
    [InlineData("bare.h264", "-c:v libx264 -preset ultrafast -f h264")]
    [InlineData("bare.hevc", "-c:v libx265 -preset ultrafast -x265-params log-level=error -f hevc")]
    [InlineData("bare.m2v", "-c:v mpeg2video -f mpeg2video")]
    [InlineData("bare.obu", "-c:v libsvtav1 -preset 12 -f obu")]
    public async Task A_bare_stream_is_refused_at_the_door_with_what_to_do(string name, string arguments)
    {
        var file = Path.Combine(TestData.NewFolder("bare"), name);
        await RunAsync("ffmpeg", ["-v", "error", "-f", "lavfi", "-i", Bars("r=25"), .. arguments.Split(' '), file]);

        var refusal = await Assert.ThrowsAsync<MediaException>(() => ClipProbe.LookAsync(file, null, CancellationToken.None));

        Assert.StartsWith($"{name} is a stream without a container", refusal.Message, StringComparison.Ordinal);
    }

    /// <summary>Two clips of unlike rasters, one after the other in one stream.</summary>
    [Fact]
    public async Task A_clip_whose_raster_changes_in_mid_stream_is_refused_and_fails_its_passage_when_it_is_played_all_the_same()
    {
        var folder = TestData.NewFolder("spliced");
        var (small, large, both) = (Path.Combine(folder, "small.ts"), Path.Combine(folder, "large.ts"), Path.Combine(folder, "both.ts"));
        const string Encoder = "-c:v libx264 -preset ultrafast -pix_fmt yuv420p";
        await RunAsync("ffmpeg", ["-v", "error", "-f", "lavfi", "-i", Bars("r=25"), .. Encoder.Split(' '), small]);
        await RunAsync(
            "ffmpeg",
            ["-v", "error", "-f", "lavfi", "-i", Bars("r=25,s=960x540"), "-output_ts_offset", "2", .. Encoder.Split(' '), large]
        );
        await File.WriteAllBytesAsync(both, [.. await File.ReadAllBytesAsync(small), .. await File.ReadAllBytesAsync(large)]);

        var refusal = await Assert.ThrowsAsync<MediaException>(() => ClipProbe.LookAsync(both, null, CancellationToken.None));
        var report = await ClipProbe.LookAsync(small, null, CancellationToken.None);
        var clip = new Probed(new Clip("c", "c", report.Format, 200, null, Track: report.Track), new OneFile(both), []);
        var plan = Plan(clip, new Layer("c", []), 120) with { Settings = new PlaybackSettings(Policy: PlayingPolicy.KeepFrames) };
        var run = await Plans.PlayAsync(plan, files: clip.Files);

        Assert.Contains("changes in mid-stream, from 320×180 yuv420p to 960×540 yuv420p", refusal.Message, StringComparison.Ordinal);
        Assert.Contains("its raster or pixel format changes in mid-stream", Assert.Single(run.Failures).Message, StringComparison.Ordinal);
        Assert.InRange(run.Frames.Count(frame => frame.Shown is not null), 1, 50);
    }

    private static List<int> Shown(Probed clip, Layer layer, int slots)
    {
        var plan = Plan(clip, layer, slots);
        var shown = new List<int>();
        using var pipeline = new PassagePipeline(
            plan,
            plan.Timeline.Passages[0],
            new PassageCourse(new RunClock(), plan.Timeline.Rate, 0, plan.Timeline.Passages[0].FrameCount, keepsTime: false),
            clip.Files,
            new PassageGraph(Plans.Filters),
            2
        );
        for (var slot = 0; slot < slots; slot++)
        {
            var frames = pipeline.Take(slot);
            if (frames is null)
            {
                shown.Add(-1);
                continue;
            }

            using var picture = pipeline.Treat(frames, slot)!;
            frames.ToList().ForEach(frame => frame.Dispose());
            shown.Add(Reading.Number(picture.CopyPlanes(), picture.Raster, deep: plan.IsDeep(plan.Timeline.Passages[0])));
        }

        return shown;
    }

    private static PlaybackPlan Plan(Probed clip, Layer layer, int slots) => new(
        new Timeline("t", "T", Small, clip.Clip.Format.Rate, [new Passage("asked", slots, [layer], [])]),
        new Dictionary<string, Clip> { ["c"] = clip.Clip },
        Telemetry.AnyMachine.This, new PlaybackSettings(Policy: PlayingPolicy.KeepFrames));

    /// <summary>The number on screen in each slot, by FFmpeg's own commands: the picture whose time has come.</summary>
    private static async Task<List<int>> ExpectedAsync(Clip clip, string file)
    {
        var (track, rate) = (clip.Track!, clip.Format.Rate);
        var stamps = (
            await RunAsync(
                "ffprobe",
                ["-v", "error", "-select_streams", $"{track.Index}", "-show_entries", "frame=best_effort_timestamp", "-of", "csv=p=0", file]
            )
        )
            .Text.Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(line => line.Trim(',', '\r', ' ')).ToList();
        var unit = (
            await RunAsync(
                "ffprobe",
                ["-v", "error", "-select_streams", $"{track.Index}", "-show_entries", "stream=time_base", "-of", "csv=p=0", file]
            )
        )
            .Text.Trim()
            .Split('\n')[0]
            .Trim(',', '\r')
            .Split('/');
        var pictures = (
            await RunAsync(
                "ffmpeg",
                [
                    "-v",
                    "error",
                    "-noautorotate",
                    "-i",
                    file,
                    "-map",
                    $"0:{track.Index}",
                    "-fps_mode",
                    "passthrough",
                    "-vf",
                    "scale=320:180,format=gray",
                    "-f",
                    "rawvideo",
                    "-",
                ]
            )
        ).Bytes;
        var numbers = Enumerable.Range(0, pictures.Length / (int)Small.Pixels)
            .Select(i => Reading.Number(pictures.AsSpan(i * (int)Small.Pixels, (int)Small.Pixels).ToArray(), Small, deep: false)).ToList();
        Assert.Equal(stamps.Count, numbers.Count);
        var first = long.TryParse(stamps[0], out var start) ? start : 0;
        var seconds = double.Parse(unit[0], null) / double.Parse(unit[1], null);
        var bySlot = new SortedDictionary<int, int>();
        for (var i = 0; i < numbers.Count; i++)
        {
            var slot = long.TryParse(stamps[i], out var stamp)
                ? (int)Math.Round((stamp - first) * seconds * rate.FramesPerSecond, MidpointRounding.AwayFromZero)
                : bySlot.Keys.LastOrDefault(-1) + 1;
            bySlot.TryAdd(slot, numbers[i]);
        }

        var (all, on) = (new List<int>(), -1);
        for (var slot = 0; slot < Math.Max(bySlot.Keys.Last() + 1, clip.FrameCount) && slot <= bySlot.Keys.Last() + 40; slot++)
        {
            on = bySlot.GetValueOrDefault(slot, on);
            all.Add(on);
        }

        return all;
    }

    /// <summary>Made and looked into once for all tests.</summary>
    private static Task<Probed> ProbedAsync(string name) => Made.GetOrAdd(name, key => new Lazy<Task<Probed>>(async () =>
    {
        var file = await MakeAsync(All[key]);
        var report = await ClipProbe.LookAsync(file, null, CancellationToken.None);
        var clip = new Clip("c", key, report.Format, report.FrameCount, null, report.Profile, report.Caveats, report.Track);
        return new Probed(clip, new OneFile(file), await ExpectedAsync(clip, file));
    })).Value;

    private static async Task<string> MakeAsync(ForeignClip clip)
    {
        var folder = TestData.NewFolder("foreign");
        var file = Path.Combine(folder, clip.Name);
        var source = clip.Source ?? "r=25";
        string[] inputs;
        if (source.StartsWith("cut", StringComparison.Ordinal) || source == "plain")
        {
            var whole = Path.Combine(folder, "whole" + Path.GetExtension(clip.Name));
            await RunAsync(
                "ffmpeg",
                [
                    "-v",
                    "error",
                    "-f",
                    "lavfi",
                    "-i",
                    Bars("r=25"),
                    "-c:v",
                    "libx264",
                    "-preset",
                    "veryfast",
                    "-g",
                    source.Contains("intra", StringComparison.Ordinal) ? "1" : "25",
                    "-sc_threshold",
                    "0",
                    "-pix_fmt",
                    "yuv420p",
                    whole,
                ]
            );
            inputs = source == "plain" ? ["-i", whole] : ["-ss", source.Split(':')[1], "-i", whole];
        }
        else
        {
            inputs = source switch
            {
                "two" =>
                [
                    "-f",
                    "lavfi",
                    "-i",
                    Bars("r=25"),
                    "-f",
                    "lavfi",
                    "-i",
                    Bars("r=25,s=480x270").Replace("floor(N/", "floor((N+7)/", StringComparison.Ordinal),
                ],
                "sound" => ["-f", "lavfi", "-i", Bars("r=25"), "-f", "lavfi", "-i", "sine=d=3"],
                _ => ["-f", "lavfi", "-i", Bars(source)],
            };
        }

        await RunAsync("ffmpeg", ["-v", "error", "-y", .. inputs, .. clip.Arguments, file]);
        return file;
    }

    /// <summary>Two seconds, at most 60 pictures; the number's lowest bit stands at the left, white for one.</summary>
    private static string Bars(string source)
    {
        var parts = source.Split(',').Select(part => part.Split('=')).ToDictionary(part => part[0], part => part[1]);
        var rate = parts.GetValueOrDefault("r", "25");
        // All rows are alike, so two are reckoned.
        var size = parts.GetValueOrDefault("s", "320x180").Split('x');
        return $"nullsrc=s={size[0]}x2:r={rate}:d=2,trim=end_frame=60,format=gray,"
            + $"geq=lum='if(mod(floor(N/pow(2,floor(X*8/W))),2),220,30)',scale={size[0]}:{size[1]}:flags=neighbor,format=yuv420p";
    }

    private static async Task<(string Text, byte[] Bytes)> RunAsync(string program, IEnumerable<string> arguments)
    {
        using var process = Process.Start(
            new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true }
        )!;
        using var bytes = new MemoryStream();
        var errors = process.StandardError.ReadToEndAsync();
        await process.StandardOutput.BaseStream.CopyToAsync(bytes);
        await process.WaitForExitAsync();
        Assert.True(process.ExitCode == 0, $"{program} {string.Join(' ', arguments)}: {await errors}");
        return (System.Text.Encoding.UTF8.GetString(bytes.ToArray()), bytes.ToArray());
    }

    private sealed record ForeignClip(
        string Name,
        IReadOnlyList<string> Arguments,
        string? Source,
        string? Encoding,
        string? Rate,
        int? Gop,
        string? Caveat,
        string? Timecode,
        bool? LastAfterSeeking
    );

    private sealed record Probed(Clip Clip, OneFile Files, List<int> Expected);

    private sealed record OneFile(string Path) : IClipFiles
    {
        public string PathOf(Clip clip) => Path;
    }

    /// <summary>Reads the bars of decoded pictures of any format.</summary>
    private sealed class Reading : IDisposable
    {
        private readonly Treatment grey;
        private long position;

        public Reading(FrameHandle like, FrameRate rate)
        {
            grey = new Treatment("[in0]scale=320:180,format=gray[out]", [like], rate, 1);
            like.Dispose();
        }

        public int Of(DecodedFrame frame)
        {
            using var picture = grey.Treat([frame], position++)!;
            return Number(picture.CopyPlanes(), picture.Raster, deep: false);
        }

        public void Dispose() => grey.Dispose();

        public static int Number(byte[] planes, Raster raster, bool deep) => Enumerable.Range(0, Bits).Sum(bit =>
        {
            var at = raster.Height / 2 * raster.Width + (2 * bit + 1) * raster.Width / (2 * Bits);
            return (deep ? BitConverter.ToUInt16(planes, 2 * at) / 4 : planes[at]) > 125 ? 1 << bit : 0;
        });
    }
}
