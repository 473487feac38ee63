using System.Diagnostics;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback.Subjects;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Timelines;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Media.EffectFiles;
using HardyBench.Player.Effects;
using HardyBench.Player.Playing;
using HardyBench.Workbench.Playing;

namespace HardyBench.Workbench.Tests.Playing;

/// <summary>Playing in a process apart: what it leaves is the same, and whatever becomes of that process nothing else does.</summary>
public sealed class HostPlaybackTests : IAsyncLifetime
{
    private static readonly EffectPlaces Effects = new("/nowhere", Fonts.ForTitles);

    private readonly string homes = TestData.NewFolder("homes");
    private Media.Clips.ClipFolder clips = null!;
    private Players players = null!;

    public async ValueTask InitializeAsync()
    {
        clips = await TestData.ClipsAsync();
        players = new Players(new PlayerProgram([clips.Path], homes));
    }

    public ValueTask DisposeAsync()
    {
        players.Dispose();
        return ValueTask.CompletedTask;
    }

    [Fact]
    public async Task A_run_is_told_while_it_plays_and_comes_back_whole()
    {
        var heard = new Heard();

        var run = await Playback().PlayAsync(Plan(frames: 20), heard, CancellationToken.None);

        Assert.Equal((RunEnding.Finished, 20), (run.Ending, run.Frames.Count));
        Assert.Empty(run.Failures);
        Assert.Equal(run.Frames, heard.Frames);
        Assert.StartsWith("Hardy Bench 0.1.0, libavcodec", run.Header.Conditions.Player, StringComparison.Ordinal);
        Assert.Equal(run.Frames.First(frame => frame.Shown is not null).Shown, run.StartLag);
        Assert.Contains(run.Loads, load => load.Kind == LoadKind.OwnTool);
        Assert.NotEmpty(run.Header.Conditions.Footage!);
    }

    [Fact]
    public async Task One_process_plays_one_run_after_another_and_waits_between_them()
    {
        await Playback().PlayAsync(Plan(frames: 5), new Heard(), CancellationToken.None);
        var first = Assert.Single(players.Processes);
        await Playback().PlayAsync(Plan(frames: 5), new Heard(), CancellationToken.None);

        Assert.Equal(first, Assert.Single(players.Processes));
    }

    /// <summary>The runtime's own handler takes the first signal for a fault that the next instruction will show again; the second is
    /// that.</summary>
    [Fact]
    public async Task A_player_that_crashes_leaves_a_run_that_is_cut_short_and_names_the_clip_and_the_next_one_plays()
    {
        var run = await Playback().PlayAsync(Plan(frames: 1000), new Heard(after: 5, Crash), CancellationToken.None);

        Assert.Equal(RunEnding.CutShort, run.Ending);
        Assert.InRange(run.Frames.Count, 5, 999);
        var failure = Assert.Single(run.Failures);
        Assert.Equal((0, false), (failure.PassageIndex, failure.Overcome));
        Assert.Contains("it was ended by SIGSEGV), at “The wings", failure.Message, StringComparison.Ordinal);
        Assert.Equal(RunEnding.Finished, (await Playback().PlayAsync(Plan(frames: 5), new Heard(), CancellationToken.None)).Ending);
    }

    /// <summary>Each made clip with bytes of it turned over, from its header to its last frame, or its end cut off: whatever the libraries
    /// make of it, at worst the run is cut short. Nothing of it is seen here, and the next run plays.</summary>
    [Fact]
    public async Task Damaged_clips_end_at_most_the_run_that_plays_them()
    {
        const int Damages = 6, Frames = 8;
        var (folder, random) = (TestData.NewFolder("damaged"), new Random(1));
        var damaged = clips
            .Clips.Values.Where(clip => clip.Sha256 is not null)
            .SelectMany(clip => Enumerable.Range(0, Damages).Select(n => (clip, n)))
            .Select(one =>
        {
            var bytes = File.ReadAllBytes(clips.PathOf(one.clip));
            var (from, count) = one.n switch { 0 => (0, 40), 1 => (Math.Max(0, bytes.Length - 4096), 40), _ => (0, 4 << one.n) };
            for (var turned = 0; turned < count; turned++)
            {
                bytes[random.Next(from, one.n == 0 ? Math.Min(2048, bytes.Length) : bytes.Length)] ^= (byte)(1 << random.Next(8));
            }

            var clip = one.clip with { Id = $"{one.clip.Id}-{one.n}", Title = $"{one.clip.Title}, damaged {one.n}" };
            File.WriteAllBytes(Path.Combine(folder, clip.Id), one.n == Damages - 1 ? bytes[..(bytes.Length / 2)] : bytes);
            return clip;
        }).ToDictionary(clip => clip.Id);
        Assert.True(damaged.Count >= 4 * Damages);
        using var confined = new Players(new PlayerProgram([clips.Path, folder], homes));
        var plan = Plan(Frames) with { Clips = damaged };
        plan = plan with
        {
            Timeline = plan.Timeline with
            {
                Passages = [.. damaged.Values.Select(clip => new Passage(clip.Title, Frames, [new Layer(clip.Id, [])], []))],
            },
        };

        var run = await new HostPlayback(confined, new In(folder), Effects, homes, null).PlayAsync(
            plan,
            new Heard(),
            CancellationToken.None
        );

        Assert.True(
            run.Ending == RunEnding.CutShort ? run.Failures.Count > 0 : run.Frames.Count == damaged.Count * Frames,
            $"{run.Ending}, {run.Frames.Count} slots"
        );
        Assert.NotEmpty(run.Failures);
        Assert.All(run.Failures, failure => Assert.Matches(@"^[\p{L}\d].*\w.*[.…]?$", failure.Message));
        Assert.Equal(
            RunEnding.Finished,
            (
                await new HostPlayback(confined, clips, Effects, homes, null).PlayAsync(
                    Plan(frames: 5),
                    new Heard(),
                    CancellationToken.None
                )
            ).Ending
        );
    }

    /// <summary>A hand leaves no frames, so what it had asked for tells where the player ended.</summary>
    [Fact]
    public async Task A_player_that_crashes_in_a_scrub_names_the_passage_that_the_hand_was_in()
    {
        var plan = Plan(frames: 50);
        var passage = plan.Timeline.Passages[0];
        plan = plan with
        {
            Timeline = plan.Timeline with { Passages = [passage, passage] },
            Subject = new ByHand([new Gesture(GestureKind.Jump, "to a far frame", [.. Enumerable.Repeat(60L, 400)], TimeSpan.FromMilliseconds(50))]),
        };

        var run = await Playback().PlayAsync(plan, new Heard(after: 3, Crash), CancellationToken.None);

        Assert.Equal((RunEnding.CutShort, 1), (run.Ending, Assert.Single(run.Failures).PassageIndex));
    }

    [Fact]
    public async Task A_player_that_stands_still_is_ended()
    {
        var run = await Playback(standsStill: TimeSpan.FromSeconds(3))
            .PlayAsync(Plan(frames: 1000), new Heard(after: 5, () => Signal("STOP")), CancellationToken.None);

        Assert.Equal(RunEnding.CutShort, run.Ending);
        Assert.Contains("SIGKILL", Assert.Single(run.Failures).Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task Stopping_keeps_what_was_played_whether_the_player_hears_it_or_not(bool isDeaf)
    {
        using var stop = new CancellationTokenSource();
        var run = await Playback().PlayAsync(Plan(frames: 1000), new Heard(after: 5, () =>
        {
            if (isDeaf)
            {
                Signal("STOP");
            }

            stop.Cancel();
        }), stop.Token);

        Assert.Equal(RunEnding.Stopped, run.Ending);
        Assert.InRange(run.Frames.Count, 5, 999);
        Assert.Empty(run.Failures);
        Assert.Equal(RunEnding.Finished, (await Playback().PlayAsync(Plan(frames: 5), new Heard(), CancellationToken.None)).Ending);
    }

    /// <summary>A stop that comes with the last frame reaches a player that has done what it was asked; it must not be ended in the next
    /// run.</summary>
    [Fact]
    public async Task A_player_that_was_asked_to_stop_plays_nothing_more_even_if_it_was_done()
    {
        using var stop = new CancellationTokenSource();
        var first = 0;
        var run = await Playback().PlayAsync(Plan(frames: 5), new Heard(after: 5, () =>
        {
            first = Assert.Single(players.Processes);
            stop.Cancel();
        }), stop.Token);
        Assert.Equal(5, run.Frames.Count);

        await Playback().PlayAsync(Plan(frames: 5), new Heard(), CancellationToken.None);

        Assert.NotEqual(first, Assert.Single(players.Processes));
    }

    [Fact]
    public async Task A_clip_without_a_file_fails_its_passage_in_the_words_of_the_folder()
    {
        var plan = Plan(frames: 5);
        var gone = plan with { Clips = new Dictionary<string, Clip> { ["hd-avc-25"] = plan.Clips["hd-avc-25"] with { Id = "nobody" } } };

        var run = await Playback().PlayAsync(gone, new Heard(), CancellationToken.None);

        Assert.NotEmpty(Assert.Single(run.Failures).Message);
        Assert.All(run.Frames, frame => Assert.Equal(DropReason.PassageFailed, frame.Reason));
    }

    [Fact]
    public async Task What_was_not_handed_to_it_cannot_be_opened()
    {
        var elsewhere = Path.Combine(TestData.NewFolder(), "copy.mp4");
        File.Copy(clips.PathOf(clips.Clips["hd-avc-25"]), elsewhere);
        var program = new PlayerProgram([clips.Path], homes);
        using var player = await PlayerProcess.StartAsync(program, [], CancellationToken.None);
        Assert.SkipWhen(player.Greeting.ReachesAllFiles, "This kernel does not confine processes to files.");
        player.Ask(
            new PlayerRequest
            {
                Play = new StartPlay(
                    Plan(frames: 5),
                    new Dictionary<string, ClipPlace> { ["hd-avc-25"] = new(elsewhere) },
                    Effects,
                    null,
                    null
                ),
            }
        );

        var failures = new List<PassageFailure>();
        while (await player.ReceiveAsync(CancellationToken.None) is { Ended: null } told)
        {
            failures.AddRange(told.Progressed?.Failures ?? []);
        }

        Assert.Contains("Permission denied", Assert.Single(failures).Message, StringComparison.Ordinal);

        // The same file is handed when a run needs it.
        Assert.Equal([elsewhere], program.Unreached([elsewhere, clips.PathOf(clips.Clips["hd-avc-25"])]));
        Assert.Empty(
            (
                await new HostPlayback(players, new Elsewhere(elsewhere), Effects, homes, null).PlayAsync(
                    Plan(frames: 5),
                    new Heard(),
                    CancellationToken.None
                )
            ).Failures
        );
    }

    [Fact]
    public void The_pictures_of_a_passage_are_those_that_are_made_in_this_process()
    {
        var plan = Plan(frames: 4) with { Settings = new PlaybackSettings(Policy: PlayingPolicy.KeepFrames) };
        var here = new PassagePictures(clips, new EffectFilters(Effects.Looks, Effects.Font))
            .Of(plan, 0, CancellationToken.None)
            .Select(picture => picture.ToArray())
            .ToList();
        var there = new HostPictures(new PlayerProgram([clips.Path], homes), clips, Effects)
            .Of(plan, 0, CancellationToken.None)
            .Select(picture => picture.ToArray())
            .ToList();

        Assert.Equal(here, there);
        Assert.Equal(4, there.Count);
        Assert.Empty(Directory.GetDirectories(homes));
    }

    [Fact]
    public async Task Without_its_program_nothing_plays_and_it_is_said_what_to_do()
    {
        using var none = new Players(new PlayerProgram([clips.Path], homes, TestData.NewFolder()));

        var missing = await Assert.ThrowsAsync<PlayerUnavailableException>(() => none.TakeAsync([], CancellationToken.None));

        Assert.Contains("Build the product again", missing.Message, StringComparison.Ordinal);
        await none.WarmAsync();
    }

    private HostPlayback Playback(TimeSpan? standsStill = null) => new(players, clips, Effects, homes, null, standsStill);

    private void Signal(string name) => Kill(name, Assert.Single(players.Processes));

    /// <summary>The runtime's own handler takes the first signal, and two in a row may count as one, so it is sent until the player is
    /// gone.</summary>
    private void Crash()
    {
        var player = Assert.Single(players.Processes);
        while (Kill("SEGV", player))
        {
            Thread.Sleep(TimeSpan.FromMilliseconds(20));
        }
    }

    private static bool Kill(string name, int process)
    {
        using var kill = Process.Start("kill", [$"-{name}", $"{process}"]);
        kill.WaitForExit();
        return kill.ExitCode == 0;
    }

    private PlaybackPlan Plan(int frames)
    {
        var clip = clips.Clips["hd-avc-25"] with { Title = "The wings" };
        return new PlaybackPlan(
            new Timeline("t", "T", Raster.Hd.DividedBy(3), new FrameRate(25), [new Passage("asked", frames, [new Layer(clip.Id, [])], [])]),
            new Dictionary<string, Clip> { [clip.Id] = clip },
            new Machine(
                "here",
                "This",
                MachineKind.Real,
                string.Empty,
                new Processor("p", 2, 2, null, null),
                [],
                [],
                new Memory(8, 1, null, null),
                [],
                null,
                null
            ),
            new PlaybackSettings());
    }

    private sealed class In(string folder) : IClipFiles
    {
        public string PathOf(Clip clip) => Path.Combine(folder, clip.Id);
    }

    private sealed class Elsewhere(string path) : IClipFiles
    {
        public string PathOf(Clip clip) => path;
    }

    /// <param name="after">Frames after which something is done, once.</param>
    private sealed class Heard(int after = int.MaxValue, Action? then = null) : IRunObserver
    {
        private bool isDone;
        private int lags;

        public List<FrameRecord> Frames { get; } = [];

        public void Progressed(RunProgress progress)
        {
            Frames.AddRange(progress.Frames);
            lags += progress.Lags.Count;
            if (Frames.Count + lags >= after && !isDone)
            {
                isDone = true;
                then!();
            }
        }
    }
}
