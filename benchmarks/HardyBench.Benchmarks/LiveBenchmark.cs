using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Net.NetworkInformation;
using System.Text.Json.Nodes;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Workbench;
using MathNet.Numerics.Statistics;
using Microsoft.AspNetCore.SignalR.Client;

namespace HardyBench.Benchmarks;

/// <summary>What sampling, logging, keeping and telling cost while two pages look on, in the program as people start it, freshly started.
/// Promise: at most 2 % of a core, in the first play as in the tenth.</summary>
internal static class LiveBenchmark
{
    /// <summary>The argument with which this program is started again as a page, an address behind it.</summary>
    public const string Page = "live-page";

    private static readonly int Plays = int.Parse(Environment.GetEnvironmentVariable("PLAYS") ?? "10", CultureInfo.InvariantCulture);

    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(1);

    /// <summary>A reading stands for this time before it.</summary>
    private static readonly TimeSpan Sampling = TimeSpan.FromMilliseconds(100);

    public static async Task RunAsync(Bench bench)
    {
        Console.WriteLine("\nThe program freshly started, playing HD AVC, bare, with two pages looking on");
        var touring = (await bench.Timelines.FindAsync("touring-night")).Timeline;
        var alone = (
            await bench.Timelines.AddAsync(
                touring with
                {
                    Id = string.Empty,
                    Title = "Measured alone",
                    Passages = [touring.Passages[0] with { FrameCount = 300 }],
                }
            )
        )
            .Timeline
            .Id;
        var address = new Uri($"http://127.0.0.1:{FreePort()}");
        var began = Stopwatch.GetTimestamp();
        using var program = Process.Start(Launcher(), ["--data", bench.Folder.Path, "serve", "--port", $"{address.Port}"]);
        try
        {
            using var http = new HttpClient { BaseAddress = address };
            await UntilUsableAsync(http);
            Console.WriteLine($"  from the start to a page with its sheet: {Stopwatch.GetElapsedTime(began).TotalSeconds:0.0} s");
            Process[] pages = [Open(address), Open(address)];
            await Task.Delay(2000);
            for (var play = 1; play <= Plays; play++)
            {
                var run = await PlayAsync(bench, http, alone);
                Console.WriteLine(
                    $"  play {play}: the tool itself {Tool(run):0.0} % of a core once it plays; presenter {Lateness(run):0.000} ms "
                        + $"late (99th percentile); memory of the server {Megabytes(program):0} MB"
                );
            }

            Array.ForEach(pages, page => page.Kill());
        }
        finally
        {
            program.Kill(entireProcessTree: true);
            await bench.Timelines.DeleteAsync(alone);
        }
    }

    /// <summary>Listens as a page does, until it is ended.</summary>
    public static async Task ListenAsync(string address)
    {
        await using var hub = new HubConnectionBuilder().WithUrl(new Uri(new Uri(address), "/live")).Build();
        hub.On<JsonNode>("News", _ => { });
        await hub.StartAsync();
        await Task.Delay(Timeout.Infinite);
    }

    private static string Launcher()
    {
        for (var folder = new DirectoryInfo(AppContext.BaseDirectory); folder is not null; folder = folder.Parent)
        {
            if (
                Path.Combine(folder.FullName, "hardybench") is var launcher
                && File.Exists(launcher)
                && File.Exists(Path.Combine(folder.FullName, "Makefile"))
            )
            {
                return launcher;
            }
        }

        throw new MeasuringException("The launcher of the program was not found above the benchmarks.");
    }

    private static int FreePort()
    {
        var taken = IPGlobalProperties.GetIPGlobalProperties().GetActiveTcpListeners().Select(one => one.Port).ToHashSet();
        return Enumerable.Range(5400, 100).First(port => !taken.Contains(port));
    }

    private static async Task UntilUsableAsync(HttpClient http)
    {
        for (var began = Stopwatch.GetTimestamp(); Stopwatch.GetElapsedTime(began) < Patience; await Task.Delay(50))
        {
            try
            {
                await http.GetStringAsync("/");
                await http.GetStringAsync("/api/timelines/touring-night/sheet");
                return;
            }
            catch (HttpRequestException)
            {
                // It still starts.
            }
        }

        throw new MeasuringException("The program did not answer within a minute.");
    }

    private static double Tool(Run run) =>
        100 * run.Loads.Where(load => load.Kind == LoadKind.OwnTool && load.At > run.StartLag + Sampling).Average(load => load.Value);

    private static double Lateness(Run run) => run.Frames.Where(frame => frame.Status == FrameStatus.OnTime)
        .Select(frame => (frame.Shown!.Value - frame.SlotStart).TotalMilliseconds).Percentile(99);

    private static double Megabytes(Process program)
    {
        program.Refresh();
        return program.WorkingSet64 / 1e6;
    }

    private static async Task<Run> PlayAsync(Bench bench, HttpClient http, string timeline)
    {
        (await http.PostAsJsonAsync("/api/play", new { timelineId = timeline, machineId = "this" })).EnsureSuccessStatusCode();
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
