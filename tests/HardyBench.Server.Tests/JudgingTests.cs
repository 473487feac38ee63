using System.Text.Json.Nodes;
using HardyBench.Core.Playback;
using HardyBench.Workbench;
using Microsoft.Data.Sqlite;

namespace HardyBench.Server.Tests;

/// <summary>After an update that changed the rules, the server answers at once and judges earlier runs meanwhile.</summary>
public sealed class JudgingTests : ServerTest
{
    private const int Runs = 6;

    protected override async Task PrepareAsync(Bench bench)
    {
        var plan = await bench.Plays.PlanAsync("touring-night", "curlew-desk", new PlaybackSettings());
        for (var run = 0; run < Runs; run++)
        {
            await bench.Plays.PlayAsync(plan, null, CancellationToken.None);
        }

        await using var connection = new SqliteConnection($"Data Source={bench.Folder.Database}");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        // As by rules that found nothing.
        command.CommandText = "UPDATE Runs SET Rules = 0; DELETE FROM PassageEntity; UPDATE Runs SET LagsJson = '7' WHERE Id = 2";
        await command.ExecuteNonQueryAsync();
    }

    [Fact]
    public async Task Runs_of_earlier_rules_are_judged_while_the_server_answers()
    {
        for (var tried = 0; (int)(await GetAsync("/api/judging"))["done"]! < Runs; tried++)
        {
            Assert.InRange(tried, 0, 12_000);
            await Task.Delay(50);
        }

        Assert.Equal(Runs, (int)(await GetAsync("/api/judging"))["of"]!);
        Assert.Empty(await Bench.RunJudging.ToJudgeAsync());
        var judged = (await GetAsync("/api/runs")).AsArray().ToDictionary(run => (long)run!["id"]!, run => run!);
        Assert.Equal([1L, 3, 4, 5, 6], judged.Where(run => run.Value["verdicts"]!.AsArray().Count == 8).Select(run => run.Key).Order());
        Assert.Equal("unreadable", (string)judged[2]["ending"]!);
        Assert.Equal(2, (long)Assert.Single((await GetAsync("/api/health"))["damagedRuns"]!.AsArray())!["id"]!);
    }
}
