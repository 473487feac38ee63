using System.Data.Common;
using System.Net;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace HardyBench.Server.Tests;

/// <summary>The drive with the data fills up while a trial plays and others wait.</summary>
public sealed class FullDriveQueueTests : ServerTest
{
    private readonly FullDrive drive = new();

    protected override IInterceptor[] Interceptors => [drive];

    [Fact]
    public async Task The_queue_waits_for_room_says_why_and_goes_on_by_itself()
    {
        var timeline = await ThreeSecondsAsync();
        await PostAsync(
            "/api/play", new { timelineId = timeline, machineId = "curlew-desk", atClock = true });
        await AskAsync("curlew-desk");
        await AskAsync("gannet-tower");
        await WaitAsync(play => (long?)play["runId"] == 1);
        drive.IsFull = true;
        var problem = await ProblemAsync(wanted: true);

        Assert.Contains("full", problem, StringComparison.Ordinal);
        Assert.Contains("Free some space", problem, StringComparison.Ordinal);
        Assert.Equal(["playing", "waiting", "waiting"], await StatesAsync());
        var (status, words) = await RefusedAsync(
            "/api/play", new { timelineId = "touring-night", machineId = "curlew-desk" });
        Assert.Equal(HttpStatusCode.InsufficientStorage, status);
        Assert.Contains("full", words, StringComparison.Ordinal);

        drive.IsFull = false;
        await ProblemAsync(wanted: false);
        await WaitAsync(play => !(bool)play["running"]! && play["waiting"]!.AsArray().Count == 0);

        Assert.Equal(["finished", "finished", "finished"], await StatesAsync());
        Assert.All((await GetAsync("/api/runs")).AsArray(), run => Assert.Equal("finished", (string)run!["ending"]!));
        Assert.Equal(3, (await GetAsync("/api/runs")).AsArray().Count);
    }

    /// <returns>The id of a timeline with the first passage of another.</returns>
    private async Task<string> ThreeSecondsAsync()
    {
        var whole = (await GetAsync("/api/timelines/touring-night"))["timeline"]!;
        var made = await PostAsync("/api/timelines", new { title = "Short" });
        var timeline = made["timeline"]!;
        timeline["passages"] = new JsonArray(whole["passages"]![0]!.DeepClone());
        var change = new JsonObject { ["version"] = made["version"]!.DeepClone(), ["timeline"] = timeline.DeepClone() };
        (await Http.PutAsync($"/api/timelines/{timeline["id"]}", Json(change))).EnsureSuccessStatusCode();
        return (string)timeline["id"]!;
    }

    /// <returns>Of all trials, the first first.</returns>
    private async Task<IEnumerable<string>> StatesAsync() =>
        (await GetAsync("/api/trials")).AsArray().Reverse().Select(trial => (string)trial!["state"]!);

    /// <summary>Health answers 503 while something is wrong.</summary>
    private async Task<string?> ProblemAsync(bool wanted)
    {
        for (var i = 0; i < 12_000; i++)
        {
            using var answer = await Http.GetAsync("/api/health");
            var problem = (string?)JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["storageProblem"];
            if ((problem is not null) == wanted)
            {
                Assert.Equal(wanted ? HttpStatusCode.ServiceUnavailable : HttpStatusCode.OK, answer.StatusCode);
                return problem;
            }

            await Task.Delay(50);
        }

        throw new TimeoutException($"There is {(wanted ? "no" : "still a")} problem with the drive.");
    }

    /// <summary>Refuses every write as SQLite does on a full drive.</summary>
    private sealed class FullDrive : DbCommandInterceptor
    {
        private const int Full = 13;

        public bool IsFull { get; set; }

        public override ValueTask<InterceptionResult<int>> NonQueryExecutingAsync(
            DbCommand command, CommandEventData eventData, InterceptionResult<int> result, CancellationToken cancellationToken = default)
        {
            Refuse(command);
            return ValueTask.FromResult(result);
        }

        public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<DbDataReader> result,
            CancellationToken cancellationToken = default)
        {
            Refuse(command);
            return ValueTask.FromResult(result);
        }

        private void Refuse(DbCommand command)
        {
            if (IsFull && !command.CommandText.TrimStart().StartsWith("SELECT", StringComparison.OrdinalIgnoreCase))
            {
                throw new SqliteException("SQLite Error 13: 'database or disk is full'.", Full);
            }
        }
    }
}
