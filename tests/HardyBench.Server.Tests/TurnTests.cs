using System.Net;
using System.Text.Json.Nodes;
using HardyBench.Server.Plays;

namespace HardyBench.Server.Tests;

/// <summary>Nothing that loads this machine runs beside anything else that does.</summary>
public sealed class TurnTests : ServerTest
{
    [Fact]
    public async Task Rendering_asked_for_during_a_play_on_this_machine_waits_until_it_is_over()
    {
        await AskAsync(HereId);
        await WaitAsync(play => (int)play["frames"]! > 10);

        var rendering = await PostAsync("/api/timelines/touring-night/renders", new { });
        await Task.Delay(1000);
        var meanwhile = (await RendersAsync()).Count(render => render!["megabytes"] is not null);
        var stillPlaying = (bool)(await GetAsync("/api/play"))["running"]!;
        await Http.DeleteAsync("/api/play");

        Assert.Equal((true, "when what works on this machine has ended"), ((bool)rendering["running"]!, (string)rendering["clip"]!));
        Assert.Equal((true, 0), (stillPlaying, meanwhile));
        for (var i = 0; i < 300 && (await RendersAsync()).All(render => render!["megabytes"] is null); i++)
        {
            await Task.Delay(100);
        }

        Assert.Contains(await RendersAsync(), render => render!["megabytes"] is not null);
    }

    [Fact]
    public async Task A_brief_is_not_reckoned_while_this_machine_is_measured()
    {
        await AskAsync(HereId);
        await WaitAsync(play => (int)play["frames"]! > 10);

        var brief = new JsonObject { ["id"] = "", ["name"] = "Asked", ["timelines"] = new JsonArray("touring-night") };
        var refused = await Http.PostAsync("/api/briefs/answer", Json(brief));
        await Http.DeleteAsync("/api/play");

        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Contains("being measured", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        await WaitAsync(play => !(bool)play["running"]!);
        for (var n = 0; n < 100 && !(await Http.PostAsync("/api/briefs/answer", Json(brief))).IsSuccessStatusCode; n++)
        {
            await Task.Delay(100);
        }

        Assert.Equal(HttpStatusCode.OK, (await Http.PostAsync("/api/briefs/answer", Json(brief))).StatusCode);
    }

    [Fact]
    public async Task A_turn_is_given_back_once_however_often_it_is_disposed()
    {
        using var machine = new ThisMachineInUse();
        var first = machine.TryTake("a")!;

        Assert.Null(machine.TryTake("a"));
        first.Dispose();
        first.Dispose();
        using var second = await machine.TakeAsync("b", CancellationToken.None);
        Assert.True(machine.IsTaken);
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => machine.TakeAsync("c", new CancellationToken(canceled: true)));
    }

    [Fact]
    public async Task Nothing_is_measured_while_an_answer_is_computed_and_nothing_is_computed_while_something_is_measured()
    {
        using var machine = new ThisMachineInUse();
        var (first, second) = (machine.TryCompute()!, machine.TryCompute()!);
        using (machine.TryTake("clips are being created"))
        {
            Assert.Equal("clips are being created", machine.WhyNotMeasure);
        }

        Assert.Null(machine.TryTake("a trial", isMeasured: true));
        var waits = machine.TakeAsync("a calibration", CancellationToken.None, isMeasured: true);
        first.Dispose();
        Assert.False(waits.IsCompleted);
        second.Dispose();
        var measured = await waits;

        Assert.Null(machine.TryCompute());
        measured.Dispose();
        Assert.NotNull(machine.TryCompute());
    }

    private async Task<JsonArray> RendersAsync() => (await GetAsync("/api/timelines/touring-night/renders")).AsArray();
}
