using HardyBench.Media.Clips;
using HardyBench.Server.Background;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging.Abstractions;

namespace HardyBench.Server.Tests.Background;

public sealed class BackgroundWorkTests : ServerTest
{
    private static readonly string[] Wanted = ["sd-avc-25", "hd-avc-25-gop12"];

    private readonly List<string> done = [];

    /// <summary>Clips of its own: those of the other tests stay as they are.</summary>
    protected override Task PrepareAsync(Bench bench)
    {
        Directory.Delete(bench.Folder.Clips);
        Directory.CreateDirectory(bench.Folder.Clips);
        return Task.CompletedTask;
    }

    [Fact]
    public async Task What_is_asked_for_while_other_work_is_done_is_done_after_it()
    {
        var work = Work();
        var goOn = new TaskCompletionSource();
        var first = work.Add(1, (_, _) => Note("first", goOn.Task));
        var second = work.Add(1, (_, _) => Note("second"));
        Assert.False(first.IsCompleted);
        goOn.SetResult();
        await Task.WhenAll(first, second);

        Assert.Equal(["first", "second"], done);
        Assert.False(work.Now.Running);
        Assert.Null(work.Now.Problem);
        await work.Add(1, (_, _) => Note("third"));
        Assert.Equal("third", done[^1]);
    }

    [Fact]
    public async Task A_request_that_fails_says_why_and_does_not_stop_those_behind_it()
    {
        var work = Work();
        var goOn = new TaskCompletionSource();
        var failing = work.Add(1, async (_, _) =>
        {
            await goOn.Task;
            throw new IOException("No space left on device.");
        });
        _ = work.Add(1, (_, _) => Note("behind it"));
        goOn.SetResult();
        await failing;

        Assert.Equal(["behind it"], done);
        Assert.Contains("No space left on device. What was saved before is kept. Free some space", work.Now.Problem, StringComparison.Ordinal);
        Assert.False(work.Now.WasCancelled);
    }

    [Fact]
    public async Task What_waits_is_cancelled_with_what_is_being_done()
    {
        var work = Work();
        var begun = new TaskCompletionSource();
        var cancelled = work.Add(1, async (_, stop) =>
        {
            begun.SetResult();
            await Task.Delay(Timeout.Infinite, stop);
        });
        _ = work.Add(1, (_, _) => Note("never"));
        await begun.Task;
        work.Cancel();
        await cancelled;

        Assert.Empty(done);
        Assert.True(work.Now.WasCancelled);
        Assert.Equal("What was finished stays.", work.Now.Problem);
        await work.Add(1, (_, _) => Note("asked for later"));
        Assert.Equal(["asked for later"], done);
        Assert.False(work.Now.WasCancelled);
    }

    [Fact]
    public async Task It_waits_for_its_turn_and_gives_it_back()
    {
        var (work, inUse) = (Work(), Services.GetRequiredService<ThisMachineInUse>());
        var turn = inUse.TryTake("something is played");
        var waiting = work.Add(3, (_, _) => Note("after the play"));

        Assert.True(work.Now.Running);
        Assert.Equal(3, work.Now.Of);
        Assert.Empty(done);
        turn!.Dispose();
        await waiting;
        Assert.Equal(["after the play"], done);
        Assert.False(inUse.IsTaken);
    }

    [Fact]
    public async Task Clips_asked_for_while_others_are_created_are_created_too()
    {
        var inUse = Services.GetRequiredService<ThisMachineInUse>();
        var turn = inUse.TryTake("something is played");
        Assert.Equal(Wanted.Length, Bench.Clips.Missing(Wanted).Count);
        foreach (var id in Wanted)
        {
            await PostAsync("/api/clips/making", new { ids = Wanted.Where(one => one == id) });
        }

        turn!.Dispose();
        while ((bool)(await GetAsync("/api/clips/making"))["running"]!)
        {
            await Task.Delay(50, TestContext.Current.CancellationToken);
        }

        Assert.Null((string?)(await GetAsync("/api/clips/making"))["problem"]);
        Assert.Empty(Bench.Clips.Missing(Wanted));
    }

    private async Task Note(string what, Task? until = null)
    {
        await (until ?? Task.CompletedTask);
        done.Add(what);
    }

    private BackgroundWork Work() => new(
        new WorkKind("work is done", IsMeasured: false, "What was finished stays.", TimeSpan.Zero, (page, now) => page.Making(now)),
        Services.GetRequiredService<ThisMachineInUse>(), Services.GetRequiredService<LiveFeed>(),
        Services.GetRequiredService<IHostApplicationLifetime>(), NullLogger.Instance, TimeProvider.System);
}
