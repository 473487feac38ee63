using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace HardyBench.Server.Tests;

/// <summary>Runs side by side, through the API.</summary>
public sealed class CompareApiTests : ServerTest
{
    [Fact]
    public async Task Two_machines_stand_side_by_side_with_what_differs_and_what_came_of_it()
    {
        var (slate, desk) = (await PlayToEndAsync("sandpiper-slate"), await PlayToEndAsync("curlew-desk"));

        var comparison = JsonNode.Parse(await Http.GetStringAsync($"/api/compare?run={slate}&run={desk}"))!;

        Assert.True((bool)comparison["sameTimeline"]!);
        Assert.Equal(8, comparison["rows"]!.AsArray().Count);
        var other = comparison["sides"]![1]!;
        Assert.Contains("memory", other["parts"]!.AsArray().Select(part => (string)part!["what"]!));
        Assert.Contains("Curlew desk", (string)other["sum"]!, StringComparison.Ordinal);
        Assert.Equal(string.Empty, (string)comparison["sides"]![0]!["sum"]!);
    }

    [Fact]
    public async Task A_family_is_summed_up_along_what_it_differs_in()
    {
        var runs = new List<long>();
        foreach (var id in new[] { "heron-8", "heron-16", "heron-64" })
        {
            runs.Add(await PlayToEndAsync(id));
        }

        var comparison = JsonNode.Parse(await Http.GetStringAsync($"/api/compare?{string.Join('&', runs.Select(run => $"run={run}"))}"))!;

        Assert.StartsWith("Along memory from 8 GB to 64 GB: ", (string)comparison["axis"]!["words"]!, StringComparison.Ordinal);
        Assert.Equal([8.0, 16, 64], comparison["axis"]!["points"]!.AsArray().Select(point => (double)point!["value"]!));

        // The same family is found without anybody having chosen it, and no other among these three.
        var family = Assert.Single(JsonNode.Parse(await Http.GetStringAsync("/api/grid/families?timeline=touring-night"))!.AsArray())!;
        Assert.Equal("memory", (string)family["what"]!);
        Assert.Equal(runs, family["runs"]!.AsArray().Select(run => (long)run!));
    }

    /// <summary>One rule, and the same words and next step wherever the run is shown.</summary>
    [Fact]
    public async Task A_run_that_does_not_count_says_so_wherever_it_is_shown()
    {
        const string Why = "It does not count: it ran from the battery. Plug it in and play again.";
        var (run, other) = (await PlayToEndAsync("whimbrel-laptop-battery"), await PlayToEndAsync("curlew-desk"));
        string[] shown = ["whimbrel-laptop-battery"];
        (await Http.PutAsJsonAsync("/api/timelines/touring-night/machines", shown)).EnsureSuccessStatusCode();
        var column = (await GetAsync("/api/timelines/touring-night/sheet"))["columns"]!.AsArray().Single(one => (long?)one!["runId"] == run)!;
        var sides = (await GetAsync($"/api/compare?run={run}&run={other}"))["sides"]!.AsArray();
        var rows = (await GetAsync("/api/grid?timeline=touring-night"))["rows"]!.AsArray();

        Assert.Equal(Why, (string?)column["notCounting"]);
        Assert.Equal((Why, "playAgain"), ((string?)column["next"]!["words"], (string?)column["next"]!["act"]));
        Assert.Equal([Why, null], sides.Select(side => (string?)side!["notCounting"]));
        Assert.Equal(Why, (string?)(await GetAsync($"/api/runs/{run}/run.json"))["notCounting"]);
        Assert.Equal(Why, (string?)(await GetAsync($"/api/runs/{run}/passages/1"))["notCounting"]);
        Assert.Equal([null, Why], (await GetAsync("/api/runs")).AsArray().Select(line => (string?)line!["notCounting"]));
        Assert.All(
            rows.Single(row => (string)row!["machineId"]! == "whimbrel-laptop-battery")!["cells"]!.AsArray(),
            cell => Assert.Equal(Why, (string?)cell!["notCounting"]));
    }

    [Fact]
    public async Task A_grid_has_every_machine_by_its_newest_bare_run_and_a_cell_a_passage_or_timeline()
    {
        await PlayToEndAsync("sandpiper-slate");
        var newest = await PlayToEndAsync("sandpiper-slate");
        await AskAsync("curlew-desk", settings: new { scale = "half" });
        await WaitAsync(play => !(bool)play["running"]!);

        var row = Assert.Single(JsonNode.Parse(await Http.GetStringAsync("/api/grid?timeline=touring-night"))!["rows"]!.AsArray())!;
        Assert.Equal("sandpiper-slate", (string)row["machineId"]!);
        Assert.Equal(8, row["cells"]!.AsArray().Count);
        Assert.All(row["cells"]!.AsArray(), cell => Assert.Equal(newest, (long)cell!["runId"]!));

        var whole = JsonNode.Parse(await Http.GetStringAsync("/api/grid"))!;
        var at = whole["columns"]!.AsArray().Select(column => (string)column!["key"]!).ToList().IndexOf("touring-night");
        var cells = whole["rows"]![0]!["cells"]!.AsArray();
        Assert.Equal(row["cells"]!.AsArray().Average(cell => (double)cell!["share"]!), (double)cells[at]!["share"]!, 9);
        Assert.All(cells.Where((_, place) => place != at), Assert.Null);

        var lines = (await Http.GetStringAsync("/api/grid/table.csv?timeline=touring-night")).Trim().Split('\n');
        Assert.Equal(9, lines.Length);
        Assert.StartsWith("machine,price_eur,what,run,verdict,share,headroom,limiter,holds,judged", lines[0], StringComparison.Ordinal);

        // Another description is another machine: what it showed before counts no more.
        var document = JsonNode.Parse(await Http.GetStringAsync("/api/machines/sandpiper-slate"))!;
        document["machine"]!["memory"]!["gigabytes"] = 48;
        (await Http.PutAsJsonAsync("/api/machines/sandpiper-slate", document)).EnsureSuccessStatusCode();
        Assert.Empty(JsonNode.Parse(await Http.GetStringAsync("/api/grid?timeline=touring-night"))!["rows"]!.AsArray());
    }

    [Theory]
    [InlineData("/api/grid?timeline=none")]
    [InlineData("/api/grid/table.csv?timeline=%00")]
    [InlineData("/api/grid/families?timeline=../../etc")]
    public async Task A_grid_of_a_timeline_that_is_not_there_is_answered_in_words(string address)
    {
        var refused = await Http.GetAsync(address);

        Assert.Equal(HttpStatusCode.NotFound, refused.StatusCode);
        Assert.Contains("There is no timeline", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_planted_condition_is_named_beside_the_result_and_repeats_are_counted()
    {
        var first = await PlayToEndAsync("curlew-desk");
        // From the same seed the same run: no repeat. The three of a repeat trial have seeds of their own, the first that of this one.
        await PlayToEndAsync("curlew-desk");
        await AskAsync("curlew-desk", "repeat");
        await WaitAsync(play => !(bool)play["running"]!);
        await AskAsync("curlew-desk", settings: new { scale = "half" });
        var half = (long)(await WaitAsync(play => !(bool)play["running"]!))["runId"]!;

        var comparison = JsonNode.Parse(await Http.GetStringAsync($"/api/compare?run={first}&run={half}"))!;

        var condition = Assert.Single(comparison["sides"]![1]!["conditions"]!.AsArray())!;
        Assert.Equal(
            ("preview scale", "full", "half"),
            ((string)condition["what"]!, (string)condition["base"]!, (string)condition["other"]!)
        );
        Assert.Empty(comparison["sides"]![1]!["parts"]!.AsArray());
        Assert.Equal((3, 1), ((int)comparison["sides"]![0]!["repeats"]!, (int)comparison["sides"]![1]!["repeats"]!));
    }

    [Fact]
    public async Task A_run_by_hand_or_of_a_machine_that_is_gone_is_answered_in_words()
    {
        var run = await PlayToEndAsync("curlew-desk");
        await AskAsync("curlew-desk", "scrub");
        var hand = (long)(await WaitAsync(play => !(bool)play["running"]!))["runId"]!;
        var refused = await Http.GetAsync($"/api/compare?run={run}&run={hand}");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Contains("scrub or start-lag run", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);

        // The machine leaves the shelf; its runs keep the description that it had.
        var slate = await PlayToEndAsync("sandpiper-slate");
        await Http.DeleteAsync("/api/machines/curlew-desk");
        Assert.Equal(
            "Curlew desk",
            (string)JsonNode.Parse(await Http.GetStringAsync($"/api/compare?run={run}&run={slate}"))!["sides"]![0]!["machine"]!
        );
        await Http.PostAsJsonAsync("/api/machines/curlew-desk/restore", new { });
    }
}
