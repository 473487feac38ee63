using HardyBench.Core.Footage;
using HardyBench.Media.Clips;

namespace HardyBench.Media.Tests.Clips;

/// <summary>A clip that somebody deletes is kept for a month and can be restored until then.</summary>
public sealed class DeletedClipTests
{
    private readonly string folder = TestData.NewFolder("deleted");

    [Fact]
    public async Task A_deleted_clip_is_nowhere_until_it_is_brought_back_with_its_name()
    {
        var own = new OwnClips(folder, null);
        var clip = await TakenAsync(own);
        var file = own.FileOf(clip.Id)!;
        Assert.True(own.IsImported(clip.Id));

        own.Delete(clip.Id);
        await own.LookAsync(CancellationToken.None);

        Assert.Empty(own.Clips);
        Assert.Empty(own.Refused);
        Assert.False(File.Exists(file));

        // Another program has it too once it is back, name and all.
        Assert.Equal(clip, own.Restore(clip.Id) with { Caveats = clip.Caveats, Track = clip.Track });
        var later = new OwnClips(folder, null);
        await later.LookAsync(CancellationToken.None);
        Assert.Equal("show.mp4", Assert.Single(later.Clips.Values).Title);
        Assert.Contains("was removed for good", Assert.Throws<MediaException>(() => own.Restore(clip.Id)).Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Only_what_was_brought_in_can_be_deleted()
    {
        var watched = TestData.NewFolder("watched");
        var clips = await TestData.ClipsAsync();
        File.Copy(clips.PathOf(clips.Clips["hd-avc-25"]), Path.Combine(watched, "theirs.mp4"));
        var own = new OwnClips(folder, watched);
        await own.LookAsync(CancellationToken.None);
        var theirs = Assert.Single(own.Clips.Values);

        Assert.Contains(
            "theirs.mp4 was not imported here",
            Assert.Throws<MediaException>(() => own.Delete(theirs.Id)).Message,
            StringComparison.Ordinal
        );
        Assert.Throws<MediaException>(() => own.Delete("../../etc/passwd"));
        Assert.Throws<MediaException>(() => own.Restore("../../etc/passwd"));
        Assert.True(File.Exists(Path.Combine(watched, "theirs.mp4")));
        Assert.False(own.IsImported(theirs.Id));
    }

    [Fact]
    public async Task It_is_cleared_away_once_it_was_put_aside_long_enough_ago()
    {
        var own = new OwnClips(folder, null);
        var clip = await TakenAsync(own);
        own.Delete(clip.Id);

        own.RemoveDeletedBefore(DateTime.UtcNow - TimeSpan.FromHours(1));
        own.Restore(clip.Id);
        own.Delete(clip.Id);
        own.RemoveDeletedBefore(DateTime.UtcNow + TimeSpan.FromHours(1));

        Assert.Throws<MediaException>(() => own.Restore(clip.Id));
        Assert.Empty(Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories));
    }

    private static async Task<Clip> TakenAsync(OwnClips own)
    {
        var clips = await TestData.ClipsAsync();
        var copy = Path.Combine(TestData.NewFolder("in"), "x");
        File.Copy(clips.PathOf(clips.Clips["hd-avc-25"]), copy);
        return await own.TakeAsync(copy, "show.mp4", CancellationToken.None);
    }
}
