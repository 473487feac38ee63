using System.Text.Json.Nodes;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Trials;
using HardyBench.Server.Plays;
using HardyBench.Store;
using Microsoft.Extensions.DependencyInjection;

namespace HardyBench.Server.Tests;

/// <summary>Whatever one trial is like, those behind it are played.</summary>
public sealed class QueueTests : ServerTest
{
    [Fact]
    public async Task A_trial_whose_machine_is_gone_and_one_that_cannot_be_read_hold_nobody_up()
    {
        var (gone, broken, good) = (await AskedAsync(), await AskedAsync(), await AskedAsync());
        await using (var database = new BenchDatabaseFactory(Bench.Folder.Database).CreateDbContext())
        {
            var one = (await database.Trials.FindAsync(gone))!;
            one.Json = one.Json.Replace("curlew-desk", "gone-desk", StringComparison.Ordinal);
            (await database.Trials.FindAsync(broken))!.Json = "{ not json";
            await database.SaveChangesAsync();
        }

        // Another server finds them waiting, as the next start would.
        await using var next = BenchServer.Create(Bench, "http://127.0.0.1:0");
        await next.StartAsync();
        using var client = new HttpClient { BaseAddress = new Uri(next.Urls.First()) };
        for (var i = 0; i < 12_000 && (await StateAsync(client, good)).State is "waiting" or "playing"; i++)
        {
            await Task.Delay(50);
        }

        Assert.Equal("finished", (await StateAsync(client, good)).State);
        var (state, problem) = await StateAsync(client, gone);
        Assert.Equal("failed", state);
        Assert.Contains("no machine 'gone-desk'", problem, StringComparison.Ordinal);
        var health = JsonNode.Parse(await client.GetStringAsync("/api/health"))!;
        Assert.Equal((true, 0), ((bool)health["queueLives"]!, (int)health["waiting"]!));
    }

    /// <summary>A trial of this machine has to wait until nothing loads it; a stand-in need not, so it is not held up by being asked
    /// later.</summary>
    [Fact]
    public async Task A_stand_in_passes_a_trial_that_waits_for_this_machine()
    {
        var turn = Services.GetRequiredService<ThisMachineInUse>().TryTake("clips are being created")!;
        await AskAsync(HereId);
        await AskAsync("curlew-desk");

        var passed = await WaitAsync(play => (string)play["machineId"]! == "curlew-desk" && !(bool)play["running"]!);
        Assert.Equal(HereId, (string)Assert.Single(passed["waiting"]!.AsArray())!["machineId"]!);
        Assert.Equal("clips are being created", (string)passed["waitsFor"]!);

        turn.Dispose();
        await WaitAsync(play => (string)play["machineId"]! == HereId && (int)play["frames"]! > 10);
        await Http.DeleteAsync("/api/play");
        await WaitAsync(play => !(bool)play["running"]!);
    }

    private async Task<long> AskedAsync() =>
        (await Bench.Trials.AskAsync(new PlayTrial(), "touring-night", "curlew-desk", new PlaybackSettings())).Id;

    private static async Task<(string State, string? Problem)> StateAsync(HttpClient client, long id)
    {
        var trial = JsonNode.Parse(await client.GetStringAsync("/api/trials"))!.AsArray().Single(one => (long)one!["id"]! == id)!;
        return ((string)trial["state"]!, (string?)trial["problem"]);
    }
}
