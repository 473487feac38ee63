using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;

namespace HardyBench.Server.Tests;

/// <summary>Editing programs through the API.</summary>
public sealed class ProgramApiTests : ServerTest
{
    [Fact]
    public async Task A_program_is_added_changed_deleted_and_brought_back()
    {
        var added = await ReadAsync(await Http.PostAsync("/api/programs", Json(new JsonObject { ["id"] = "", ["name"] = "Tallow" })));
        Assert.Equal("tallow", (string)added["program"]!["id"]!);

        added["program"]!["lookAhead"] = 30;
        Assert.Equal(2, (int)(await ReadAsync(await Http.PutAsync("/api/programs/tallow", Json(added))))["version"]!);
        Assert.Equal(HttpStatusCode.Conflict, (await Http.PutAsync("/api/programs/tallow", Json(added))).StatusCode);

        Assert.Equal(HttpStatusCode.NoContent, (await Http.DeleteAsync("/api/programs/tallow")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await Http.DeleteAsync("/api/programs/tallow")).StatusCode);
        Assert.DoesNotContain("Tallow", await Http.GetStringAsync("/api/programs"), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NoContent, (await Http.PostAsync("/api/programs/tallow/restore", null)).StatusCode);
        Assert.Contains("look-ahead 30", await Http.GetStringAsync("/api/programs"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Programs_go_out_and_come_in_with_what_is_wrong_named()
    {
        var all = JsonNode.Parse(await Http.GetStringAsync("/api/programs/export"))!;
        all["programs"]![0]!["lookAhead"] = 0;
        all["programs"]![1]!.AsObject().Remove("name");

        var answer = await ReadAsync(
            await Http.PostAsync(
                "/api/programs/import",
                new ByteArrayContent(Encoding.UTF8.GetBytes(all.ToJsonString()))
                {
                    Headers = { ContentType = new("application/octet-stream") },
                }
            )
        );

        Assert.Equal("gantry-2", (string)Assert.Single(answer["added"]!.AsArray())!["program"]!["id"]!);
        Assert.Equal(
            ["editing program 1", "editing program 2"], answer["problems"]!.AsArray().Select(problem => (string)problem!["where"]!));
        Assert.Contains("0 frames", (string)answer["problems"]![0]!["why"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_stand_in_plays_as_a_program_and_keeps_what_it_was_then()
    {
        var program = JsonNode.Parse(await Http.GetStringAsync("/api/programs"))![0]!["program"]!;
        var asked = new JsonObject
        {
            ["timelineId"] = "touring-night", ["machineId"] = "turnstone-laptop",
            ["settings"] = new JsonObject { ["program"] = program.DeepClone() },
        };
        (await Http.PostAsync("/api/play", Json(asked))).EnsureSuccessStatusCode();
        await PlayToEndAsync("turnstone-laptop");
        await WaitAsync(play => !(bool)play["running"]! && play["waiting"]!.AsArray().Count == 0);

        var ids = (await RunsAsync()).Select(run => (long)run!["id"]!).Order().ToList();
        var comparison = JsonNode.Parse(await Http.GetStringAsync($"/api/compare?run={ids[1]}&run={ids[0]}"))!;
        var said = comparison.ToJsonString();
        Assert.Contains("Hardy Bench player", said, StringComparison.Ordinal);
        Assert.Contains("Flyloft", (string)comparison["sides"]![1]!["sum"]!, StringComparison.Ordinal);

        asked["machineId"] = HereId;
        var refused = await Http.PostAsync("/api/play", Json(asked));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Contains("Hardy Bench player only", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    private async Task<JsonArray> RunsAsync() => JsonNode.Parse(await Http.GetStringAsync("/api/runs"))!.AsArray();
}
