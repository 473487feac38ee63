using System.Diagnostics;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Course;
using HardyBench.Player.Decoding;

namespace HardyBench.Player.Tests.Decoding;

/// <summary>Footage whose frames stand alone: exactly those that were chosen are decoded, however many a decoder works on at
/// once.</summary>
public sealed class ChosenFramesTests
{
    /// <summary>Two hundred pictures of 320×180, coded so that each stands alone, by how the decoder shares them out among its
    /// threads.</summary>
    private static readonly Dictionary<string, string[]> Coded = new()
    {
        ["pictures of their own"] = ["-c:v", "libx264", "-preset", "ultrafast", "-g", "1", "-pix_fmt", "yuv420p"],
        ["shares of a picture"] = ["-c:v", "prores_ks", "-profile:v", "0", "-pix_fmt", "yuv422p10le"],
        ["rows of a picture"] = ["-c:v", "libx265", "-preset", "ultrafast", "-x265-params", "wpp=1:log-level=none"],
        ["long GOP"] = ["-c:v", "libx264", "-preset", "veryfast", "-g", "50", "-bf", "3", "-pix_fmt", "yuv420p"],
        ["no rows"] = ["-c:v", "libx265", "-preset", "ultrafast", "-x265-params", "wpp=0:log-level=none"],
    };

    [Theory]
    [InlineData("pictures of their own", 4)]
    [InlineData("shares of a picture", 1)]
    public void A_decoder_holds_back_as_many_frames_as_it_says(string threads, int atOnce)
    {
        using var decoder = new ClipDecoder(Clip(threads), 4);
        decoder.Next().Dispose();

        Assert.Equal((atOnce, atOnce), (decoder.FramesAtOnce, (int)decoder.NextToSend));
    }

    [Theory]
    [InlineData("rows of a picture", ".mov", 4, 1)]
    [InlineData("rows of a picture", ".mkv", 2, 1)]
    [InlineData("rows of a picture", ".ts", 4, 1)]
    [InlineData("rows of a picture", ".mov", 5, 5)]
    [InlineData("no rows", ".mov", 4, 4)]
    [InlineData("no rows", ".ts", 2, 2)]
    public void Few_threads_share_the_rows_of_a_picture_where_its_stream_lets_them(string threads, string container, int count, int atOnce)
    {
        using var decoder = new ClipDecoder(Clip(threads, container), count);

        Assert.Equal(atOnce, decoder.FramesAtOnce);
    }

    [Theory]
    [InlineData("pictures of their own", 2, 10)]
    [InlineData("pictures of their own", 2, 2)]
    [InlineData("pictures of their own", 5, 5)]
    [InlineData("shares of a picture", 2, 10)]
    [InlineData("shares of a picture", 2, 2)]
    [InlineData("shares of a picture", 2, 1)]
    public void Frames_asked_for_one_by_one_come_and_none_between(string threads, int count, int ahead)
    {
        using var decoder = new ClipDecoder(Clip(threads), count);
        // Within a loop, side by side, over its end, and the first of one.
        long[] wanted = [0, 3, 4, 9, 150, 199, 201, 400, 401, 420];
        var asked = 0;
        Assert.Equal(wanted, wanted.Select((_, place) =>
        {
            for (; asked < Math.Min(wanted.Length, place + ahead); asked++)
            {
                decoder.GoTo(wanted[asked]);
            }

            using var frame = decoder.Next();
            return frame.Number;
        }));
    }

    [Theory]
    [InlineData("pictures of their own", 25)]
    [InlineData("pictures of their own", 24)]
    [InlineData("shares of a picture", 24)]
    [InlineData("shares of a picture", 60)]
    public void Whatever_is_left_out_every_chosen_frame_comes_with_its_own_picture(string threads, int rate)
    {
        const int Frames = 300;
        var draw = new Random(17);
        for (var trial = 0; trial < 6; trial++)
        {
            var course = new PassageCourse(new RunClock(), new FrameRate(rate), 0, Frames, keepsTime: true, layers: 2);
            course.Lead(_ => new Any());
            using var layer = new LayerDecoding(
                new ClipSource(Clip(threads)),
                3,
                null,
                new Layer("c", [], StartFrame: 23),
                course,
                DecodingPart.Follows
            );
            var chosen = new List<long>();
            for (var position = 0L; position < Frames; position += draw.Next(3) == 0 ? draw.Next(1, 9) : 1)
            {
                chosen.Add(position);
            }

            // A few are begun ahead of the one that is taken.
            var begun = 0;
            foreach (var (place, position) in chosen.Index())
            {
                for (; begun < Math.Min(chosen.Count, place + 1 + (trial % 4)); begun++)
                {
                    course.Begin(chosen[begun], DropReason.PassedOver);
                }

                course.Taking(position);
                using var frame = layer.Take(position);
                Assert.Equal(layer.SourceFrame(position), frame!.Number);
            }

            Assert.Empty(layer.Overcome);
        }
    }

    [Fact]
    public void What_is_passed_over_tells_its_work_unless_a_later_frame_shows_it_too()
    {
        var course = new PassageCourse(new RunClock(), new FrameRate(50), 0, 20, keepsTime: true);
        course.Lead(_ => new Any());
        using var layer = new LayerDecoding(
            new ClipSource(Clip("shares of a picture")),
            1,
            null,
            new Layer("c", []),
            course,
            DecodingPart.Follows
        );
        foreach (var position in new[] { 0, 1, 2, 3, 4 })
        {
            course.Begin(position, DropReason.PassedOver);
        }

        // Both of the second picture, which is decoded by the time that the third is there.
        using var first = layer.Take(0);
        Assert.Equal(TimeSpan.Zero, layer.PassOver(2));
        var spent = TimeSpan.Zero;
        Assert.True(SpinWait.SpinUntil(() => (spent = layer.PassOver(3)) > TimeSpan.Zero, TimeSpan.FromMinutes(10)));
        using var third = layer.Take(4);

        Assert.Equal(2, third!.Number);
    }

    [Fact]
    public async Task Frames_that_are_passed_over_before_they_are_decoded_take_nobodys_room()
    {
        const int Frames = 100;
        var course = new PassageCourse(new RunClock(), new FrameRate(25), 0, Frames, keepsTime: true);
        using var layer = new LayerDecoding(
            new ClipSource(Clip("shares of a picture")),
            1,
            null,
            new Layer("c", []),
            course,
            DecodingPart.Leads
        );

        // Far more of them than may wait come out of the decoder afterwards; the leader needs room to go on to those after them.
        var spent = layer.PassOver(50);
        var next = await Task.Run(() => course.Take(50)).WaitAsync(TimeSpan.FromMinutes(10));

        Assert.Equal(51, next);
        course.Taking(51);
        using var frame = layer.Take(51);
        Assert.Equal(51, frame!.Number);
        Assert.True(spent + layer.PassOver(52) > TimeSpan.Zero);
    }

    [Fact]
    public async Task While_another_passage_plays_only_the_first_frame_is_decoded_ahead()
    {
        var course = new PassageCourse(new RunClock(), new FrameRate(25), 0, 100, keepsTime: true, isAhead: true);
        using var layer = new LayerDecoding(
            new ClipSource(Clip("shares of a picture")),
            1,
            null,
            new Layer("c", []),
            course,
            DecodingPart.Leads
        );
        Assert.Equal(0, await Task.Run(() => course.Take(-1)).WaitAsync(TimeSpan.FromMinutes(10)));

        Assert.Null(course.Follow(0, -1, TimeSpan.FromMilliseconds(300)).Position);

        course.GoOn();
        Assert.Equal(1, await Task.Run(() => course.Take(0)).WaitAsync(TimeSpan.FromMinutes(10)));
    }

    [Fact]
    public async Task Layers_that_open_while_another_passage_plays_take_turns_and_need_none_once_it_is_over()
    {
        var course = new PassageCourse(new RunClock(), new FrameRate(25), 0, 100, keepsTime: true, layers: 3, isAhead: true);
        using var first = course.Turn(() => false);
        var second = Task.Run(() => course.Turn(() => false));
        Assert.Null(course.Turn(() => true));
        Assert.False(second.IsCompleted);

        first!.Dispose();
        using var taken = await second.WaitAsync(TimeSpan.FromMinutes(10));
        Assert.NotNull(taken);
        var third = Task.Run(() => course.Turn(() => false));
        course.GoOn();

        Assert.Null(await third.WaitAsync(TimeSpan.FromMinutes(10)));
    }

    /// <summary>What effects need is not spent on frames that are passed over.</summary>
    [Fact]
    public void On_the_way_to_a_chosen_frame_of_a_long_GOP_only_those_are_decoded_that_others_refer_to()
    {
        var course = new PassageCourse(new RunClock(), new FrameRate(25), 0, 150, keepsTime: true, layers: 2);
        course.Lead(_ => new Any());
        var decoded = new List<long>();
        var source = new ClipSource(Clip("long GOP"), new FrameRate(25), 200, new ClipTrack(0, 0, IsEven: true));
        using var layer = new LayerDecoding(
            source, 1, null, new Layer("c", []), course, DecodingPart.Follows, (clip, _, _) => new Noting(clip, decoded));
        long[] chosen = [0, 3, 5, 8, 9, 31, 32, 34, 77, 90, 91, 149];
        foreach (var position in chosen)
        {
            course.Begin(position, DropReason.PassedOver);
            course.Taking(position);
            using var frame = layer.Take(position);
            Assert.Equal(position, frame!.Number);
        }

        Assert.Empty(decoded.Except(chosen).Except(Referenced(source)));
    }

    /// <summary>Effects of half a second keep each frame waiting, so the leader passes frames over.</summary>
    [Fact]
    public async Task A_leader_that_waits_for_effects_decodes_none_that_it_passes_over_and_no_other_refers_to()
    {
        var (run, decoded, begun) = (new RunClock(), new List<long>(), new List<long>());
        var course = new PassageCourse(run, new FrameRate(25), 0, 150, keepsTime: true);
        var source = new ClipSource(Clip("long GOP"), new FrameRate(25), 200, new ClipTrack(0, 0, IsEven: true));
        using var layer = new LayerDecoding(
            source, 1, null, new Layer("c", []), course, DecodingPart.Leads, (clip, _, _) => new Noting(clip, decoded));
        run.Publish(new SlotClock(new FrameRate(25), run.Now, TimeSpan.Zero));
        while (begun.Count < 9
            && await Task.Run(() => course.Take(begun.LastOrDefault(-1))).WaitAsync(TimeSpan.FromMinutes(10)) is { } next)
        {
            begun.Add(next);
            course.Taking(next);
            using var frame = layer.Take(next);
            course.Gathered(next, TimeSpan.Zero);
            // Instead of waiting, the clock is set on by as much.
            var effects = TimeSpan.FromMilliseconds(500);
            run.Publish(new SlotClock(new FrameRate(25), run.Slots!.Value.FirstShown - effects, TimeSpan.Zero));
            course.Done(effects);
        }

        // The decoder gives a frame only when it has the data of up to four later ones.
        var allowed = begun.SelectMany(frame => Enumerable.Range(0, 5).Select(on => frame + on)).Concat(Referenced(source)).ToList();
        lock (decoded)
        {
            var extra = decoded.Where(frame => frame <= begun[^1]).Except(allowed).ToList();
            Assert.True(extra.Count == 0, $"{string.Join(' ', extra)} beside {string.Join(' ', begun)}");
        }
    }

    /// <summary>Frames of the first 150 that others refer to.</summary>
    private static HashSet<long> Referenced(ClipSource source)
    {
        using var whole = new ClipDecoder(source, 1);
        whole.SkipUnreferencedBefore(long.MaxValue);
        var referenced = new HashSet<long>();
        for (var number = 0L; number < 150;)
        {
            using var frame = whole.Next();
            referenced.Add(number = frame.Number);
        }

        Assert.InRange(referenced.Count, 30, 110);
        return referenced;
    }

    private static readonly Dictionary<string, string> Files = [];

    private static string Clip(string threads, string container = ".mov")
    {
        lock (Files)
        {
            if (!Files.TryGetValue(threads + container, out var file))
            {
                file = Path.Combine(TestData.NewFolder("chosen"), "clip" + container);
                using var making = Process.Start(
                    "ffmpeg",
                    ["-v", "error", "-f", "lavfi", "-i", "testsrc2=s=320x180:r=25:d=8", .. Coded[threads], file]
                )!;
                making.WaitForExit();
                Assert.Equal(0, making.ExitCode);
                Files.Add(threads + container, file);
            }

            return file;
        }
    }

    /// <summary>Notes which frames are decoded.</summary>
    private sealed class Noting(ClipSource source, List<long> decoded) : ClipDecoder(source, 1)
    {
        public override DecodedFrame Next()
        {
            var frame = base.Next();
            lock (decoded)
            {
                decoded.Add(frame.Number);
            }

            return frame;
        }
    }

    private sealed class Any : IReferences
    {
        public bool StandAlone => true;

        public long FirstFrom(long frame) => frame;
    }
}
