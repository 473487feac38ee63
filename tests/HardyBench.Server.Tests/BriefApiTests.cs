using System.Net;
using System.Text;
using System.Text.Json.Nodes;

namespace HardyBench.Server.Tests;

/// <summary>Briefs, parts and answers through the API.</summary>
public sealed class BriefApiTests : ServerTest
{
    [Fact]
    public async Task A_brief_is_added_changed_deleted_and_brought_back()
    {
        var added = await ReadAsync(await Http.PostAsync("/api/briefs", Json(Brief("Matinee"))));
        Assert.Equal("matinee", (string)added["brief"]!["id"]!);

        added["brief"]!["budget"] = 1234;
        Assert.Equal(2, (int)(await ReadAsync(await Http.PutAsync("/api/briefs/matinee", Json(added))))["version"]!);
        Assert.Equal(HttpStatusCode.Conflict, (await Http.PutAsync("/api/briefs/matinee", Json(added))).StatusCode);

        Assert.Equal(HttpStatusCode.NoContent, (await Http.DeleteAsync("/api/briefs/matinee")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await Http.DeleteAsync("/api/briefs/matinee")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await Http.GetAsync("/api/briefs/matinee/answer")).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await Http.PostAsync("/api/briefs/matinee/restore", null)).StatusCode);
        Assert.Contains("1234", await Http.GetStringAsync("/api/briefs"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_answer_says_what_to_do_and_another_budget_changes_nothing_but_what_can_be_had()
    {
        var brief = Brief("Asked");
        brief["timelines"] = new JsonArray("touring-night");
        brief["growth"] = 4;
        var all = await ReadAsync(await Http.PostAsync("/api/briefs/answer", Json(brief)));
        var steps = all["steps"]!.AsArray();
        Assert.Equal("buy", (string)all["kind"]!);
        Assert.True(steps.Count > 1);
        Assert.All(steps, step => Assert.True((double)step!["headroom"]! >= 4));
        Assert.Equal(steps.Select(step => (decimal)step!["price"]!).Order(), steps.Select(step => (decimal)step!["price"]!));
        Assert.Equal((decimal)steps[0]!["price"]!, steps[0]!["parts"]!.AsArray().Sum(part => (decimal)part!["price"]!));
        Assert.Equal("holds", (string)all["pick"]!["passages"]![0]!["verdict"]!);

        brief["budget"] = (decimal)steps[0]!["price"]! - 1;
        var less = await ReadAsync(await Http.PostAsync("/api/briefs/answer", Json(brief)));
        Assert.Equal("overBudget", (string)less["kind"]!);
        Assert.Contains("1 EUR more", (string)less["reason"]!, StringComparison.Ordinal);
        Assert.Equal(steps.Select(step => (string)step!["name"]!), less["steps"]!.AsArray().Select(step => (string)step!["name"]!));

        brief["owned"] = HereId;
        var there = await ReadAsync(await Http.PostAsync("/api/briefs/answer", Json(brief)));
        Assert.Contains("Play it first", there["notes"]!.ToJsonString(), StringComparison.Ordinal);
        Assert.Null(there["owned"]);
    }

    [Fact]
    public async Task Parts_come_in_with_new_prices_and_what_is_wrong_is_named()
    {
        var all = JsonNode.Parse(await Http.GetStringAsync("/api/parts/export"))!;
        var parts = all["parts"]!.AsArray();
        var count = parts.Count;
        Assert.True(count >= 60);
        parts[0]!["price"] = 77;
        parts[1]!["price"] = -1;
        var added = parts[2]!.DeepClone();
        (added["id"], added["name"]) = ("brand-new", "Brand new");
        parts.Add(added);

        var outcome = await ReadAsync(await Http.PostAsync("/api/parts/import", new ByteArrayContent(Encoding.UTF8.GetBytes(all.ToJsonString()))
        {
            Headers = { ContentType = new("application/octet-stream") },
        }));

        Assert.Equal((1, count - 1), ((int)outcome["added"]!, (int)outcome["changed"]!));
        Assert.Equal("part 2", (string)Assert.Single(outcome["problems"]!.AsArray())!["where"]!);
        var lines = JsonNode.Parse(await Http.GetStringAsync("/api/parts"))!.AsArray();
        Assert.Equal(77, (decimal)lines.Single(line => (string)line!["id"]! == (string)parts[0]!["id"]!)!["price"]!);

        var check = await ReadAsync(await Http.PostAsync("/api/parts/check", Json(new JsonObject { ["parts"] = new JsonArray("none-such") })));
        Assert.Contains("none-such", check["problems"]!.ToJsonString(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NoContent, (await Http.DeleteAsync("/api/parts/brand-new")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await Http.DeleteAsync("/api/parts/brand-new")).StatusCode);
    }

    [Fact]
    public async Task A_part_is_added_changed_and_two_who_change_it_at_once_are_told()
    {
        var columns = JsonNode.Parse(await Http.GetStringAsync("/api/parts/columns"))!;
        Assert.Equal(["watts"], columns["supply"]!.AsArray().Select(column => (string)column!));
        var cells = new JsonObject { ["kind"] = "supply", ["name"] = "Spare", ["price"] = "49.5", ["watts"] = " 420 ", ["pricedOn"] = "" };
        var added = await ReadAsync(await Http.PostAsync("/api/parts", Json(new JsonObject { ["cells"] = cells })));
        Assert.Equal(("spare", 49.5m, "420"), ((string)added["id"]!, (decimal)added["price"]!, (string)added["cells"]!["watts"]!));

        // What is left out it has no more; its kind and its id stay whatever a change says.
        var change = new JsonObject
        {
            ["version"] = added["version"]!.DeepClone(),
            ["cells"] = new JsonObject { ["kind"] = "cooler", ["id"] = "other", ["name"] = "Spare", ["price"] = "55", ["watts"] = "450" },
        };
        var kept = await ReadAsync(await Http.PutAsync("/api/parts/spare", Json(change)));
        Assert.Equal(("spare", "supply", "450"), ((string)kept["id"]!, (string)kept["cells"]!["kind"]!, (string)kept["cells"]!["watts"]!));
        Assert.Equal(HttpStatusCode.Conflict, (await Http.PutAsync("/api/parts/spare", Json(change))).StatusCode);

        change["version"] = kept["version"]!.DeepClone();
        change["cells"]!["watts"] = "much";
        var refused = await Http.PutAsync("/api/parts/spare", Json(change));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Contains("'much' in watts is not a number", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_week_of_work_becomes_a_timeline_that_a_brief_can_ask_for()
    {
        var rows = new JsonArray(
            new JsonObject { ["clipId"] = "hd-avc-50", ["treatment"] = "graded", ["streams"] = 2, ["hours"] = 6 },
            new JsonObject { ["clipId"] = "hd-avc-50", ["treatment"] = "cut", ["streams"] = 1, ["hours"] = 2 });
        var written = await ReadAsync(await Http.PostAsync("/api/timelines/week", Json(new JsonObject { ["title"] = "Our week", ["rows"] = rows })));
        Assert.Equal("our-week", (string)written["timeline"]!["id"]!);
        var lengths = written["timeline"]!["passages"]!.AsArray().Select(passage => (int)passage!["frameCount"]!).ToList();
        Assert.Equal(3 * lengths[1], lengths[0]);

        var brief = Brief("Ours");
        (brief["timelines"], brief["builds"]) = (new JsonArray("our-week"), false);
        await ReadAsync(await Http.PostAsync("/api/briefs", Json(brief)));
        var csv = await Http.GetStringAsync("/api/briefs/ours/answer/export?format=csv");
        Assert.StartsWith("Line,Name,Price,", csv, StringComparison.Ordinal);
        Assert.Contains("\noffer,", csv.ReplaceLineEndings("\n"), StringComparison.Ordinal);
        Assert.Contains("\nrecommended,", csv.ReplaceLineEndings("\n"), StringComparison.Ordinal);
        Assert.Equal("Ours", (string)JsonNode.Parse(await Http.GetStringAsync("/api/briefs/ours/answer/export"))!["brief"]!["name"]!);
        Assert.Equal(HttpStatusCode.NotFound, (await Http.GetAsync("/api/briefs/ours/answer/export?format=xls")).StatusCode);
    }

    private static JsonObject Brief(string name) => new()
    {
        ["id"] = "", ["name"] = name, ["timelines"] = new JsonArray("touring-night"),
    };
}
