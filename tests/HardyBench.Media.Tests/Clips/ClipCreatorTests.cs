using System.Diagnostics;
using System.Globalization;
using System.Security.Cryptography;
using HardyBench.Core.Footage;
using HardyBench.Media.Clips;

namespace HardyBench.Media.Tests.Clips;

public sealed class ClipCreatorTests
{
    private static readonly ClipRecipe Tiny = StarterPack.Small[0] with { Id = "tiny", FrameCount = 10 };

    /// <summary>Whole clips: rate control that depends on the order in which threads finish differs in one frame of many.</summary>
    [Theory]
    [InlineData("hd-avc-25")]
    [InlineData("uhd-hevc-25")]
    public async Task The_same_recipe_gives_the_same_file(string id)
    {
        var recipe = StarterPack.Small.Single(recipe => recipe.Id == id);

        Assert.Equal((await TestData.ClipsAsync()).Made(recipe)!.Sha256, (await MakeAsync(recipe)).Made(recipe)!.Sha256);
    }

    /// <summary>Sizes as ffprobe reads them from the file. Without a buffer the first frames have three to six times the mean.</summary>
    [Theory]
    [InlineData("hd-avc-25")]
    [InlineData("uhd-hevc-25")]
    public async Task No_five_frames_of_a_long_GOP_are_larger_than_twice_the_mean(string id)
    {
        var folder = await TestData.ClipsAsync();
        var path = folder.FileOf(StarterPack.Small.Single(recipe => recipe.Id == id));
        var sizes = (await OutputOf("ffprobe", "-v", "error", "-show_entries", "packet=size", "-of", "csv=p=0", path))
            .Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(line => double.Parse(line.Trim(','), CultureInfo.InvariantCulture))
            .ToList();

        Assert.Equal(50, sizes.Count);
        Assert.All(sizes.Chunk(5), five => Assert.InRange(five.Average(), 0.2 * sizes.Average(), 2 * sizes.Average()));
    }

    [Fact]
    public async Task A_made_clip_is_measured_and_leaves_nothing_half_made()
    {
        var folder = await MakeAsync(Tiny);
        var made = folder.Made(Tiny)!;
        var file = await File.ReadAllBytesAsync(folder.FileOf(Tiny));

        Assert.Equal((10, Tiny.Raster, Codec.Avc), (made.FrameCount, made.Format.Raster, made.Format.Codec));
        Assert.Equal(Convert.ToHexStringLower(SHA256.HashData(file)), made.Sha256);
        Assert.Equal(file.Length * 8 / 0.4, made.Format.DataRate.BitsPerSecond, 1.0);
        Assert.Empty(Directory.GetFiles(folder.Path, "*.part*"));
        Assert.Empty(folder.Missing(Ids(folder)));
    }

    [Fact]
    public async Task Cancelling_keeps_finished_clips_and_leaves_no_part()
    {
        using var stop = new CancellationTokenSource();
        var folder = new ClipFolder(TestData.NewFolder(), [Tiny, Tiny with { Id = "second", FrameCount = 400 }]);
        var progress = new Watch(report =>
        {
            if (report.Done == 1)
            {
                stop.Cancel();
            }
        });

        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => new ClipCreator(folder).MakeAsync(Ids(folder), progress, stop.Token));

        Assert.Equal(["second"], folder.Missing(Ids(folder)).Select(recipe => recipe.Id));
        Assert.Empty(Directory.GetFiles(folder.Path, "*.part*"));
    }

    [Fact]
    public async Task No_room_is_said_before_anything_is_done()
    {
        var folder = new ClipFolder(TestData.NewFolder(), [Tiny with { FrameCount = 2_000_000_000 }]);

        var error = await Assert.ThrowsAsync<CreationException>(() =>
            new ClipCreator(folder).MakeAsync(Ids(folder), null, CancellationToken.None)
        );

        Assert.Contains("Nothing was changed", error.Message, StringComparison.Ordinal);
        Assert.Empty(Directory.GetFiles(folder.Path));
    }

    [Fact]
    public void A_recipe_that_changes_changes_its_file_name()
    {
        Assert.NotEqual(Tiny.FileName, (Tiny with { GopLength = 12 }).FileName);
        Assert.Equal(Tiny.Digest, (Tiny with { Title = "another title" }).Digest);
    }

    [Fact]
    public void The_master_is_the_same_picture_at_25_and_at_50_frames_a_second()
    {
        var (r25, r50) = (new FrameRate(25), new FrameRate(50));
        var master = new StageMaster(new Raster(320, 180), MasterLook.Plain);
        var (one, other) = (new ushort[master.PictureBytes / 2], new ushort[master.PictureBytes / 2]);

        master.Draw((int)(r25.StartOf(7) * StageMaster.TicksPerSecond / TimeSpan.FromSeconds(1)), null, one);
        master.Draw((int)(r50.StartOf(14) * StageMaster.TicksPerSecond / TimeSpan.FromSeconds(1)), null, other);

        Assert.Equal(one, other);
        Assert.InRange(one.Max(), 200, 960);
    }

    private static async Task<string> OutputOf(string program, params string[] arguments)
    {
        using var running = Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true })!;
        return await running.StandardOutput.ReadToEndAsync();
    }

    private static string[] Ids(ClipFolder folder) => [.. folder.Recipes.Select(recipe => recipe.Id)];

    private static async Task<ClipFolder> MakeAsync(ClipRecipe recipe)
    {
        var folder = new ClipFolder(TestData.NewFolder(), [recipe]);
        await new ClipCreator(folder).MakeAsync(Ids(folder), null, CancellationToken.None);
        return folder;
    }

    private sealed class Watch(Action<CreationProgress> report) : IProgress<CreationProgress>
    {
        public void Report(CreationProgress value) => report(value);
    }
}
