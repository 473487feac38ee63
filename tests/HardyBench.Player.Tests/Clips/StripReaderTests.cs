using System.Diagnostics;
using HardyBench.Core.Footage.Strips;
using HardyBench.Media.Clips;
using HardyBench.Player.Strips;

namespace HardyBench.Player.Tests.Clips;

public sealed class StripReaderTests
{
    private const int Frames = 50;

    [Theory]
    [InlineData("hd-avc-25")]
    [InlineData("uhd-hevc-25")]
    [InlineData("hd-mezz-25")]
    public async Task Every_frame_of_a_made_clip_says_which_it_is(string id) =>
        Assert.Equal(Expected(id), StripReader.Read(await FileAsync(id), Frames, threads: 2));

    /// <summary>As a recording of a screen would come: scaled down to 360 lines, AVC at a low rate, other levels.</summary>
    [Theory]
    [InlineData("-b:v 120k -maxrate 150k -bufsize 300k -preset veryfast", "scale=640:360")]
    [InlineData("-b:v 200k -preset ultrafast", "scale=640:360:flags=neighbor")]
    [InlineData("-b:v 150k -preset veryfast", "scale=480:360,eq=brightness=0.05:contrast=0.7")]
    [InlineData("-crf 38 -preset veryfast", "scale=640:360,fps=50")]
    public async Task Not_one_wrong_number_after_recompression_at_360_lines(string encoder, string filters)
    {
        var file = await AgainAsync("uhd-hevc-25", filters, encoder);
        var doubled = filters.Contains("fps=50", StringComparison.Ordinal);

        var readings = StripReader.Read(file, doubled ? Frames * 2 : Frames, threads: 2).ToList();

        Assert.Equal(Expected("uhd-hevc-25").SelectMany(reading => Enumerable.Repeat(reading, doubled ? 2 : 1)), readings);
    }

    [Theory]
    [InlineData("crop=iw-60:ih:60:0")]
    [InlineData("crop=iw:ih-48:0:0")]
    [InlineData("crop=iw/2:ih/2")]
    [InlineData("eq=contrast=0")]
    [InlineData("noise=alls=100:allf=t,eq=contrast=0.15")]
    [InlineData("hflip")]
    public async Task What_is_cropped_flattened_or_drowned_is_unreadable_rather_than_guessed(string filters)
    {
        var file = await AgainAsync("uhd-hevc-25", filters, "-crf 20 -preset ultrafast");

        Assert.All(StripReader.Read(file, Frames, threads: 2), reading => Assert.Null(reading));
    }

    [Fact]
    public async Task A_recipe_can_leave_it_out()
    {
        var folder = new ClipFolder(TestData.NewFolder(), [StarterPack.Small[0] with { FrameCount = 5, Strip = false }]);
        await new ClipCreator(folder).MakeAsync(["hd-avc-25"], null, CancellationToken.None);

        Assert.All(StripReader.Read(folder.FileOf(folder.Recipes[0]), 5, threads: 1), reading => Assert.Null(reading));
    }

    private static IEnumerable<StripReading?> Expected(string id) =>
        Enumerable.Range(0, Frames).Select(frame => (StripReading?)new StripReading(IndexStrip.TagOf(id), frame));

    private static async Task<string> FileAsync(string id)
    {
        var clips = await TestData.ClipsAsync();
        return clips.PathOf(clips.Clips[id]);
    }

    private static async Task<string> AgainAsync(string id, string filters, string encoder)
    {
        var file = Path.Combine(TestData.NewFolder("strip"), "again.mp4");
        var start = new ProcessStartInfo("ffmpeg")
        {
            ArgumentList = { "-v", "error", "-i", await FileAsync(id), "-vf", filters, "-c:v", "libx264" },
        };
        foreach (var argument in (string[])[.. encoder.Split(' '), "-pix_fmt", "yuv420p", file])
        {
            start.ArgumentList.Add(argument);
        }

        using var ffmpeg = Process.Start(start)!;
        await ffmpeg.WaitForExitAsync();
        Assert.Equal(0, ffmpeg.ExitCode);
        return file;
    }
}
