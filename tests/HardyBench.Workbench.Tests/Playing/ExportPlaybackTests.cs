using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Timelines;
using HardyBench.Core.Trials;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Media.EffectFiles;
using HardyBench.Media.Exports;
using HardyBench.Workbench.Exports;
using HardyBench.Workbench.Playing;

namespace HardyBench.Workbench.Tests.Playing;

/// <summary>Exports that are really written on this machine.</summary>
public sealed class ExportPlaybackTests : IAsyncLifetime
{
    private static readonly EffectPlaces Effects = new("/nowhere", Fonts.ForTitles);
    private static readonly Raster Small = Raster.Hd.DividedBy(3);
    private static readonly FrameRate Rate = new(25);

    private readonly string homes = TestData.NewFolder("homes");
    private Media.Clips.ClipFolder clips = null!;

    public async ValueTask InitializeAsync() => clips = await TestData.ClipsAsync();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    public static TheoryData<ExportFormat> EveryFormat => [.. Enum.GetValues<ExportFormat>()];

    /// <summary>Passages of 8 and of 10 bits in one file: its frames, raster, rate and format are looked at by FFmpeg's own
    /// probe.</summary>
    [Theory]
    [MemberData(nameof(EveryFormat))]
    public async Task A_film_is_written_whole_looked_at_and_thrown_away(ExportFormat format)
    {
        var heard = new Heard(int.MaxValue, () => { });

        var run = await Playback().PlayAsync(Plan(format, 12, "hd-avc-25", "hd-mezz-25"), heard, CancellationToken.None);

        Assert.Equal((RunEnding.Finished, 24), (run.Ending, run.Frames.Count));
        Assert.Empty(run.Failures);
        Assert.Equal(run.Frames, heard.Frames);
        Assert.Equal(run.Frames.Select(frame => frame.Shown).Order(), run.Frames.Select(frame => frame.Shown));
        Assert.Equal(run.Frames[^1].Shown, new StepOutcome(StepRole.Only, run).Wrote);
        Assert.Contains(run.Loads, load => load.Kind == LoadKind.OwnEncode);
        Assert.Contains(run.Loads, load => load is { Kind: LoadKind.OwnDecode, Value: > 0 });
        Assert.Empty(Directory.GetFileSystemEntries(homes));
    }

    [Fact]
    public async Task One_that_is_stopped_keeps_what_was_written_till_then_as_a_run_without_a_time()
    {
        using var stop = new CancellationTokenSource();

        var run = await Playback().PlayAsync(Plan(ExportFormat.Hevc, 1000, "hd-avc-25"), new Heard(5, stop.Cancel), stop.Token);

        Assert.Equal(RunEnding.Stopped, run.Ending);
        Assert.InRange(run.Frames.Count, 5, 999);
        Assert.Null(new StepOutcome(StepRole.Only, run).Wrote);
        Assert.Empty(Directory.GetFileSystemEntries(homes));
    }

    [Fact]
    public async Task A_clip_that_is_gone_ends_it_and_is_named()
    {
        var plan = Plan(ExportFormat.Avc, 5, "hd-avc-25");
        var missing = await Assert.ThrowsAsync<MediaException>(() => new ExportPlayback(Program(), new Gone(), Effects, homes)
            .PlayAsync(plan, new Heard(int.MaxValue, () => { }), CancellationToken.None));

        Assert.Contains("is gone", missing.Message, StringComparison.Ordinal);
        Assert.Empty(Directory.GetFileSystemEntries(homes));
    }

    [Fact]
    public async Task What_no_drive_has_room_for_is_refused_before_anything_is_written()
    {
        var plan = Plan(ExportFormat.Rdd36, 12, "hd-avc-25");
        var long8K = plan with
        {
            Timeline = plan.Timeline with
            {
                Raster = new Raster(7680, 4320),
                Passages = [.. Enumerable.Repeat(plan.Timeline.Passages[0] with { FrameCount = 90_000 }, 20)],
            },
        };
        var heard = new Heard(int.MaxValue, () => { });

        var refused = await Assert.ThrowsAsync<PlanRefusedException>(() => Playback().PlayAsync(long8K, heard, CancellationToken.None));

        Assert.Contains("Make room, or export a shorter timeline.", refused.Message, StringComparison.Ordinal);
        Assert.False(heard.HasStarted);
    }

    /// <summary>A file with a frame too few, of another format, and of no pictures at all.</summary>
    [Fact]
    public async Task A_file_that_is_not_what_was_asked_for_is_found_out()
    {
        var clip = clips.Clips["hd-avc-25"];
        var path = clips.PathOf(clip);
        var avc = new Export(ExportFormat.Avc);
        var broken = Path.Combine(TestData.NewFolder(), "broken.mp4");
        await File.WriteAllBytesAsync(broken, (await File.ReadAllBytesAsync(path, CancellationToken.None))[..2000], CancellationToken.None);

        Assert.Null(await Wrong(path, avc, clip.FrameCount));
        Assert.Equal(
            $"The export has {clip.FrameCount} frames instead of {clip.FrameCount + 1}.", await Wrong(path, avc, clip.FrameCount + 1));
        Assert.Contains("and should be HEVC 10-bit 4:2:0", await Wrong(path, new Export(ExportFormat.Hevc), clip.FrameCount));
        Assert.StartsWith("The export cannot be played: ", await Wrong(broken, avc, clip.FrameCount), StringComparison.Ordinal);

        Task<string?> Wrong(string file, Export export, long frames) =>
            ExportFile.WrongAsync(file, export, clip.Format.Raster, clip.Format.Rate, frames, CancellationToken.None);
    }

    private ExportPlayback Playback() => new(Program(), clips, Effects, homes);

    private PlayerProgram Program() => new([clips.Path], homes);

    private PlaybackPlan Plan(ExportFormat format, int frames, params string[] ids) => new(
        new Timeline("t", "T", Small, Rate, [.. ids.Select(id => new Passage(id, frames, [new Layer(id, [])], []))]),
        clips.Clips,
        new Machine(
            "here", "This", MachineKind.Real, string.Empty, new Processor("p", 2, 2, null, null), [], [],
            new Memory(8, 1, null, null), [], null, null),
        new PlaybackSettings(Policy: PlayingPolicy.Unpaced))
    {
        Subject = new Export(format),
    };

    private sealed class Gone : IClipFiles
    {
        public string PathOf(Clip clip) => throw new MediaException($"{clip.Title} is gone.");
    }

    private sealed class Heard(int after, Action then) : IRunObserver
    {
        private bool isDone;

        public bool HasStarted { get; private set; }

        public List<FrameRecord> Frames { get; } = [];

        public void Started(RunHeader header) => HasStarted = true;

        public void Progressed(RunProgress progress)
        {
            Frames.AddRange(progress.Frames);
            if (Frames.Count >= after && !isDone)
            {
                isDone = true;
                then();
            }
        }
    }
}
