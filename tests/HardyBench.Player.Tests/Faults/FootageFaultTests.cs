using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Wording;
using HardyBench.Media.Clips;
using HardyBench.Player.Tests.Playing;

namespace HardyBench.Player.Tests.Faults;

/// <summary>Footage that goes bad while it plays.</summary>
public sealed class FootageFaultTests
{
    [Fact]
    public async Task A_clip_that_vanishes_in_mid_run_fails_its_passage_and_the_rest_plays_on()
    {
        var copy = await CopyAsync("hd-avc-25", bytes => bytes);
        var passages = (Passage[])[Of("first", "hd-mezz-25", 75), Of("gone by then", "hd-avc-25", 25), Of("last", "hd-mezz-25", 25)];
        var observer = new Notes { OnProgress = () => File.Delete(copy) };

        var run = await PlayAsync(passages, copy, observer);

        var failure = Assert.Single(run.Failures);
        Assert.Equal((1, false), (failure.PassageIndex, failure.Overcome));
        Assert.Contains("No such file", failure.Message, StringComparison.Ordinal);
        Assert.Equal(125, run.Frames.Count);
        Assert.All(run.Frames.Skip(75).Take(25), frame => Assert.Equal(DropReason.PassageFailed, frame.Reason));
        Assert.Contains(run.Frames.Skip(100), frame => frame.Shown is not null);
    }

    [Fact]
    public async Task A_decoder_that_reports_errors_in_mid_stream_is_heard_and_playing_goes_on()
    {
        var copy = await CopyAsync("hd-avc-25", bytes =>
        {
            // Disturbance from a third to a half of the file; the index stands in front.
            new Random(3).NextBytes(bytes.AsSpan(bytes.Length / 3, bytes.Length / 6));
            return bytes;
        });

        var run = await PlayAsync([Of("disturbance", "hd-avc-25", 50), Of("after", "hd-mezz-25", 25)], copy, new Notes());

        Assert.All(run.Failures, one => Assert.Equal((0, true), (one.PassageIndex, one.Overcome)));
        // Pictures that could not be decoded are missing, which is said of the file too.
        Assert.Contains(
            run.Failures,
            one => one.Message.Contains("have no picture of their own; the picture before stayed on", StringComparison.Ordinal)
        );
        var failure = run.Failures[0];
        Assert.Matches(
            "^the decoder reported (an error|\\d+ errors) in copy.mp4, from its frame \\d+ on; what it could decode was shown$",
            failure.Message
        );
        Assert.Contains($"passage 1: {failure.Message}", RunWords.NotesOf(run));
        Assert.Equal(75, run.Frames.Count);
        Assert.NotNull(run.Frames[0].Shown);
        Assert.NotEqual(Limiter.Clip, RunFindings.Of(run)[0].Limiter?.Limiter);
    }

    private static Passage Of(string question, string clip, int frames) => new(question, frames, [new Layer(clip, [])], []);

    private static async Task<Run> PlayAsync(IReadOnlyList<Passage> passages, string copy, IRunObserver observer) => await Plans.PlayAsync(
        await Plans.PlanAsync(
            new Timeline("t", "T", Raster.Hd.DividedBy(3), new FrameRate(25), passages),
            new PlaybackSettings(Policy: PlayingPolicy.KeepFrames)
        ),
        files: new Elsewhere(await TestData.ClipsAsync(), copy), observer: observer);

    private static async Task<string> CopyAsync(string id, Func<byte[], byte[]> change)
    {
        var clips = await TestData.ClipsAsync();
        var copy = Path.Combine(TestData.NewFolder("copy"), "copy.mp4");
        await File.WriteAllBytesAsync(copy, change(await File.ReadAllBytesAsync(clips.PathOf(clips.Clips[id]))));
        return copy;
    }

    private sealed class Elsewhere(ClipFolder clips, string copy) : IClipFiles
    {
        public string PathOf(Clip clip) => clip.Id == "hd-avc-25" ? copy : clips.PathOf(clip);
    }
}
