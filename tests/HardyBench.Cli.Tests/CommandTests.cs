using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text.Json.Nodes;
using HardyBench.Cli;
using HardyBench.Workbench.Data;

namespace HardyBench.Cli.Tests;

/// <summary>The command as people and scripts use it: a process with arguments, output and an exit code.</summary>
public sealed class CommandTests
{
    [Fact]
    public async Task Playing_on_a_stand_in_writes_results_and_frames()
    {
        var folder = TestData.NewFolder();
        var (json, frames) = (Path.Combine(folder, "run.json"), Path.Combine(folder, "run.parquet"));

        var (code, output, _) = await RunAsync(
            folder,
            "play",
            "touring-night",
            "--machine",
            "curlew-desk",
            "--json",
            json,
            "--frames",
            frames
        );

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

    [Fact]
    public async Task Editing_programs_come_in_and_a_stand_in_plays_as_one_of_them()
    {
        var folder = TestData.NewFolder();
        var file = Path.Combine(folder, "programs.json");
        await File.WriteAllTextAsync(file, """[{"name":"Tallow","lookAhead":9},{"name":"Broken","lookAhead":0}]""");

        var (code, output, errors) = await RunAsync(folder, "programs", "--import", file);
        Assert.Equal(ExitCodes.Done, code);
        Assert.Contains("tallow", output, StringComparison.Ordinal);
        Assert.Contains("editing program 2 (Broken) was left out: The look-ahead is 0 frames", errors, StringComparison.Ordinal);

        var json = Path.Combine(folder, "run.json");
        await RunAsync(folder, "play", "touring-night", "--machine", "curlew-desk", "--as", "tallow", "--json", json);
        Assert.Equal("Tallow", (string)JsonNode.Parse(await File.ReadAllTextAsync(json))!["settings"]!["program"]!["name"]!);
        Assert.Equal(
            ExitCodes.Unknown, (await RunAsync(folder, "play", "touring-night", "--machine", "curlew-desk", "--as", "none-such")).Code);

        await File.WriteAllTextAsync(file, "no json");
        var (refused, _, why) = await RunAsync(folder, "programs", "--import", file);
        Assert.Equal(ExitCodes.Input, refused);
        Assert.Contains("no JSON", why, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_brief_is_answered_and_parts_that_make_no_machine_are_told_why()
    {
        var folder = TestData.NewFolder();
        var file = Path.Combine(folder, "briefs.json");
        await File.WriteAllTextAsync(
            file, """[{"name":"Matinee","timelines":["touring-night"],"growth":3},{"name":"Broken","timelines":[]}]""");

        var (code, output, errors) = await RunAsync(folder, "briefs", "--import", file);
        Assert.Equal(ExitCodes.Done, code);
        Assert.Contains("matinee", output, StringComparison.Ordinal);
        Assert.Contains("brief 2 (Broken) was left out", errors, StringComparison.Ordinal);

        var json = Path.Combine(folder, "answer.json");
        var (answered, said, _) = await RunAsync(folder, "answer", "matinee", "--json", json);
        Assert.Equal(ExitCodes.Done, answered);
        Assert.StartsWith("Buy ", said, StringComparison.Ordinal);
        Assert.Equal("buy", (string)JsonNode.Parse(await File.ReadAllTextAsync(json))!["kind"]!);
        Assert.Contains(
            "Nothing within the budget", (await RunAsync(folder, "answer", "matinee", "--budget", "10")).Output, StringComparison.Ordinal);
        Assert.Equal(ExitCodes.Unknown, (await RunAsync(folder, "answer", "none-such")).Code);

        var (misfit, why, _) = await RunAsync(
            folder, "parts", "--check", "brant-8,smew-large,memory-32x2,case-small,cooler-flat,supply-300,nvme-1");
        Assert.Equal(ExitCodes.Input, misfit);
        Assert.Contains("socket", why, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_trial_is_played_until_it_is_answered()
    {
        var (code, output, _) = await RunAsync(
            TestData.NewFolder(),
            "trial",
            "step-down",
            "touring-night",
            "--machine",
            "sandpiper-slate",
            "--cache",
            "warm"
        );

        Assert.Equal(ExitCodes.Done, code);
        Assert.Matches("Trial 1: Touring night. (Every passage holds from|At eighth scale)", output);
        Assert.Matches("passage +full scale.* answer", output);
        Assert.Matches("1 +HD AVC, bare .* holds from full scale", output);
    }

    public static TheoryData<int, string, string[]> WrongCalls => new()
    {
        { ExitCodes.Unknown, "There is no timeline 'nope'. Known: touring-night, closing-gala.", ["play", "nope"] },
        { ExitCodes.Unknown, "There is no machine 'nope'.", ["play", "touring-night", "--machine", "nope"] },
        { ExitCodes.Usage, "hardybench --help", ["play"] },
        { ExitCodes.Usage, "hardybench --help", ["play", "touring-night", "--scale", "huge"] },
        { ExitCodes.Usage, "'huge' is none of full, half, quarter or eighth.", ["play", "touring-night", "--scale", "huge"] },
        {
            ExitCodes.Usage,
            "'stepDown' is none of play, capacity, repeat, scrub, start-lag, step-down,",
            ["trial", "stepDown", "touring-night"]
        },
        { ExitCodes.Usage, "'1' is none of", ["trial", "1", "touring-night"] },
        { ExitCodes.Usage, "hardybench --help", ["dance"] },
        { ExitCodes.Media, "A repeat takes 3 to 50 runs, not 2", ["trial", "repeat", "touring-night", "--times", "2"] },
        { ExitCodes.Unknown, "There is no timeline 'nope'.", ["trial", "ramp", "nope"] },
        { ExitCodes.Media, "is not made yet", ["play", "touring-night", "--machine", "this"] },
        { ExitCodes.DataFolder, "cannot be written", ["runs", "--data", "/proc/hardybench"] },
        {
            ExitCodes.DataFolder,
            "The run itself is kept",
            ["play", "touring-night", "--machine", "curlew-desk", "--json", "/proc/run.json"]
        },
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
        foreach (var file in Directory.GetFiles(TheProgram, "*", SearchOption.AllDirectories)
            .Where(file => !file.EndsWith("libhardybench.so", StringComparison.Ordinal)))
        {
            var copy = Path.Combine(program, Path.GetRelativePath(TheProgram, file));
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
            using var body = new StringContent(
                """{"timelineId":"touring-night","machineId":"this"}""",
                new System.Net.Http.Headers.MediaTypeHeaderValue("application/json")
            );
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

    [Fact]
    public async Task Making_that_was_killed_leaves_nothing_false_and_is_taken_up_again()
    {
        var data = TestData.NewFolder("kill");
        var clips = Path.Combine(data, "clips");
        using (var first = Start(data, ["clips", "make", "hd-avc-25", "hd-avc-50", "hd-avc-120"], TheProgram))
        {
            await WaitAsync(() => Task.FromResult(Directory.Exists(clips) && Directory.GetFiles(clips, "hd-avc-25-*.json").Length > 0));
            first.Kill(entireProcessTree: true);
            await first.WaitForExitAsync();
        }

        var finished = Directory
            .GetFiles(clips)
            .Where(file => !file.Contains(".part", StringComparison.Ordinal) && !file.EndsWith(".json", StringComparison.Ordinal));
        Assert.All(finished, file => Assert.True(File.Exists(file + ".json"), file));
        var before = await File.ReadAllTextAsync(Directory.GetFiles(clips, "hd-avc-25-*.json")[0]);
        var (code, _, _) = await RunAsync(data, "clips", "make", "hd-avc-25", "hd-avc-50", "hd-avc-120");

        Assert.Equal(ExitCodes.Done, code);
        Assert.Equal(before, await File.ReadAllTextAsync(Directory.GetFiles(clips, "hd-avc-25-*.json")[0]));
        Assert.Empty(Directory.GetFiles(clips, "*.part*"));
        Assert.Equal(3, Directory.GetFiles(clips, "*.mp4").Length);
    }

    [Fact]
    public async Task An_upload_goes_on_where_it_was_after_the_server_was_killed()
    {
        var source = await TestData.ClipsAsync();
        var file = await File.ReadAllBytesAsync(source.PathOf(source.Clips["hd-avc-25"]));
        var (data, port) = (TestData.NewFolder("upload"), FreePort());
        using var http = new HttpClient { BaseAddress = new Uri($"http://127.0.0.1:{port}") };
        string place;
        using (var first = await ServeAsync(http, data, port))
        {
            using var begin = new HttpRequestMessage(HttpMethod.Post, "/api/uploads")
            {
                Headers = { { "Upload-Length", $"{file.Length}" } },
            };
            place = (await http.SendAsync(begin)).Headers.Location!.ToString();
            await SendAsync(http, place, 0, file[..(file.Length / 2)]);
            first.Kill();
            await first.WaitForExitAsync();
        }

        using var second = await ServeAsync(http, data, port);
        using var ask = new HttpRequestMessage(HttpMethod.Head, place);
        var offset = int.Parse(
            (await http.SendAsync(ask)).Headers.GetValues("Upload-Offset").Single(),
            System.Globalization.CultureInfo.InvariantCulture
        );
        var half = JsonNode.Parse(await http.GetStringAsync("/api/clips"))!;
        await SendAsync(http, place, offset, file[offset..]);
        var whole = JsonNode.Parse(await http.GetStringAsync("/api/clips"))!;
        second.Kill();
        await second.WaitForExitAsync();

        Assert.Equal(file.Length / 2, offset);
        Assert.DoesNotContain(half["clips"]!.AsArray(), clip => clip!["family"] is null);
        Assert.Single(whole["clips"]!.AsArray(), clip => clip!["family"] is null);
    }

    /// <summary>An administrator may read everything, so the command is run by somebody who is none.</summary>
    [Fact]
    public async Task A_file_without_permission_is_named()
    {
        var folder = TestData.NewFolder("closed");
        var file = Path.Combine(folder, "closed.mp4");
        var clips = await TestData.ClipsAsync();
        File.Copy(clips.PathOf(clips.Clips["hd-avc-25"]), file);
        using (var chmod = Process.Start("sh", ["-c", $"chmod 777 {folder} && chmod 000 {file}"]))
        {
            await chmod.WaitForExitAsync();
        }

        var start = new ProcessStartInfo(Environment.IsPrivilegedProcess ? "setpriv" : "env")
        {
            RedirectStandardError = true,
            WorkingDirectory = "/",
        };
        string[] somebody = Environment.IsPrivilegedProcess ? ["--reuid=65534", "--regid=65534", "--clear-groups", "env"] : [];
        foreach (
            var argument in (string[])
                [
                    .. somebody,
                    $"HOME={folder}",
                    "dotnet",
                    Path.Combine(TheProgram, "hardybench.dll"),
                    "clips",
                    "probe",
                    file,
                    "--data",
                    Path.Combine(folder, "data"),
                ]
        )
        {
            start.ArgumentList.Add(argument);
        }

        using var process = Process.Start(start)!;
        var errors = await process.StandardError.ReadToEndAsync();
        await process.WaitForExitAsync();

        Assert.Contains("closed.mp4 could not be read as a clip: Permission denied", errors, StringComparison.Ordinal);
        Assert.Equal(ExitCodes.Media, process.ExitCode);
    }

    [Fact]
    public async Task Timelines_are_written_taken_out_and_brought_in()
    {
        var data = TestData.NewFolder();
        var (otio, edl) = (Path.Combine(data, "x.otio"), Path.Combine(data, "x.edl"));
        await RunAsync(data, "timelines", "new", "Matinee", "--like", "hd-avc-25");
        var (built, _, _) = await RunAsync(data, "timelines", "build", "matinee", "layer-ramp", "--clip", "hd-avc-25", "--count", "3");
        var (shown, table, _) = await RunAsync(data, "timelines", "show", "matinee");
        await RunAsync(data, "timelines", "export", "matinee", "--file", otio);
        var (lossy, notes, _) = await RunAsync(data, "timelines", "export", "matinee", "--file", edl);
        var (imported, said, _) = await RunAsync(data, "timelines", "import", otio);
        await File.WriteAllTextAsync(edl, "001 nonsense");
        var (broken, _, why) = await RunAsync(data, "timelines", "import", edl);

        Assert.Equal([0, 0, 0, 0], [built, shown, lossy, imported]);
        Assert.Contains("3 layers", table, StringComparison.Ordinal);
        Assert.Contains("cannot be carried", notes, StringComparison.Ordinal);
        Assert.Contains("Taken in as matinee-2, 3 passages", said, StringComparison.Ordinal);
        Assert.Equal(ExitCodes.Input, broken);
        Assert.Contains("Line 1", why, StringComparison.Ordinal);
    }

    private static async Task SendAsync(HttpClient http, string place, long offset, byte[] bytes)
    {
        using var piece = new HttpRequestMessage(HttpMethod.Patch, place)
        {
            Content = new ByteArrayContent(bytes) { Headers = { ContentType = new("application/offset+octet-stream") } },
            Headers = { { "Upload-Offset", $"{offset}" } },
        };
        (await http.SendAsync(piece)).EnsureSuccessStatusCode();
    }

    private static async Task<Process> ServeAsync(HttpClient http, string data, int port)
    {
        var server = Start(data, ["serve", "--port", $"{port}"], TheProgram);
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
        for (var i = 0; i < 2400; i++)
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
        RunAsync(data, arguments, TheProgram);

    /// <summary>The program as people start it, compiled ahead.</summary>
    private static string TheProgram { get; } = Repository.PathOf(
        "src",
        "HardyBench.Cli",
        "bin",
        AppContext.BaseDirectory.Contains("/Debug/", StringComparison.Ordinal) ? "Debug" : "Release",
        "program"
    );

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
