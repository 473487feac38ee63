using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using HardyBench.Core.Playback;
using HardyBench.Server;
using HardyBench.Workbench;
using Microsoft.AspNetCore.SignalR.Client;

namespace HardyBench.Benchmarks;

/// <summary>What sampling, logging, keeping and telling cost while two pages look on. Promise: at most 2 % of a core.</summary>
internal static class LiveBenchmark
{
    /// <summary>The argument with which this program is started again as a page, an address behind it.</summary>
    public const string Page = "live-page";

    public static async Task RunAsync(Bench bench)
    {
        Console.WriteLine("\nPlaying HD AVC, bare, with two pages looking on");
        var server = BenchServer.Create(bench, "http://127.0.0.1:0");
        await server.StartAsync();
        var address = new Uri(server.Urls.First());
        Process[] pages = [Open(address), Open(address)];
        await Task.Delay(2000);
        using var http = new HttpClient { BaseAddress = address };
        // The first play also compiles what plays have not used before; the second shows what goes on costing.
        foreach (var play in new[] { "first", "second" })
        {
            var tool = (await PlayAsync(bench, http)).Loads.Where(load => load.Kind == LoadKind.OwnTool).ToList();
            Console.WriteLine($"  {play} play: the tool itself {Mean(tool, 0, 6):0.0} % of a core in its first 6 seconds, {Mean(tool, 6, 24):0.0} % up to 24");
        }

        Array.ForEach(pages, page => page.Kill());
        await server.StopAsync();
    }

    /// <summary>Listens as a page does, until it is ended.</summary>
    public static async Task ListenAsync(string address)
    {
        await using var hub = new HubConnectionBuilder().WithUrl(new Uri(new Uri(address), "/live")).Build();
        hub.On<JsonNode>("News", _ => { });
        await hub.StartAsync();
        await Task.Delay(Timeout.Infinite);
    }

    private static double Mean(List<LoadReading> loads, double from, double to) =>
        100 * loads.Where(load => load.At.TotalSeconds > from && load.At.TotalSeconds <= to).Average(load => load.Value);

    private static async Task<Run> PlayAsync(Bench bench, HttpClient http)
    {
        (await http.PostAsJsonAsync("/api/play", new { timelineId = "touring-night", machineId = "this" })).EnsureSuccessStatusCode();
        JsonNode play;
        do
        {
            await Task.Delay(1000);
            play = JsonNode.Parse(await http.GetStringAsync("/api/play"))!;
        }
        while ((bool)play["running"]!);

        return (await bench.Runs.FindAsync((long)play["runId"]!))!.Run;
    }

    private static Process Open(Uri address) =>
        Process.Start(Environment.ProcessPath!, [typeof(LiveBenchmark).Assembly.Location, Page, address.ToString()]);
}
