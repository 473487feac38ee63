using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text.Json.Nodes;
using HardyBench.Cli;

namespace HardyBench.Cli.Tests;

/// <summary>The command as people and scripts use it: a process with arguments, output and an exit code.</summary>
public sealed class CommandTests
{
    [Fact]
    public async Task Playing_on_a_stand_in_writes_results_and_frames()
    {
        var folder = TestData.NewFolder();
        var (json, frames) = (Path.Combine(folder, "run.json"), Path.Combine(folder, "run.parquet"));

        var (code, output, _) = await RunAsync(folder, "play", "touring-night", "--machine", "curlew-desk", "--json", json, "--frames", frames);

        Assert.Equal(ExitCodes.Done, code);
        Assert.Contains("Touring night on Curlew desk, finished", output, StringComparison.Ordinal);
        var run = JsonNode.Parse(await File.ReadAllTextAsync(json))!;
        Assert.All(run["passages"]!.AsArray(), row => Assert.Equal(
            (int)row!["slots"]!, (int)row["onTime"]! + (int)row["late"]! + (int)row["startUpDrops"]! + (int)row["steadyDrops"]!));
        Assert.True(new FileInfo(frames).Length > 1000);
    }

    [Fact]
    public async Task Advice_can_be_read_and_written()
    {
        var folder = TestData.NewFolder();
        var json = Path.Combine(folder, "advice.json");

        var (code, output, _) = await RunAsync(folder, "advise", "touring-night", "--json", json);

        Assert.Equal(ExitCodes.Done, code);
        Assert.StartsWith("Take ", output, StringComparison.Ordinal);
        Assert.Equal("hardy-bench-advice/1", (string)JsonNode.Parse(await File.ReadAllTextAsync(json))!["format"]!);
    }

    public static TheoryData<int, string, string[]> WrongCalls => new()
    {
        { ExitCodes.Unknown, "There is no timeline 'nope'. Known: touring-night.", ["play", "nope"] },
        { ExitCodes.Unknown, "There is no machine 'nope'.", ["play", "touring-night", "--machine", "nope"] },
        { ExitCodes.Usage, "hardybench --help", ["play"] },
        { ExitCodes.Usage, "hardybench --help", ["play", "touring-night", "--scale", "huge"] },
        { ExitCodes.Usage, "hardybench --help", ["dance"] },
        { ExitCodes.Media, "is not made yet", ["play", "touring-night", "--machine", "this"] },
        { ExitCodes.DataFolder, "cannot be written", ["runs", "--data", "/proc/hardybench"] },
        { ExitCodes.DataFolder, "The run itself is kept", ["play", "touring-night", "--machine", "curlew-desk", "--json", "/proc/run.json"] },
    };

    [Theory]
    [MemberData(nameof(WrongCalls))]
    public async Task A_wrong_call_says_what_is_wrong_and_fails(int expected, string words, string[] arguments)
    {
        var (code, _, errors) = await RunAsync(TestData.NewFolder("wrong"), arguments);

        Assert.Contains(words, errors, StringComparison.Ordinal);
        Assert.Equal(expected, code);
    }

    [Fact]
    public async Task Without_the_decoding_libraries_it_says_so_and_stand_ins_still_play()
    {
        var program = TestData.NewFolder();
        foreach (var file in Directory.GetFiles(AppContext.BaseDirectory, "*", SearchOption.AllDirectories)
            .Where(file => !file.EndsWith("libhardybench.so", StringComparison.Ordinal)))
        {
            var copy = Path.Combine(program, Path.GetRelativePath(AppContext.BaseDirectory, file));
            Directory.CreateDirectory(Path.GetDirectoryName(copy)!);
            File.Copy(file, copy);
        }

        var data = await TestData.NewDataFolderAsync();
        var here = await RunAsync(data, ["play", "touring-night"], program);
        var standIn = await RunAsync(data, ["play", "touring-night", "--machine", "curlew-desk"], program);

        Assert.Equal(ExitCodes.NoPlayer, here.Code);
        Assert.Contains("FFmpeg's libraries could not be loaded", here.Errors, StringComparison.Ordinal);
        Assert.Equal(ExitCodes.Done, standIn.Code);
    }

    [Fact]
    public async Task A_port_in_use_is_named()
    {
        using var taken = new TcpListener(IPAddress.Loopback, 0);
        taken.Start();
        var port = ((IPEndPoint)taken.LocalEndpoint).Port;

        var (code, _, errors) = await RunAsync(TestData.NewFolder(), "serve", "--port", $"{port}");

        Assert.Equal(ExitCodes.Port, code);
        Assert.Contains($"Port {port} is in use", errors, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_server_killed_in_mid_run_shows_the_partial_run_when_it_is_started_again()
    {
        var data = await TestData.NewDataFolderAsync();
        await RunAsync(data, "play", "touring-night", "--machine", "curlew-desk");
        var port = FreePort();
        using var http = new HttpClient { BaseAddress = new Uri($"http://127.0.0.1:{port}") };

        using (var first = await ServeAsync(http, data, port))
        {
            using var body = new StringContent("""{"timelineId":"touring-night","machineId":"this"}""", new System.Net.Http.Headers.MediaTypeHeaderValue("application/json"));
            (await http.PostAsync("/api/play", body)).EnsureSuccessStatusCode();
            await WaitAsync(async () => (int)JsonNode.Parse(await http.GetStringAsync("/api/play"))!["frames"]! > 75);
            first.Kill();
            await first.WaitForExitAsync();
        }

        using var second = await ServeAsync(http, data, port);
        var runs = JsonNode.Parse(await http.GetStringAsync("/api/runs"))!.AsArray();
        second.Kill();
        await second.WaitForExitAsync();

        Assert.Equal(["cutShort", "finished"], runs.Select(run => (string)run!["ending"]!));
        Assert.InRange((int)runs[0]!["slots"]!, 25, 599);
        Assert.Equal(600, (int)runs[1]!["slots"]!);
    }

    private static async Task<Process> ServeAsync(HttpClient http, string data, int port)
    {
        var server = Start(data, ["serve", "--port", $"{port}"], AppContext.BaseDirectory);
        await WaitAsync(async () =>
        {
            try
            {
                return (await http.GetAsync("/api/runs")).IsSuccessStatusCode;
            }
            catch (HttpRequestException)
            {
                return false;
            }
        });
        return server;
    }

    private static async Task WaitAsync(Func<Task<bool>> until)
    {
        for (var i = 0; i < 600; i++)
        {
            if (await until())
            {
                return;
            }

            await Task.Delay(100);
        }

        throw new TimeoutException("It did not happen within a minute.");
    }

    private static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }

    private static Task<(int Code, string Output, string Errors)> RunAsync(string data, params string[] arguments) =>
        RunAsync(data, arguments, AppContext.BaseDirectory);

    private static async Task<(int Code, string Output, string Errors)> RunAsync(string data, string[] arguments, string program)
    {
        using var process = Start(data, arguments, program);
        var (output, errors) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync();
        return (process.ExitCode, await output, await errors);
    }

    private static Process Start(string data, string[] arguments, string program)
    {
        var start = new ProcessStartInfo("dotnet") { RedirectStandardOutput = true, RedirectStandardError = true };
        string[] shared = arguments.Contains("--data") ? ["--pack", "small"] : ["--data", data, "--pack", "small"];
        foreach (var argument in (string[])[Path.Combine(program, "hardybench.dll"), .. arguments, .. shared])
        {
            start.ArgumentList.Add(argument);
        }

        return Process.Start(start)!;
    }
}
