using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.SignalR.Client;

namespace HardyBench.Server.Tests;

public sealed class ApiTests : ServerTest
{
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
        var parquet = await Http.GetByteArrayAsync($"/api/runs/{run}/frames.parquet");

        Assert.Equal("hardy-bench-run/2", (string)json["format"]!);
        Assert.Equal("PAR1"u8.ToArray(), parquet[..4]);
    }

    [Theory]
    [InlineData("/api/timelines/nope/sheet", HttpStatusCode.NotFound, "There is no timeline 'nope'.")]
    [InlineData("/api/timelines/touring-night/sheet?scale=tiny", HttpStatusCode.NotFound, "There is no preview scale 'tiny'.")]
    [InlineData("/api/runs/999", HttpStatusCode.NotFound, "There is no run '999'.")]
    [InlineData("/api/nothing", HttpStatusCode.NotFound, null)]
    public async Task What_is_not_there_is_a_problem_in_words(string path, HttpStatusCode status, string? words)
    {
        var answer = await Http.GetAsync(path);

        Assert.Equal(status, answer.StatusCode);
        if (words is not null)
        {
            var problem = (await answer.Content.ReadFromJsonAsync<JsonObject>())!;
            Assert.StartsWith(words, (string)problem["detail"]!, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task Open_pages_hear_every_tooth_of_a_play()
    {
        await using var hub = new HubConnectionBuilder().WithUrl(new Uri(Http.BaseAddress!, "/live")).Build();
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
        var served = (await Http.GetStringAsync("/openapi/v1.json")).ReplaceLineEndings("\n");
        var file = Repository.PathOf("web", "openapi.json");
        if (Environment.GetEnvironmentVariable("HARDYBENCH_WRITE_API") is not null)
        {
            await File.WriteAllTextAsync(file, served);
        }

        Assert.Equal(await File.ReadAllTextAsync(file), served);
    }

    [Fact]
    public async Task Advice_names_the_pick_and_the_rest()
    {
        var before = await GetAsync("/api/timelines/touring-night/advice");
        Assert.Null(before["machineId"]);
        Assert.Empty((await GetAsync("/api/runs")).AsArray());

        var advice = await PostAsync("/api/timelines/touring-night/advice", new { });

        Assert.NotNull(advice["machineId"]);
        Assert.Equal(HardyBench.Workbench.Demo.DemoMachines.All.Count, advice["others"]!.AsArray().Count);
    }

    [Fact]
    public async Task Clips_are_listed_as_measured()
    {
        var clips = (await GetAsync("/api/clips"))["clips"]!.AsArray();

        Assert.True(clips.Count >= 28);
        Assert.Equal(5, clips.Count(clip => (bool)clip!["made"]!));
        Assert.Equal("High, level 3", (string)clips.Single(clip => (string)clip!["id"]! == "hd-avc-25")!["profile"]!);
        Assert.Equal(HttpStatusCode.Accepted, (await Http.PostAsJsonAsync("/api/clips/making", new { ids = (string[]?)null })).StatusCode);
        Assert.Equal(25.5, (double)(await GetAsync("/api/clips/hd-avc-25/facts"))["meanRandomAccess"]!);
    }

    [Fact]
    public async Task Two_pages_that_write_at_once_do_not_overwrite_each_other()
    {
        var made = await PostAsync("/api/timelines", new { title = "Late show" });
        var timeline = made["timeline"]!.AsObject();
        var first = await Http.PutAsJsonAsync("/api/timelines/late-show", new { version = (int)made["version"]!, timeline });
        timeline["title"] = "Overwritten";
        var second = await Http.PutAsJsonAsync("/api/timelines/late-show", new { version = (int)made["version"]!, timeline });

        Assert.Equal((HttpStatusCode.OK, HttpStatusCode.Conflict), (first.StatusCode, second.StatusCode));
        Assert.Equal("Late show", (string)(await GetAsync("/api/timelines/late-show"))["timeline"]!["title"]!);
        Assert.Contains(
            "Nothing was overwritten",
            (string)(await second.Content.ReadFromJsonAsync<JsonObject>())!["detail"]!,
            StringComparison.Ordinal
        );
        Assert.Equal("late-show-2", (string)(await PostAsync("/api/timelines", new { title = "Late show" }))["timeline"]!["id"]!);
    }

    [Fact]
    public async Task Every_passage_is_reviewed_while_it_is_written()
    {
        var document = await GetAsync("/api/timelines/touring-night");
        document["timeline"]!["passages"]![1]!["layers"]![0]!["clipId"] = "gone";
        var kept = await (await Http.PutAsJsonAsync("/api/timelines/touring-night", document)).Content.ReadFromJsonAsync<JsonObject>();

        var review = kept!["review"]!.AsArray();
        Assert.Equal(8, review.Count);
        Assert.Equal("the clip “gone” is not known", (string)review[1]!["problems"]![0]!);
        Assert.Equal("00:00:03:00", (string)review[1]!["start"]!);
        Assert.True((double)review[4]!["asks"]!["decodeCores"]! > (double)review[0]!["asks"]!["decodeCores"]!);
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (await Http.PostAsJsonAsync("/api/play", new { timelineId = "touring-night", machineId = "curlew-desk" })).StatusCode
        );
    }

    [Fact]
    public async Task A_series_is_built_and_one_without_clips_is_refused()
    {
        var rate = new { numerator = 25, denominator = 1 };
        var built = await (await Http.PostAsJsonAsync("/api/timelines/series", new
        {
            rate,
            series = new
            {
                kind = "layerRamp",
                clipIds = (List<string>)["hd-avc-25"],
                effects = Array.Empty<object>(),
                count = 3,
                seconds = 2.0,
            },
        })).Content.ReadFromJsonAsync<JsonArray>();
        var refused = await Http.PostAsJsonAsync("/api/timelines/series", new
        {
            rate, series = new { kind = "ladder", clipIds = (List<string>)[], effects = Array.Empty<object>(), count = 3, seconds = 2.0 },
        });

        Assert.Equal([1, 2, 3], built!.Select(passage => passage!["layers"]!.AsArray().Count));
        Assert.All(built!, passage => Assert.Equal(50, (int)passage!["frameCount"]!));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
    }

    [Fact]
    public async Task A_timeline_goes_out_and_comes_back_by_otio_and_what_is_missing_is_listed()
    {
        var text = await Http.GetStringAsync("/api/timelines/touring-night/export?format=otio");
        using var same = Bytes(text);
        var sha256 = (await TestData.ClipsAsync()).Clips["hd-avc-50"].Sha256!;
        var renamed = text.Replace("hd-avc-50", "camera-7", StringComparison.Ordinal);
        using var known = Bytes(renamed);
        using var strange = Bytes(renamed.Replace(sha256, "0000", StringComparison.Ordinal));
        var byChecksum = await (
            await Http.PostAsync("/api/timelines/import?name=known.otio", known)
        ).Content.ReadFromJsonAsync<JsonObject>();
        var back = await (await Http.PostAsync("/api/timelines/import?name=back.otio", same)).Content.ReadFromJsonAsync<JsonObject>();
        var lacking = await (
            await Http.PostAsync("/api/timelines/import?name=lacking.otio", strange)
        ).Content.ReadFromJsonAsync<JsonObject>();
        using var broken = Bytes("{");
        var refused = await Http.PostAsync("/api/timelines/import?name=x.otio", broken);

        var original = (await GetAsync("/api/timelines/touring-night"))["timeline"]!["passages"]!.ToJsonString();
        Assert.Equal(original, back!["stored"]!["timeline"]!["passages"]!.ToJsonString());
        Assert.Empty(back["missing"]!.AsArray());
        Assert.Equal(original, byChecksum!["stored"]!["timeline"]!["passages"]!.ToJsonString());
        var missing = Assert.Single(lacking!["missing"]!.AsArray())!;
        Assert.Equal("camera-7", (string)missing["name"]!);
        Assert.Equal(["hd-avc-50"], missing["substitutes"]!.AsArray().Select(id => (string)id!));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
    }

    [Fact]
    public async Task A_file_is_sent_in_pieces_and_a_hostile_one_is_refused_while_the_server_goes_on()
    {
        var clips = await TestData.ClipsAsync();
        var file = await File.ReadAllBytesAsync(clips.PathOf(clips.Clips["hd-avc-50"]));
        var place = await BeginUploadAsync(file.Length, "matinee.mp4");
        Assert.Equal(HttpStatusCode.NoContent, (await SendAsync(place, 0, file[..5000])).StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, (await SendAsync(place, 0, file[..10])).StatusCode);
        using var ask = new HttpRequestMessage(HttpMethod.Head, place);
        Assert.Equal("5000", (await Http.SendAsync(ask)).Headers.GetValues("Upload-Offset").Single());
        var last = await SendAsync(place, 5000, file[5000..]);
        Assert.Equal(HttpStatusCode.NoContent, last.StatusCode);

        var bad = await BeginUploadAsync(20, "bad.mp4");
        var refused = await SendAsync(bad, 0, new byte[20]);

        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        var footage = await GetAsync("/api/clips");
        Assert.Contains(footage["clips"]!.AsArray(), clip => (string)clip!["title"]! == "matinee.mp4" && clip["family"] is null);
        Assert.Empty(footage["refused"]!.AsArray());
    }

    [Fact]
    public async Task A_look_up_table_of_one_s_own_becomes_a_look()
    {
        using var good = Bytes("LUT_3D_SIZE 2\n0 0 0\n1 0 0\n0 1 0\n1 1 0\n0 0 1\n1 0 1\n0 1 1\n1 1 1\n");
        using var bad = Bytes("LUT_3D_SIZE 2\n0 0\n");
        var name = await (await Http.PostAsync("/api/looks?name=Sea%20fog.cube", good)).Content.ReadFromJsonAsync<string>();
        var refused = await Http.PostAsync("/api/looks?name=bad.cube", bad);

        Assert.Equal("sea-fog", name);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Equal(["sea-fog", "warm-stage"], (await Http.GetFromJsonAsync<string[]>("/api/looks"))!);
    }

    private static ByteArrayContent Bytes(string text) =>
        new(System.Text.Encoding.UTF8.GetBytes(text)) { Headers = { ContentType = new("application/octet-stream") } };

    private static JsonObject Column(JsonNode sheet, string machine) =>
        sheet["columns"]!.AsArray().Single(column => (string)column!["machine"]!["id"]! == machine)!.AsObject();
}
