using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using HardyBench.Server;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.SignalR.Client;

namespace HardyBench.Server.Tests;

public sealed class ApiTests : IAsyncLifetime
{
    private WebApplication server = null!;
    private HttpClient http = null!;

    public async ValueTask InitializeAsync()
    {
        var bench = await Bench.OpenAsync(await TestData.NewDataFolderAsync("api"), small: true, CancellationToken.None);
        server = BenchServer.Create(bench, "http://127.0.0.1:0");
        await server.StartAsync();
        http = new HttpClient { BaseAddress = new Uri(server.Urls.First()) };
    }

    public async ValueTask DisposeAsync()
    {
        http.Dispose();
        await server.DisposeAsync();
    }

    [Fact]
    public async Task A_stand_in_s_play_fills_its_column_of_the_sheet()
    {
        Assert.Empty(Column(await GetAsync("/api/timelines/touring-night/sheet"), "curlew-desk")["cells"]!.AsArray());

        await PlayToEndAsync("curlew-desk");

        var cells = Column(await GetAsync("/api/timelines/touring-night/sheet"), "curlew-desk")["cells"]!.AsArray();
        Assert.Equal(8, cells.Count);
        Assert.Equal((75, "holds"), ((int)cells[0]!["slots"]!, (string)cells[0]!["verdict"]!));
        Assert.Equal(75, ((string)cells[0]!["comb"]!).Length);
        Assert.Empty(Column(await GetAsync("/api/timelines/touring-night/sheet?scale=half"), "curlew-desk")["cells"]!.AsArray());
    }

    [Fact]
    public async Task A_passage_in_full_has_every_frame_and_the_loads_on_the_same_axis()
    {
        var run = await PlayToEndAsync("gannet-tower");

        var detail = await GetAsync($"/api/runs/{run}/passages/5");

        Assert.Equal(75, detail["frames"]!["frame"]!.AsArray().Count);
        Assert.Equal("00:00:12:00", (string)detail["frames"]!["timecodes"]![0]!);
        Assert.All(detail["loads"]!.AsArray(), load =>
        {
            Assert.Equal(load!["at"]!.AsArray().Count, load["values"]!.AsArray().Count);
            Assert.All(load["at"]!.AsArray(), at => Assert.InRange((double)at!, 0, 3000));
        });
    }

    [Fact]
    public async Task A_run_can_be_taken_away_as_json_and_as_parquet()
    {
        var run = await PlayToEndAsync("sandpiper-slate");

        var json = await GetAsync($"/api/runs/{run}/run.json");
        var parquet = await http.GetByteArrayAsync($"/api/runs/{run}/frames.parquet");

        Assert.Equal("hardy-bench-run/1", (string)json["format"]!);
        Assert.Equal("PAR1"u8.ToArray(), parquet[..4]);
    }

    [Theory]
    [InlineData("/api/timelines/nope/sheet", HttpStatusCode.NotFound, "There is no timeline 'nope'.")]
    [InlineData("/api/timelines/touring-night/sheet?scale=tiny", HttpStatusCode.NotFound, "There is no preview scale 'tiny'.")]
    [InlineData("/api/runs/999", HttpStatusCode.NotFound, "There is no run '999'.")]
    [InlineData("/api/nothing", HttpStatusCode.NotFound, null)]
    public async Task What_is_not_there_is_a_problem_in_words(string path, HttpStatusCode status, string? words)
    {
        var answer = await http.GetAsync(path);

        Assert.Equal(status, answer.StatusCode);
        if (words is not null)
        {
            var problem = (await answer.Content.ReadFromJsonAsync<JsonObject>())!;
            Assert.StartsWith(words, (string)problem["detail"]!, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task One_play_at_a_time_and_stopping_keeps_what_was_played()
    {
        await StartAsync("this");
        var second = await http.PostAsJsonAsync("/api/play", new { timelineId = "touring-night", machineId = "curlew-desk" });
        await WaitAsync(play => (int)play["frames"]! > 10);
        await http.DeleteAsync("/api/play");
        var ended = await WaitAsync(play => !(bool)play["running"]!);

        Assert.Equal(HttpStatusCode.Conflict, second.StatusCode);
        var run = await GetAsync($"/api/runs/{ended["runId"]}");
        Assert.Equal("stopped", (string)run["ending"]!);
        Assert.True((int)run["passages"]![0]!["slots"]! > 0);
    }

    [Fact]
    public async Task Open_pages_hear_every_tooth_of_a_play()
    {
        await using var hub = new HubConnectionBuilder().WithUrl(new Uri(http.BaseAddress!, "/live")).Build();
        var teeth = 0;
        hub.On<JsonElement>("News", news => Interlocked.Add(ref teeth, news.GetProperty("teeth").GetString()!.Length));
        await hub.StartAsync();

        await PlayToEndAsync("curlew-desk");
        for (var i = 0; i < 100 && Volatile.Read(ref teeth) < 600; i++)
        {
            await Task.Delay(50);
        }

        Assert.Equal(600, teeth);
    }

    /// <summary>The page's client is made from this document. When it changes: run the test with
    /// HARDYBENCH_WRITE_API=1 and build the page again.</summary>
    [Fact]
    public async Task The_document_that_the_page_s_client_is_made_from_is_current()
    {
        var served = (await http.GetStringAsync("/openapi/v1.json")).ReplaceLineEndings("\n");
        var file = Path.Combine(Root(), "web/openapi.json");
        if (Environment.GetEnvironmentVariable("HARDYBENCH_WRITE_API") is not null)
        {
            await File.WriteAllTextAsync(file, served);
        }

        Assert.Equal(await File.ReadAllTextAsync(file), served);
    }

    [Fact]
    public async Task Advice_names_the_pick_and_the_rest()
    {
        var advice = await GetAsync("/api/timelines/touring-night/advice");

        Assert.NotNull(advice["machineId"]);
        Assert.Equal(3, advice["others"]!.AsArray().Count);
    }

    [Fact]
    public async Task Clips_are_listed_as_measured()
    {
        var clips = (JsonArray)JsonNode.Parse(await http.GetStringAsync("/api/clips"))!;

        Assert.Equal(5, clips.Count);
        Assert.All(clips, clip => Assert.True((bool)clip!["made"]!));
        Assert.Equal(HttpStatusCode.Accepted, (await http.PostAsync("/api/clips/making", null)).StatusCode);
    }

    private static JsonObject Column(JsonNode sheet, string machine) =>
        sheet["columns"]!.AsArray().Single(column => (string)column!["machine"]!["id"]! == machine)!.AsObject();

    private async Task<JsonNode> GetAsync(string path) => JsonNode.Parse(await http.GetStringAsync(path))!;

    private async Task StartAsync(string machine) =>
        (await http.PostAsJsonAsync("/api/play", new { timelineId = "touring-night", machineId = machine })).EnsureSuccessStatusCode();

    private async Task<long> PlayToEndAsync(string machine)
    {
        await StartAsync(machine);
        return (long)(await WaitAsync(play => !(bool)play["running"]!))["runId"]!;
    }

    private async Task<JsonNode> WaitAsync(Func<JsonNode, bool> until)
    {
        for (var i = 0; i < 600; i++)
        {
            var play = await GetAsync("/api/play");
            if (until(play))
            {
                return play;
            }

            await Task.Delay(50);
        }

        throw new TimeoutException("The play did not get there within 30 s.");
    }

    private static string Root()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "HardyBench.slnx")))
        {
            folder = Path.GetDirectoryName(folder)!;
        }

        return folder;
    }
}
