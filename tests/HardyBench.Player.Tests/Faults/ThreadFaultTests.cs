using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Media.Clips;
using HardyBench.Player.Course;
using HardyBench.Player.Decoding;
using HardyBench.Player.Native;
using HardyBench.Player.Playing;
using HardyBench.Player.Tests.Playing;

namespace HardyBench.Player.Tests.Faults;

/// <summary>What goes wrong on one of the player's threads is told and ends no more than it must.</summary>
public sealed class ThreadFaultTests
{
    [Theory]
    [InlineData("hd-avc-25", 17)]
    [InlineData("hd-mezz-25", 3)]
    public async Task A_decoding_device_that_is_lost_in_mid_run_hands_every_frame_left_to_the_processor(string id, int lostAt)
    {
        using var layer = await LayerAsync(id, "a device", source => new Ailing(source, lostAt, new MediaException("The device is gone.")));
        using var whole = await LayerAsync(id, null, source => new ClipDecoder(source, 1));

        for (var position = 0; position < 60; position++)
        {
            using var frame = layer.Take(position)!;
            using var same = whole.Take(position)!;
            Assert.Equal(position, frame.Number);
            Assert.Equal(same.Picture.CopyPlanes(), frame.Picture.CopyPlanes());
        }

        Assert.Matches(
            $"^decoding {id}-.* on a device failed: The device is gone. The processor took over$",
            Assert.Single(layer.Overcome)
        );
    }

    [Fact]
    public async Task The_processor_that_fails_too_fails_the_layer()
    {
        using var layer = await LayerAsync(
            "hd-avc-25",
            null,
            source => new Ailing(source, 2, new MediaException("Nothing can be decoded."))
        );

        Assert.Equal("Nothing can be decoded.", Assert.Throws<MediaException>(() => TakeAll(layer)).Message);
    }

    [Fact]
    public async Task An_exception_that_was_not_foreseen_fails_the_layer_and_not_the_program()
    {
        using var layer = await LayerAsync(
            "hd-avc-25",
            null,
            source => new Ailing(source, 2, new InvalidTimeZoneException("What is this?"))
        );

        Assert.Matches(
            "^Decoding hd-avc-25-.* failed unexpectedly: What is this\\?$",
            Assert.Throws<MediaException>(() => TakeAll(layer)).Message);
    }

    [Fact]
    public async Task A_preview_picture_that_cannot_be_made_is_told_and_every_frame_is_played()
    {
        var run = await Plans.PlayAsync(
            await Plans.SmallAsync(1, 30, new PlaybackSettings(Policy: PlayingPolicy.KeepFrames, Pictures: true)), observer: new Blind());

        Assert.Equal((RunEnding.Finished, 30), (run.Ending, run.Frames.Count(frame => frame.Shown is not null)));
        var failure = Assert.Single(run.Failures);
        Assert.True(failure.Overcome);
        Assert.Matches(@"^(1 preview picture|\d+ preview pictures) could not be made$", failure.Message);
    }

    [Fact]
    public async Task A_passage_that_fails_in_its_last_second_leaves_no_decoder_of_the_next_one_open()
    {
        var clips = await TestData.ClipsAsync();
        var folder = TestData.NewFolder("last-second");
        var (failing, next) = (Path.Combine(folder, "failing.mov"), Path.Combine(folder, "next.mp4"));
        var whole = await File.ReadAllBytesAsync(clips.PathOf(clips.Clips["hd-mezz-25"]));
        await File.WriteAllBytesAsync(failing, whole[..(whole.Length / 2)]);
        File.Copy(clips.PathOf(clips.Clips["hd-avc-25"]), next);
        var passages = (Passage[])
            [new("fails", 30, [new Layer("hd-mezz-25", [])], []), new("goes on", 10, [new Layer("hd-avc-25", [])], [])];
        var plan = await Plans.PlanAsync(
            new Timeline("t", "T", Raster.Hd.DividedBy(3), new FrameRate(25), passages),
            new PlaybackSettings(Policy: PlayingPolicy.KeepFrames)
        );

        var run = await Plans.PlayAsync(plan, files: new Elsewhere(new() { ["hd-mezz-25"] = failing, ["hd-avc-25"] = next }));

        Assert.Equal((0, false), (Assert.Single(run.Failures).PassageIndex, run.Failures[0].Overcome));
        Assert.True(
            run.Frames.Count(frame => frame.Reason == DropReason.PassageFailed) < 25,
            "it fails within a second of its end, when the next is open already"
        );
        Assert.All(run.Frames.Skip(30), frame => Assert.NotNull(frame.Shown));
        Assert.DoesNotContain(OpenFiles(), file => file == failing || file == next);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task Stopping_does_not_wait_for_work_that_takes_longer_and_the_next_run_does(bool showing)
    {
        using var stop = new CancellationTokenSource();
        using var stuck = new Stuck(await TestData.ClipsAsync(), stop, showing);
        var plan = await Plans.SmallAsync(1, 30, new PlaybackSettings(Policy: PlayingPolicy.KeepFrames));

        var run = await Plans.PlayAsync(plan, stuck, stuck, stop: stop.Token);

        Assert.Equal((RunEnding.Stopped, 0), (run.Ending, run.Frames.Count));
        var next = Plans.PlayAsync(await Plans.SmallAsync(1, 3, new PlaybackSettings()));
        stuck.Release();
        Assert.Empty((await next).Failures);
    }

    [Fact]
    public async Task Waiting_for_a_far_slot_ends_when_playing_is_stopped()
    {
        using var stop = new CancellationTokenSource();
        var waiting = Task.Run(() => new RunClock().WaitUntil(TimeSpan.FromDays(1), stop.Token));

        await stop.CancelAsync();

        await waiting;
    }

    [Fact]
    public async Task Work_that_never_ends_is_waited_for_once_and_said_of_every_run_until_it_does()
    {
        var (leftovers, stuck) = (new Leftovers(), new TaskCompletionSource());
        leftovers.Add(stuck.Task);

        Assert.False(await leftovers.EndedAsync(CancellationToken.None, TimeSpan.Zero));
        Assert.False(await leftovers.EndedAsync(CancellationToken.None, Timeout.InfiniteTimeSpan));
        stuck.SetResult();
        Assert.True(await leftovers.EndedAsync(CancellationToken.None, TimeSpan.Zero));
    }

    private static void TakeAll(LayerDecoding layer)
    {
        for (var position = 0; position < 40; position++)
        {
            layer.Take(position)?.Dispose();
        }
    }

    /// <param name="on">What decodes where a device is named; the processor is sound only then.</param>
    private static async Task<LayerDecoding> LayerAsync(string id, string? device, Func<ClipSource, ClipDecoder> on)
    {
        var clips = await TestData.ClipsAsync();
        var course = new PassageCourse(new RunClock(), new FrameRate(25), 0, 100, keepsTime: false);
        return new LayerDecoding(
            ClipSource.Of(clips.Clips[id], clips), 1, device, new Layer(id, []), course, DecodingPart.Leads,
            (source, _, asked) => asked == device ? on(source) : new ClipDecoder(source, 1));
    }

    private static List<string?> OpenFiles() => [.. Directory.EnumerateFileSystemEntries("/proc/self/fd").Select(descriptor =>
    {
        try
        {
            return File.ResolveLinkTarget(descriptor, returnFinalTarget: false)?.FullName;
        }
        catch (IOException)
        {
            // Closed by now.
            return null;
        }
    })];

    /// <summary>Decodes well for so many frames.</summary>
    private sealed class Ailing(ClipSource source, int frames, Exception failure) : ClipDecoder(source, 1)
    {
        private int left = frames;

        public override DecodedFrame Next() => left-- > 0 ? base.Next() : throw failure;
    }

    private sealed class Blind : IRunObserver
    {
        public void Pictured(int frame, byte[] jpeg) => throw new IOException("Nobody is there.");
    }

    private sealed class Elsewhere(Dictionary<string, string> paths) : IClipFiles
    {
        public string PathOf(Clip clip) => paths[clip.Id];
    }

    /// <summary>Lets the run be stopped and then stands still, with its first picture or when a clip is opened to be played.</summary>
    private sealed class Stuck(ClipFolder clips, CancellationTokenSource stop, bool showing) : IScreen, IClipFiles, IDisposable
    {
        private readonly ManualResetEventSlim released = new();
        private int asked;

        public void Show(long frame, FrameHandle picture) => StandStill(showing);

        public string PathOf(Clip clip)
        {
            // Before it is opened the footage is looked into, once.
            StandStill(!showing && asked++ > 0);
            return clips.PathOf(clip);
        }

        public void Release() => released.Set();

        public void Dispose() => released.Dispose();

        private void StandStill(bool here)
        {
            if (here)
            {
                stop.Cancel();
                released.Wait();
            }
        }
    }
}
