using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using HardyBench.Core.Timelines;
using HardyBench.Player.Decoding;
using HardyBench.Player.Native;
using HardyBench.Player.Playing;
using HardyBench.Workbench.Demo;

namespace HardyBench.Player.Tests.Playing;

public sealed class LocalPlaybackTests
{
    [Fact]
    public async Task Every_slot_is_settled_once_in_order_and_the_observer_hears_of_each()
    {
        var timeline = DemoTimelines.TouringNight(Raster.Hd.DividedBy(3), 1);
        var notes = new Notes();

        var run = await Plans.PlayAsync(await Plans.PlanAsync(timeline, new PlaybackSettings()), observer: notes);

        Assert.Equal(RunEnding.Finished, run.Ending);
        Assert.Equal(Enumerable.Range(0, 200), run.Frames.Select(frame => frame.Frame));
        Assert.Equal(run.Frames, notes.Frames);
        var shown = run.Frames.Where(frame => frame.Shown is not null).Select(frame => frame.Shown!.Value).ToList();
        Assert.Equal(shown.Order(), shown);
        Assert.All(RunFindings.Of(run).Select(finding => finding.Counts), counts =>
            Assert.Equal(25, counts.OnTime + counts.Late + counts.Overdue + counts.StartUpDrops + counts.SteadyDrops));
    }

    [Fact]
    public async Task Every_frame_has_its_decisions_in_the_log_where_one_is_kept_and_none_without()
    {
        var plan = await Plans.PlanAsync(DemoTimelines.TouringNight(Raster.Hd.DividedBy(3), 1), new PlaybackSettings());
        var (logged, silent) = (new Notes(), new Notes());

        var run = await Plans.PlayAsync(plan with { LogsDecisions = true }, observer: logged);
        await Plans.PlayAsync(plan, observer: silent);

        Assert.Empty(silent.Decisions);
        var acts = logged.Decisions.ToLookup(one => one.Act, one => one.Frame);
        Assert.Equal(run.Frames.Where(frame => frame.Shown is not null).Select(frame => (long)frame.Frame), acts[DecisionAct.Shown]);
        Assert.Equal(run.Frames.Where(frame => frame.Shown is null).Select(frame => (long)frame.Frame), acts[DecisionAct.Dropped]);
        Assert.All(acts[DecisionAct.Shown], frame => Assert.Contains(frame, acts[DecisionAct.Finished]));
        Assert.All(acts[DecisionAct.Finished], frame => Assert.Contains(frame, acts[DecisionAct.Decoded]));
        Assert.All(acts[DecisionAct.Decoded], frame => Assert.Contains(frame, acts[DecisionAct.Begun]));
        Assert.All(logged.Decisions.Where(one => one.Act == DecisionAct.Chosen), one => Assert.NotNull(one.Basis));
    }

    [Fact]
    public async Task Keep_frames_shows_every_frame_even_of_what_breaks()
    {
        var plan = await Plans.SmallAsync(6, 30, new PlaybackSettings(Policy: PlayingPolicy.KeepFrames));

        var run = await Plans.PlayAsync(plan, new SlowScreen(60));

        Assert.All(run.Frames, frame => Assert.NotNull(frame.Shown));
    }

    /// <summary>Else the rate of a passage would hang on what comes after it.</summary>
    [Fact]
    public async Task Without_a_clock_a_passage_is_begun_when_the_one_before_is_over()
    {
        var timeline = DemoTimelines.TouringNight(Raster.Hd.DividedBy(3), 1);

        var run = await Plans.PlayAsync(await Plans.PlanAsync(timeline, new PlaybackSettings(Policy: PlayingPolicy.Unpaced)));

        // The times of several layers add up, though they are decoded at once.
        foreach (var passage in Enumerable.Range(1, timeline.Passages.Count - 1).Where(index => timeline.Passages[index].Layers.Count == 1))
        {
            var (last, first) = (run.FramesOf(passage - 1)[^1], run.FramesOf(passage)[0]);
            Assert.True(
                first.Ready - (first.Read + first.Decode + first.Effects) >= last.Ready,
                $"passage {passage + 1} was begun while the one before still played");
        }
    }

    [Fact]
    public async Task A_presenter_held_up_past_the_slot_owns_up_to_the_drop()
    {
        // Showing takes two slots and a half, so frames that were ready are missed by the presenter itself.
        var run = await Plans.PlayAsync(await Plans.SmallAsync(1, 30, new PlaybackSettings()), new SlowScreen(100));

        Assert.Contains(run.Frames, frame => frame.Reason == DropReason.PresenterLate);
        Assert.DoesNotContain(
            run.Frames, frame => frame.Reason != DropReason.None && frame.Status is FrameStatus.OnTime or FrameStatus.Late);
    }

    [Fact]
    public async Task A_clip_that_fails_fails_its_passage_and_not_the_run()
    {
        var demo = DemoTimelines.TouringNight(Raster.Hd.DividedBy(3), 1);
        var timeline = demo with { Passages = [demo.Passages[0], demo.Passages[6], demo.Passages[3]] };
        var files = new Replaced(await TestData.ClipsAsync(), "uhd-mezz-25", await TruncatedAsync("uhd-mezz-25"));

        var run = await Plans.PlayAsync(
            await Plans.PlanAsync(timeline, new PlaybackSettings(Policy: PlayingPolicy.KeepFrames)),
            files: files
        );
        var findings = RunFindings.Of(run);

        Assert.Equal(RunEnding.Finished, run.Ending);
        Assert.Equal(1, Assert.Single(run.Failures).PassageIndex);
        Assert.Equal(75, run.Frames.Count);
        Assert.Equal(Limiter.Clip, findings[1].Limiter!.Limiter);
        Assert.True(findings[2].Counts.Shown > 0);
    }

    [Fact]
    public async Task A_clip_that_ends_too_early_is_found_out_in_mid_run()
    {
        // The index is at the front of these files, so a cut one opens well and fails where its pictures end.
        var files = new Replaced(await TestData.ClipsAsync(), "hd-mezz-25", await TruncatedAsync("hd-mezz-25"));
        var demo = DemoTimelines.TouringNight(Raster.Hd.DividedBy(3), 3);
        var passage = new Passage("cut", 75, [new Layer("hd-mezz-25", [])], []);

        var run = await Plans.PlayAsync(
            await Plans.PlanAsync(demo with { Passages = [passage] }, new PlaybackSettings(Policy: PlayingPolicy.KeepFrames)),
            files: files
        );

        Assert.Contains("ends before its last frame", Assert.Single(run.Failures).Message, StringComparison.Ordinal);
        Assert.Contains(run.Frames, frame => frame.Shown is not null);
        Assert.Contains(run.Frames, frame => frame.Reason == DropReason.PassageFailed);
    }

    [Theory]
    [InlineData("missing.mp4", null)]
    [InlineData("empty.mp4", "")]
    [InlineData("text.mp4", "these are not the frames you are looking for")]
    public async Task A_file_that_is_no_clip_gets_a_clear_error_that_names_it(string name, string? content)
    {
        var path = Path.Combine(TestData.NewFolder(), name);
        if (content is not null)
        {
            await File.WriteAllTextAsync(path, content);
        }

        var error = Assert.Throws<MediaException>(() => new ClipDecoder(path, 1));

        Assert.StartsWith($"Opening {name} failed: ", error.Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Stopping_keeps_what_was_played()
    {
        using var stop = new CancellationTokenSource();
        var notes = new Notes { OnProgress = stop.Cancel };

        var run = await Plans.PlayAsync(await Plans.SmallAsync(1, 2000, new PlaybackSettings()), observer: notes, stop: stop.Token);

        Assert.Equal(RunEnding.Stopped, run.Ending);
        Assert.InRange(run.Frames.Count, 0, 1999);
    }

    [Fact]
    public async Task Preview_pictures_come_only_when_asked_for()
    {
        var (with, without) = (new Notes(), new Notes());

        await Plans.PlayAsync(await Plans.SmallAsync(1, 30, new PlaybackSettings(Pictures: true)), observer: with);
        await Plans.PlayAsync(await Plans.SmallAsync(1, 30, new PlaybackSettings()), observer: without);

        Assert.NotEmpty(with.Pictures);
        Assert.All(with.Pictures, jpeg => Assert.Equal([0xFF, 0xD8], jpeg[..2]));
        Assert.Empty(without.Pictures);
    }

    private static async Task<string> TruncatedAsync(string id)
    {
        var clips = await TestData.ClipsAsync();
        var whole = await File.ReadAllBytesAsync(clips.PathOf(clips.Clips[id]));
        var cut = Path.Combine(TestData.NewFolder(), "cut.mov");
        await File.WriteAllBytesAsync(cut, whole[..(whole.Length / 4)]);
        return cut;
    }

    private sealed class Replaced(IClipFiles files, string id, string path) : IClipFiles
    {
        public string PathOf(Clip clip) => clip.Id == id ? path : files.PathOf(clip);
    }

    private sealed class SlowScreen(int milliseconds) : IScreen
    {
        public void Show(long frame, FrameHandle picture) => Thread.Sleep(milliseconds);
    }
}
