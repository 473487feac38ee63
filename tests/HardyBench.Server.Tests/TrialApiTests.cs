using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace HardyBench.Server.Tests;

public sealed class TrialApiTests : ServerTest
{
    [Fact]
    public async Task One_thing_plays_at_a_time_and_the_rest_waits_its_turn()
    {
        await AskAsync(HereId);
        var second = await AskAsync("curlew-desk");
        var third = await AskAsync("gannet-tower");
        await Http.DeleteAsync($"/api/play/waiting/{third["waiting"]!.AsArray()[^1]!["trialId"]}");
        await WaitAsync(play => (int)play["frames"]! > 10);
        await Http.DeleteAsync("/api/play");
        var ended = await WaitAsync(play => (string)play["machineId"]! == "curlew-desk" && !(bool)play["running"]!);

        Assert.Equal("Curlew desk", (string)second["waiting"]!.AsArray()[^1]!["machineName"]!);
        Assert.Empty(ended["waiting"]!.AsArray());
        var runs = (await GetAsync("/api/runs")).AsArray();
        Assert.Equal(
            [("curlew-desk", "finished"), (HereId, "stopped")],
            runs.Select(run => ((string)run!["machineId"]!, (string)run["ending"]!))
        );
        Assert.InRange((int)runs[1]!["slots"]!, 1, 599);
        Assert.Equal(
            ["stopped", "finished", "stopped"],
            (await GetAsync("/api/trials")).AsArray().Select(trial => (string)trial!["state"]!)
        );
    }

    /// <summary>Before this machine plays a timeline, the clips that it lacks are named, so that they can be created; a stand-in needs
    /// none.</summary>
    [Fact]
    public async Task Clips_that_are_not_created_are_named_before_they_are_played()
    {
        var missing = (string)(await GetAsync("/api/clips"))["clips"]!.AsArray().First(clip => !(bool)clip!["made"]!)!["id"]!;
        var made = (await (await Http.PostAsJsonAsync("/api/timelines", new { title = "Lacking" })).Content.ReadFromJsonAsync<JsonObject>())!;
        var timeline = (await GetAsync("/api/timelines/touring-night"))["timeline"]!.DeepClone();
        var id = (string)made["timeline"]!["id"]!;
        (timeline["id"], timeline["title"]) = (id, "Lacking");
        timeline["passages"]![0]!["layers"]![0]!["clipId"] = missing;
        (await Http.PutAsJsonAsync($"/api/timelines/{id}", new { version = (int)made["version"]!, timeline })).EnsureSuccessStatusCode();

        Assert.Equal([missing], await LackingOn(HereId));
        Assert.Empty(await LackingOn("curlew-desk"));

        async Task<string[]> LackingOn(string machine)
        {
            var look = await Http.PostAsJsonAsync("/api/play/look", new { timelineId = id, machineId = machine });
            return (await look.Content.ReadFromJsonAsync<JsonObject>())!["missingClips"]!.AsArray().Select(clip => (string)clip!).ToArray();
        }
    }

    [Fact]
    public async Task A_repeat_of_three_is_answered_with_its_spread()
    {
        var asked = await AskAsync("gannet-tower", "repeat");
        await WaitAsync(play => !(bool)play["running"]!);

        var trial = await GetAsync($"/api/trials/{asked["trialId"]}");

        Assert.Equal(["1 of 3", "2 of 3", "3 of 3"], trial["runs"]!.AsArray().Select(run => (string)run!["label"]!));
        Assert.All(trial["rows"]!.AsArray(), row => Assert.Equal(3, row!["cells"]!.AsArray().Count));
        Assert.Contains("shown", (string)trial["rows"]![4]!["words"]!, StringComparison.Ordinal);
        var runs = (await GetAsync("/api/runs")).AsArray();
        Assert.Single(runs.Select(run => (string)run!["conditionsDigest"]!).Distinct());
        Assert.Equal((string)trial["answer"]!, (string)(await GetAsync("/api/trials"))[0]!["answer"]!);
    }

    [Fact]
    public async Task A_scrub_leaves_lags_that_can_be_read_and_taken_away()
    {
        var asked = await AskAsync("curlew-desk", "scrub");
        var run = (long)(await WaitAsync(play => !(bool)play["running"]!))["runId"]!;

        var trial = await GetAsync($"/api/trials/{asked["trialId"]}");
        var csv = await Http.GetStringAsync($"/api/runs/{run}/lags.csv");

        Assert.All(trial["rows"]!.AsArray(), row => Assert.NotEmpty(row!["lags"]!.AsArray()));
        Assert.Equal(
            trial["rows"]!.AsArray().Sum(row => row!["lags"]!.AsArray().Sum(lag => (int)lag!["asked"]!)),
            csv.Split("\r\n", StringSplitOptions.RemoveEmptyEntries).Length - 1
        );
    }

    [Theory]
    [InlineData("""{"trial":{}}""", "'kind' is missing")]
    [InlineData("""{"trial":{"times":3}}""", "'kind' is missing")]
    [InlineData("""{"trial":{"kind":"juggle"}}""", "juggle")]
    [InlineData("""{"trial":{"kind":"soak","minutes":"ten"}}""", "minutes")]
    [InlineData("""{"kind":"soak","minutes":10}""", "kind")]
    [InlineData("""{"settings":{"lookahed":3}}""", "lookahed")]
    [InlineData("""{"trial":{"kind":"soak","minute":10}}""", "minute")]
    [InlineData("""{"trial":{"kind":"compare","pairs":1,"other":{"scales":"half"}}}""", "scales")]
    public async Task A_trial_that_cannot_be_told_is_refused_with_the_place(string members, string words)
    {
        var body = JsonNode.Parse(members)!;
        (body["timelineId"], body["machineId"]) = ("touring-night", "curlew-desk");

        foreach (var path in new[] { "/api/play", "/api/play/look" })
        {
            var answer = await Http.PostAsJsonAsync(path, body);

            Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
            Assert.Contains(
                words, (string)(await answer.Content.ReadFromJsonAsync<JsonObject>())!["detail"]!, StringComparison.Ordinal);
        }
    }

    [Theory]
    [InlineData("""{"kind":"soak","minutes":0}""", "more than 0 and at most 8 hours")]
    [InlineData("""{"kind":"soak","minutes":1e300}""", "more than 0 and at most 8 hours")]
    [InlineData("""{"kind":"startLag","places":51}""", "1 to 50 places")]
    [InlineData("""{"times":-1,"kind":"capacity"}""", "1 to 50 runs")]
    [InlineData("""{"kind":"compare","pairs":1,"other":{"threads":0}}""", "The second side: 0 threads were requested")]
    [InlineData("""{"kind":"export","format":"avc","encoder":"mediaEngine","times":11}""", "1 to 10 times")]
    public async Task A_trial_of_no_sense_is_refused_in_words(string trial, string words)
    {
        var body = new JsonObject { ["timelineId"] = "touring-night", ["machineId"] = HereId, ["trial"] = JsonNode.Parse(trial) };

        var (status, said) = await RefusedAsync("/api/play", body);

        Assert.Equal(HttpStatusCode.UnprocessableEntity, status);
        Assert.Contains(words, said, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_look_before_asking_says_what_differs_and_what_makes_no_sense()
    {
        var bare = await PostAsync("/api/play/look", new { timelineId = "touring-night", machineId = HereId });
        var aided = await PostAsync(
            "/api/play/look",
            new
            {
                timelineId = "touring-night",
                machineId = HereId,
                trial = new { kind = "repeat" },
                settings = new
                {
                    scale = "half",
                    proxies = "quarter",
                    cache = "cold",
                },
            }
        );
        var same = new { timelineId = "touring-night", machineId = HereId, trial = new { kind = "compare" } };
        var senseless = await PostAsync("/api/play/look", same);

        Assert.Empty(bare["differences"]!.AsArray());
        Assert.Equal(24, (double)bare["seconds"]!);
        Assert.Equal(72, (double)aided["seconds"]!);
        Assert.Equal(3, aided["differences"]!.AsArray().Count);
        Assert.Contains("second side", (string)senseless["problem"]!, StringComparison.Ordinal);
        Assert.Equal((HttpStatusCode.UnprocessableEntity, (string)senseless["problem"]!), await RefusedAsync("/api/play", same));
    }

    [Fact]
    public async Task A_mark_stands_at_its_frame_in_the_passage_and_in_every_export()
    {
        var run = await PlayToEndAsync("curlew-desk");

        var mark = await PostAsync($"/api/runs/{run}/marks", new { frame = 80, kind = "fan", text = "howls, \"badly\"" });
        var refused = await RefusedAsync($"/api/runs/{run}/marks", new { frame = 80, kind = "fan", text = new string('x', 501) });

        Assert.InRange((double)mark["atMs"]!, 3200, 3240);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.Status);
        Assert.Empty((await GetAsync($"/api/runs/{run}/passages/1"))["marks"]!.AsArray());
        Assert.Equal(80, (int)(await GetAsync($"/api/runs/{run}/passages/2"))["marks"]![0]!["frame"]!);
        Assert.Equal("fan", (string)(await GetAsync($"/api/runs/{run}/run.json"))["marks"]![0]!["kind"]!);
        Assert.Contains(
            "\"fan: howls, \"\"badly\"\"\"",
            await Http.GetStringAsync($"/api/runs/{run}/frames.csv"),
            StringComparison.Ordinal
        );
        Assert.Contains(
            (await GetAsync($"/api/runs/{run}/trace.json"))["traceEvents"]!.AsArray(),
            one => (string)one!["ph"]! == "i" && one["name"]!.ToString().Contains("howls", StringComparison.Ordinal)
        );

        await Http.DeleteAsync($"/api/runs/{run}/marks/{mark["id"]}");
        Assert.Empty((await GetAsync($"/api/runs/{run}/passages/2"))["marks"]!.AsArray());
    }

    [Fact]
    public async Task A_deleted_run_is_gone_from_list_and_sheet_and_comes_back()
    {
        var run = await PlayToEndAsync("curlew-desk");
        async Task<int> CellsAsync() =>
            (await GetAsync("/api/timelines/touring-night/sheet"))["columns"]!.AsArray().Sum(column => column!["cells"]!.AsArray().Count);

        Assert.Equal(1, (int)await PostAsync("/api/runs/deleted", new { ids = (long[])[run], deleted = true }));
        Assert.Empty((await GetAsync("/api/runs")).AsArray());
        Assert.Equal(0, await CellsAsync());

        await PostAsync("/api/runs/deleted", new { ids = (long[])[run], deleted = false });
        Assert.Single((await GetAsync("/api/runs")).AsArray());
        Assert.Equal(8, await CellsAsync());
    }

    [Fact]
    public async Task A_device_that_is_not_there_is_named_with_its_reason()
    {
        var devices = (await GetAsync("/api/play/devices")).AsArray();

        Assert.Contains(devices, device => (string)device!["name"]! == "vaapi");
        Assert.All(devices, device => Assert.True(device!["refusal"] is null || ((string)device["refusal"]!).Length > 0));
    }

    [Fact]
    public async Task Runs_are_found_sorted_and_paged()
    {
        await AskAsync("curlew-desk", "repeat");
        await WaitAsync(play => !(bool)play["running"]! && play["waiting"]!.AsArray().Count == 0);
        await PlayToEndAsync("gannet-tower");

        var page = await GetAsync("/api/runs/page?words=curlew&by=number&rising=true&take=1");
        Assert.Equal((4, 3), ((int)page["all"]!, (int)page["found"]!));
        Assert.Equal(1, (long)Assert.Single(page["runs"]!.AsArray())!["id"]!);
        Assert.Equal(2, (long)(await GetAsync("/api/runs/page?words=curlew&skip=1&take=1"))["runs"]![0]!["id"]!);
        Assert.Equal([3, 2], (await GetAsync("/api/runs?skip=1&take=2")).AsArray().Select(run => (long)run!["id"]!));
        Assert.Equal(4, (await GetAsync("/api/runs?take=1000000")).AsArray().Count);
    }
}
