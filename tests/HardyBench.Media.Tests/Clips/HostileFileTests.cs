using System.Diagnostics;
using HardyBench.Core.Footage;
using HardyBench.Media.Clips;

namespace HardyBench.Media.Tests.Clips;

/// <summary>Files that mean harm, or merely are broken, each get their error and keep nobody else out.</summary>
public sealed class HostileFileTests
{
    private readonly string folder = TestData.NewFolder("hostile");

    [Fact]
    public Task A_file_cut_off_in_its_index() => RefusedAsync("contains no video", async path =>
    {
        var whole = await File.ReadAllBytesAsync(await GoodAsync());
        await File.WriteAllBytesAsync(path, whole[..300]);
    });

    [Fact]
    public Task A_zip_bomb_named_mp4() => RefusedAsync("could not be read as a clip", async path =>
    {
        using var zip = System.IO.Compression.ZipFile.Open(path, System.IO.Compression.ZipArchiveMode.Create);
        await using var entry = zip.CreateEntry("zeros").Open();
        var block = new byte[1 << 20];
        for (var i = 0; i < 64; i++)
        {
            await entry.WriteAsync(block);
        }
    });

    /// <summary>Three frames, the last of which is to be shown after three weeks: fifty million slots in four thousand bytes.</summary>
    [Fact]
    public Task A_few_bytes_that_claim_millions_of_frames() => RefusedAsync("so it cannot hold them", async path =>
    {
        using var making = System.Diagnostics.Process.Start(
            "ffmpeg",
            ["-v", "error", "-f", "lavfi", "-i", "testsrc2=s=64x64:r=25", "-frames:v", "3", "-vf",
                "settb=1/1000,setpts='N*40+if(eq(N,2),2000000000,0)'", "-fps_mode", "passthrough", "-enc_time_base", "1/1000", "-c:v",
                "libx264", "-bf", "0", "-f", "matroska", "-y", path])!;
        await making.WaitForExitAsync();
        Assert.Equal(0, making.ExitCode);
    });

    [Fact]
    public Task An_endless_playlist() => RefusedAsync("could not be read as a clip", path => File.WriteAllTextAsync(
        path, "#EXTM3U\n#EXT-X-TARGETDURATION:1\n" + string.Concat(Enumerable.Repeat($"#EXTINF:1,\n{path}\n", 50_000))));

    [Fact]
    public Task A_list_of_other_files() => RefusedAsync("could not be read as a clip", path => File.WriteAllTextAsync(
        path, "ffconcat version 1.0\nfile /etc/passwd\n"));

    [Fact]
    public Task An_absurd_raster() => RefusedAsync("2 to 16384 a side", async path =>
    {
        var header = System.Text.Encoding.ASCII.GetBytes("YUV4MPEG2 W64000 H64 F25:1 Ip A1:1 C420jpeg\nFRAME\n");
        await File.WriteAllBytesAsync(path, [.. header, .. new byte[64000 * 64 * 3 / 2]]);
    });

    [Fact]
    public Task Text() => RefusedAsync("could not be read as a clip", path => File.WriteAllTextAsync(path, "Act two begins at low tide."));

    [Fact]
    public Task An_empty_file() => RefusedAsync("is empty", path => File.WriteAllTextAsync(path, string.Empty));

    [Fact]
    public async Task A_link_out_of_the_folder()
    {
        var good = await GoodAsync();
        await RefusedAsync("leads out of its folder", path =>
        {
            File.CreateSymbolicLink(path, good);
            return Task.CompletedTask;
        });
    }

    [Fact]
    public async Task A_name_with_control_characters()
    {
        var good = await GoodAsync();
        await RefusedAsync("cannot be shown", path =>
        {
            File.Copy(good, path);
            return Task.CompletedTask;
        }, "two\nlines\u001b[31m.mp4");
    }

    [Fact]
    public Task Four_gigabytes_of_nothing() => RefusedAsync("could not be read as a clip", path =>
    {
        using var file = File.Create(path);
        file.SetLength(4L << 30);
        return Task.CompletedTask;
    });

    [Fact]
    public async Task Good_files_are_read_as_they_are_with_their_caveats()
    {
        var interlaced = Path.Combine(folder, "b-interlaced.ts");
        using (
            var ffmpeg = Process.Start(
                "ffmpeg",
                "-v error -f lavfi -i testsrc2=s=352x288:r=25:d=0.4 -c:v mpeg2video -flags +ilme+ildct -pix_fmt yuv420p -f mpegts "
                    + $"{interlaced}"
            )
        )
        {
            await ffmpeg.WaitForExitAsync();
        }

        File.Copy(await GoodAsync(), Path.Combine(folder, "a good.mp4"));
        var own = new OwnClips(TestData.NewFolder("own"), folder);

        await own.LookAsync(CancellationToken.None);

        Assert.Empty(own.Refused);
        var (good, other) = (
            own.Clips.Values.Single(clip => clip.Title == "a good.mp4"),
            own.Clips.Values.Single(clip => clip.Title == "b-interlaced.ts")
        );
        Assert.StartsWith("a-good-", good.Id, StringComparison.Ordinal);
        Assert.Equal((Codec.Avc, 50, "640×360 25"), (good.Format.Codec, good.FrameCount, good.Format.RasterAndRate));
        Assert.Empty(good.Caveats!);
        Assert.Contains("no index, so seeking is not exact", other.Caveats!);
        Assert.Equal(Path.Combine(folder, "a good.mp4"), own.FileOf(good.Id));
    }

    [Fact]
    public async Task A_file_taken_in_is_moved_and_never_takes_another_s_place()
    {
        var own = new OwnClips(folder, null);
        foreach (var id in new[] { "hd-avc-25", "hd-avc-50" })
        {
            var copy = Path.Combine(TestData.NewFolder("in"), "x");
            var clips = await TestData.ClipsAsync();
            File.Copy(clips.PathOf(clips.Clips[id]), copy);
            await own.TakeAsync(copy, "../../show.mp4", CancellationToken.None);
            Assert.False(File.Exists(copy));
        }

        Assert.Equal(["show.mp4", "show.mp4"], own.Clips.Values.Select(clip => clip.Title));
        Assert.All(own.Clips.Values, clip => Assert.Equal(Path.Combine(folder, $"{clip.Sha256}.mp4"), own.FileOf(clip.Id)));
        await Assert.ThrowsAsync<MediaException>(() => own.TakeAsync("/dev/null", "a\nb", CancellationToken.None));
    }

    private async Task RefusedAsync(string words, Func<string, Task> make, string name = "hostile.mp4")
    {
        File.Copy(await GoodAsync(), Path.Combine(folder, "good.mp4"));
        await make(Path.Combine(folder, name));
        var own = new OwnClips(TestData.NewFolder("own"), folder);

        await own.LookAsync(CancellationToken.None);

        Assert.Contains(words, Assert.Single(own.Refused).Why, StringComparison.Ordinal);
        Assert.Equal("good.mp4", Assert.Single(own.Clips.Values).Title);
    }

    private static async Task<string> GoodAsync()
    {
        var clips = await TestData.ClipsAsync();
        return clips.PathOf(clips.Clips["hd-avc-25"]);
    }
}
