using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace HardyBench.Server.Tests;

/// <summary>A server of its own for each test, on a free port, with the demo's clips and an empty list of runs.</summary>
public abstract class ServerTest : IAsyncLifetime
{
    private WebApplication server = null!;

    protected HttpClient Http { get; private set; } = null!;

    protected Bench Bench { get; private set; } = null!;

    /// <summary>The id of the machine that the server runs on.</summary>
    protected string HereId => Bench.Machines.Host.Id;

    protected IServiceProvider Services => server.Services;

    /// <summary>What sees every access to the database.</summary>
    protected virtual IInterceptor[] Interceptors => [];

    /// <summary>What is done with the data before the server starts.</summary>
    protected virtual Task PrepareAsync(Bench bench) => Task.CompletedTask;

    public async ValueTask InitializeAsync()
    {
        Bench = await Bench.OpenAsync(await TestData.NewDataFolderAsync("api"), small: true, CancellationToken.None, null, Interceptors);
        await PrepareAsync(Bench);
        server = BenchServer.Create(Bench, "http://127.0.0.1:0");
        await server.StartAsync();
        Http = new HttpClient { BaseAddress = new Uri(server.Urls.First()) };
    }

    public async ValueTask DisposeAsync()
    {
        GC.SuppressFinalize(this);
        Http.Dispose();
        await server.DisposeAsync();
    }

    protected async Task<JsonNode> GetAsync(string path) => JsonNode.Parse(await Http.GetStringAsync(path))!;

    protected async Task<JsonNode> PostAsync(string path, object body) =>
        (await (await Http.PostAsJsonAsync(path, body)).EnsureSuccessStatusCode().Content.ReadFromJsonAsync<JsonNode>())!;

    protected static ByteArrayContent Json(JsonNode body) =>
        new(System.Text.Encoding.UTF8.GetBytes(body.ToJsonString())) { Headers = { ContentType = new("application/json") } };

    /// <summary>What a good answer says.</summary>
    protected static async Task<JsonNode> ReadAsync(HttpResponseMessage answer)
    {
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
    }

    /// <summary>The words of an answer that refuses.</summary>
    protected async Task<(HttpStatusCode Status, string Words)> RefusedAsync(string path, object body)
    {
        var answer = await Http.PostAsJsonAsync(path, body);
        return (answer.StatusCode, (string)(await answer.Content.ReadFromJsonAsync<JsonObject>())!["detail"]!);
    }

    protected Task<JsonNode> AskAsync(string machine, string kind = "play", object? settings = null) =>
        PostAsync("/api/play", new { timelineId = "touring-night", machineId = machine, trial = new { kind }, settings });

    /// <returns>The id of the run.</returns>
    protected async Task<long> PlayToEndAsync(string machine)
    {
        await AskAsync(machine);
        return (long)(await WaitAsync(play => !(bool)play["running"]!))["runId"]!;
    }

    protected async Task<JsonNode> WaitAsync(Func<JsonNode, bool> until)
    {
        for (var i = 0; i < 12_000; i++)
        {
            var play = await GetAsync("/api/play");
            if (until(play))
            {
                return play;
            }

            await Task.Delay(50);
        }

        throw new TimeoutException("The play did not get there within ten minutes.");
    }

    /// <returns>Where the file's bytes go.</returns>
    protected async Task<string> BeginUploadAsync(long length, string name)
    {
        using var answer = await BeginAsync(length, name);
        return answer.EnsureSuccessStatusCode().Headers.Location!.ToString();
    }

    protected async Task<HttpResponseMessage> BeginAsync(long length, string name)
    {
        using var begin = new HttpRequestMessage(HttpMethod.Post, "/api/uploads");
        begin.Headers.Add("Tus-Resumable", "1.0.0");
        begin.Headers.Add("Upload-Length", $"{length}");
        begin.Headers.Add("Upload-Metadata", $"filename {Convert.ToBase64String(System.Text.Encoding.UTF8.GetBytes(name))}");
        return await Http.SendAsync(begin);
    }

    protected async Task<HttpResponseMessage> SendAsync(string place, long offset, byte[] bytes)
    {
        using var piece = new HttpRequestMessage(HttpMethod.Patch, place) { Content = new ByteArrayContent(bytes) };
        piece.Content.Headers.ContentType = new("application/offset+octet-stream");
        piece.Headers.Add("Upload-Offset", $"{offset}");
        return await Http.SendAsync(piece);
    }
}
