using System.Net;
using HardyBench.Server.Clips;

namespace HardyBench.Server.Tests;

/// <summary>Files on their way in.</summary>
public sealed class UploadTests : ServerTest
{
    [Fact]
    public async Task More_bytes_than_declared_are_refused_and_what_came_before_is_kept()
    {
        var place = await BeginUploadAsync(100, "clip.mp4");
        Assert.Equal(HttpStatusCode.NoContent, (await SendAsync(place, 0, new byte[40])).StatusCode);

        var refused = await SendAsync(place, 40, new byte[200_000]);

        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, refused.StatusCode);
        Assert.Contains("kept, at 40 bytes", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Equal(40, new FileInfo(Path.Combine(Bench.Folder.Incoming, place.Split('/')[^1])).Length);
    }

    [Fact]
    public async Task Of_two_who_send_the_same_file_at_once_one_is_told_to_wait()
    {
        var place = await BeginUploadAsync(1000, "clip.mp4");
        using var slow = new HttpRequestMessage(HttpMethod.Patch, place) { Content = new SlowContent() };
        slow.Headers.Add("Upload-Offset", "0");
        var content = (SlowContent)slow.Content;
        var first = Http.SendAsync(slow);
        await content.Begun.Task;
        await WaitForAsync(() => new FileInfo(Path.Combine(Bench.Folder.Incoming, place.Split('/')[^1])).Length == 1);

        using var second = await SendAsync(place, 1, [2]);

        content.GoOn.SetResult();
        Assert.Equal(HttpStatusCode.Conflict, second.StatusCode);
        Assert.Contains("is being uploaded", await second.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NoContent, (await first).StatusCode);
    }

    [Theory]
    [InlineData(255, HttpStatusCode.Created)]
    [InlineData(256, HttpStatusCode.UnprocessableEntity)]
    [InlineData(20_000, HttpStatusCode.UnprocessableEntity)]
    public async Task A_name_that_no_file_can_have_is_refused_before_the_file_is_sent(int letters, HttpStatusCode status) =>
        Assert.Equal(status, (await BeginAsync(100, new string('n', letters))).StatusCode);

    [Theory]
    [InlineData(0L, HttpStatusCode.BadRequest)]
    [InlineData(-5L, HttpStatusCode.BadRequest)]
    [InlineData(1L << 40, HttpStatusCode.RequestEntityTooLarge)]
    [InlineData(long.MaxValue, HttpStatusCode.RequestEntityTooLarge)]
    public async Task A_size_that_there_is_no_room_for_is_refused_before_the_file_is_sent(long bytes, HttpStatusCode status)
    {
        Assert.Equal(status, (await BeginAsync(bytes, "clip.mp4")).StatusCode);
        Assert.Empty(Directory.EnumerateFiles(Bench.Folder.Incoming));
    }

    [Fact]
    public async Task Of_files_that_are_half_sent_there_are_fifty_at_most()
    {
        for (var n = 0; n < 50; n++)
        {
            await BeginUploadAsync(100, $"{n}.mp4");
        }

        Assert.Equal(HttpStatusCode.TooManyRequests, (await BeginAsync(100, "one-more.mp4")).StatusCode);
    }

    [Fact]
    public async Task What_was_half_sent_and_left_goes_after_two_days()
    {
        var (old, fresh) = (await BeginUploadAsync(100, "old.mp4"), await BeginUploadAsync(100, "fresh.mp4"));
        foreach (var file in Directory.EnumerateFiles(Bench.Folder.Incoming, old.Split('/')[^1] + "*"))
        {
            File.SetLastWriteTimeUtc(file, DateTime.UtcNow - UploadRoom.KeptFor - TimeSpan.FromMinutes(1));
        }

        UploadSweep.Sweep(Bench.Folder, DateTimeOffset.UtcNow);

        Assert.Equal(HttpStatusCode.NotFound, (await SendAsync(old, 0, [1])).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await SendAsync(fresh, 0, [1])).StatusCode);
    }

    [Fact]
    public void What_was_half_made_goes_once_nobody_writes_to_it_any_more()
    {
        var (left, beingMade, whole) = (Made("a.part.mp4"), Made("b.part.mov"), Made("c.mp4"));
        foreach (var file in new[] { left, whole })
        {
            File.SetLastWriteTimeUtc(file, DateTime.UtcNow - TimeSpan.FromHours(2));
        }

        UploadSweep.Sweep(Bench.Folder, DateTimeOffset.UtcNow);

        Assert.Equal([false, true, true], new[] { left, beingMade, whole }.Select(File.Exists));

        string Made(string name)
        {
            var file = Path.Combine(Bench.Folder.Aids, name);
            Directory.CreateDirectory(Bench.Folder.Aids);
            File.WriteAllText(file, "x");
            return file;
        }
    }

    private static async Task WaitForAsync(Func<bool> until)
    {
        for (var i = 0; i < 12_000 && !until(); i++)
        {
            await Task.Delay(50);
        }

        Assert.True(until());
    }

    /// <summary>Sends a byte, then waits to be told to go on.</summary>
    private sealed class SlowContent : HttpContent
    {
        public SlowContent() => Headers.ContentType = new("application/offset+octet-stream");

        public TaskCompletionSource Begun { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);

        public TaskCompletionSource GoOn { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);

        protected override async Task SerializeToStreamAsync(Stream stream, TransportContext? context)
        {
            await stream.WriteAsync(new byte[1]);
            await stream.FlushAsync();
            Begun.SetResult();
            await GoOn.Task;
            await stream.WriteAsync(new byte[1]);
        }

        protected override bool TryComputeLength(out long length)
        {
            length = 2;
            return true;
        }
    }
}
