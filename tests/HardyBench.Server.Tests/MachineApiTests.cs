using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace HardyBench.Server.Tests;

/// <summary>The shelf through the API.</summary>
public sealed class MachineApiTests : ServerTest
{
    [Fact]
    public async Task A_machine_is_duplicated_changed_shown_and_played()
    {
        var copy = await ReadAsync(await Http.PostAsync("/api/machines/curlew-desk/duplicate", null));
        var id = (string)copy["machine"]!["id"]!;
        copy["machine"]!["memory"]!["gigabytes"] = 64;

        var kept = await ReadAsync(await Http.PutAsync($"/api/machines/{id}", Json(copy)));
        Assert.Equal(2, (int)kept["version"]!);
        Assert.Equal(HttpStatusCode.Conflict, (await Http.PutAsync($"/api/machines/{id}", Json(copy))).StatusCode);

        Assert.Equal(
            HttpStatusCode.NoContent,
            (await Http.PutAsJsonAsync("/api/timelines/touring-night/machines", new[] { HereId, id })).StatusCode
        );
        await PlayToEndAsync(id);
        var sheet = JsonNode.Parse(await Http.GetStringAsync("/api/timelines/touring-night/sheet"))!;
        Assert.Equal([HereId, id], sheet["columns"]!.AsArray().Select(column => (string)column!["machine"]!["id"]!));
        Assert.Equal(8, sheet["columns"]![1]!["cells"]!.AsArray().Count);
        Assert.True(((string)sheet["columns"]![1]!["cells"]![0]!["comb"]!).Length > 0);
    }

    /// <summary>A thing is read at an address that ends in its id, and other addresses stand beside it.</summary>
    [Fact]
    public async Task Nothing_new_gets_an_id_that_is_an_address()
    {
        var paths = Services.GetServices<EndpointDataSource>().SelectMany(source => source.Endpoints).OfType<RouteEndpoint>()
            .Where(endpoint => endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods.Contains("GET") == true)
            .Select(endpoint => endpoint.RoutePattern.RawText!.TrimEnd('/')).ToHashSet();
        var beside = paths.Where(path => path.EndsWith("/{id}", StringComparison.Ordinal))
            .SelectMany(path => paths.Where(other => other.LastIndexOf('/') == path.LastIndexOf('/')
                && other.StartsWith(path[..^"{id}".Length], StringComparison.Ordinal) && !other.Contains('{', StringComparison.Ordinal)))
            .Select(path => path[(path.LastIndexOf('/') + 1)..]).ToList();

        Assert.Contains("figures", beside);
        Assert.All(beside, address => Assert.Contains(address, NewIds.Addresses));
        var box = (await GetAsync("/api/machines/curlew-desk"))["machine"]!;
        (box["id"], box["name"]) = ("", "Export");
        var added = await ReadAsync(await Http.PostAsync("/api/machines", Json(box)));
        Assert.Equal("Export", (string)(await GetAsync($"/api/machines/{added["machine"]!["id"]}"))["machine"]!["name"]!);
    }

    /// <summary>Its runs and trials stay, under the name that people know it by.</summary>
    [Fact]
    public async Task Runs_and_trials_of_a_deleted_machine_keep_its_name()
    {
        await PlayToEndAsync("curlew-desk");
        await Http.DeleteAsync("/api/machines/curlew-desk");

        var run = Assert.Single(JsonNode.Parse(await Http.GetStringAsync("/api/runs"))!.AsArray())!;
        var trial = Assert.Single(JsonNode.Parse(await Http.GetStringAsync("/api/trials"))!.AsArray())!;

        Assert.Equal("Curlew desk", (string)run["machineName"]!);
        Assert.Equal(("Curlew desk", true), ((string)trial["machineName"]!, (bool)trial["standIn"]!));
    }

    [Fact]
    public async Task Runs_before_a_machine_was_changed_are_told_with_what_changed()
    {
        await PlayToEndAsync("curlew-desk");
        Assert.Empty(JsonNode.Parse(await Http.GetStringAsync("/api/machines/curlew-desk/earlier"))!.AsArray());
        var machine = JsonNode.Parse(await Http.GetStringAsync("/api/machines/curlew-desk"))!;
        var before = (double)machine["machine"]!["memory"]!["gigabytes"]!;
        machine["machine"]!["memory"]!["gigabytes"] = before + 32;
        await ReadAsync(await Http.PutAsync("/api/machines/curlew-desk", Json(machine)));

        var earlier = Assert.Single(JsonNode.Parse(await Http.GetStringAsync("/api/machines/curlew-desk/earlier"))!.AsArray())!;

        Assert.Equal(1, (int)earlier["runs"]!);
        Assert.Equal([$"memory {before} GB → {before + 32} GB"], earlier["changes"]!.AsArray().Select(change => (string)change!));
        Assert.Empty(JsonNode.Parse(await Http.GetStringAsync($"/api/machines/{HereId}/earlier"))!.AsArray());
        Assert.Equal(HttpStatusCode.NotFound, (await Http.GetAsync("/api/machines/none/earlier")).StatusCode);
    }

    [Fact]
    public async Task A_machine_off_the_shelf_is_on_no_sheet_and_comes_back()
    {
        Assert.Equal(HttpStatusCode.NoContent, (await Http.DeleteAsync("/api/machines/curlew-desk")).StatusCode);
        Assert.DoesNotContain("curlew-desk", await Http.GetStringAsync("/api/machines"), StringComparison.Ordinal);
        Assert.DoesNotContain("Curlew", await Http.GetStringAsync("/api/timelines/touring-night/sheet"), StringComparison.Ordinal);

        Assert.Equal(HttpStatusCode.NoContent, (await Http.PostAsync("/api/machines/curlew-desk/restore", null)).StatusCode);
        Assert.Contains("curlew-desk", await Http.GetStringAsync("/api/machines"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_shelf_comes_in_with_what_is_wrong_named_and_goes_out()
    {
        var table = "name,cores,memory_gb\nNew one,6,16\nBroken,0,16\nWorse,six,16\n";
        var answer = await ReadAsync(
            await Http.PostAsync(
                "/api/machines/import?name=shelf.csv",
                new ByteArrayContent(Encoding.UTF8.GetBytes(table)) { Headers = { ContentType = new("application/octet-stream") } }
            )
        );

        Assert.Equal("new-one", (string)Assert.Single(answer["added"]!.AsArray())!["machine"]!["id"]!);
        Assert.Equal(["line 3", "line 4"], answer["problems"]!.AsArray().Select(problem => (string)problem!["where"]!));
        var exported = await Http.GetStringAsync("/api/machines/export?format=csv&ids=new-one&ids=curlew-desk");
        Assert.Equal(3, exported.TrimEnd().Split('\n').Length);
    }
}
