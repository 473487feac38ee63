using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text.Json.Nodes;
using static HardyBench.Cli.Tests.Command;

namespace HardyBench.Cli.Tests;

/// <summary>Servers and commands that are killed at work: what they leave is true, and is gone on with.</summary>
public sealed class KilledTests
{
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
                """{"timelineId":"touring-night"}""",
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
        using (var first = Start(data, ["clips", "create", "hd-avc-25", "hd-avc-50", "hd-avc-120"], TheProgram))
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
        var (code, _, _) = await RunAsync(data, "clips", "create", "hd-avc-25", "hd-avc-50", "hd-avc-120");

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

    /// <summary>Neither the encoder nor what makes the pictures outlives it, and the half-written file is gone with the next
    /// start.</summary>
    [Fact]
    public async Task An_export_that_was_killed_leaves_no_process_and_no_file()
    {
        var data = await TestData.NewDataFolderAsync();
        var player = Path.Combine(data, "player");
        using (var first = Start(data, ["trial", "export", "touring-night", "--format", "hevc", "--times", "1"], TheProgram))
        {
            await WaitAsync(() => Task.FromResult(Directory.Exists(player)
                && Directory.GetFiles(player, "export.mp4", SearchOption.AllDirectories).Length > 0));
            first.Kill();
            await first.WaitForExitAsync();
        }

        await WaitAsync(() => Task.FromResult(!CommandsThatName(data).Any()));
        var (code, output, _) = await RunAsync(data, "runs");

        Assert.Equal(ExitCodes.Done, code);
        Assert.Contains("cut-short", output, StringComparison.Ordinal);
        Assert.Empty(Directory.GetFiles(player, "*", SearchOption.AllDirectories));
    }

    /// <summary>The first start makes everything and the others bring nothing up to date, so both are killed at every step. What would
    /// keep one start waiting would keep all that follow, so it is enough that the last of a few ends.</summary>
    [Fact]
    public async Task A_start_that_is_killed_at_any_moment_keeps_no_later_one_from_starting()
    {
        for (var folder = 0; folder < 5; folder++)
        {
            var data = TestData.NewFolder("start");
            for (var after = 40 * (folder + 1); after <= 1000; after += 200)
            {
                await KillAsync(data, ["runs"], after);
            }

            var (code, _, errors) = await RunAsync(data, "runs").WaitAsync(TimeSpan.FromMinutes(10));
            Assert.Equal((ExitCodes.Done, string.Empty), (code, errors));
        }
    }

    [Fact]
    public async Task A_restore_that_is_killed_at_any_moment_leaves_the_old_data_or_the_new()
    {
        var data = TestData.NewFolder("restore");
        var copy = Path.Combine(TestData.NewFolder("copy"), "copy.db");
        await RunAsync(data, "runs");
        await RunAsync(data, "backup", copy);
        for (var after = 100; after <= 900; after += 50)
        {
            await KillAsync(data, ["restore", copy], after);
            Assert.Equal("ok", await AskAsync(data, "PRAGMA integrity_check"));
            Assert.Equal("touring-night", await AskAsync(data, "SELECT Id FROM Documents WHERE Id = 'touring-night'"));
        }

        Assert.Equal(ExitCodes.Done, (await RunAsync(data, "restore", copy)).Code);
        Assert.Empty(Directory.GetFiles(data, "*.restoring*"));
        Assert.Contains("touring-night", (await RunAsync(data, "timelines", "list")).Output, StringComparison.Ordinal);
    }

    /// <summary>Starts a command and kills it.</summary>
    /// <param name="after">Milliseconds.</param>
    private static async Task KillAsync(string data, string[] arguments, int after)
    {
        using var killed = Start(data, arguments, TheProgram);
        await Task.Delay(after);
        killed.Kill();
        await killed.WaitForExitAsync();
    }

    /// <summary>The first cell of what a statement gives or does to the database of a data folder.</summary>
    private static async Task<string?> AskAsync(string data, string statement)
    {
        await using var connection = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={data}/bench.db;Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = statement;
        return await command.ExecuteScalarAsync() as string;
    }

    [Fact]
    public async Task Nothing_is_restored_under_a_play_and_its_run_is_saved()
    {
        var data = await TestData.NewDataFolderAsync();
        var copy = Path.Combine(TestData.NewFolder("copy"), "copy.db");
        await RunAsync(data, "backup", copy);
        using var play = Start(data, ["play", "touring-night"], TheProgram);
        var (output, errors) = (play.StandardOutput.ReadToEndAsync(), play.StandardError.ReadToEndAsync());
        await WaitAsync(async () => (await RunAsync(data, "runs")).Output.Contains("playing", StringComparison.Ordinal));

        var (code, _, refusal) = await RunAsync(data, "restore", copy);
        await play.WaitForExitAsync();

        Assert.Equal(ExitCodes.DataFolder, code);
        Assert.Contains("Another program uses the data", refusal, StringComparison.Ordinal);
        Assert.True(play.ExitCode == ExitCodes.Done, await output + await errors);
        Assert.Contains("finished", (await RunAsync(data, "runs")).Output, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("UPDATE Runs SET HeaderJson = '{'")]
    [InlineData("UPDATE Runs SET Ending = 'Exploded'")]
    [InlineData("UPDATE Runs SET LagsJson = '7', Rules = 0")]
    [InlineData("UPDATE Documents SET Json = '{'")]
    [InlineData("DROP TABLE Runs")]
    public async Task A_damaged_database_ends_no_command_with_a_stack_trace(string damage)
    {
        var data = await TestData.NewDataFolderAsync();
        await RunAsync(data, "play", "touring-night", "--machine", "curlew-desk");
        await AskAsync(data, damage);

        foreach (var arguments in (string[][])[["runs"], ["machines", "list"], ["briefs", "list"], ["timelines", "list"], ["advise", "touring-night"]])
        {
            var (code, _, errors) = await RunAsync(data, arguments);
            Assert.InRange(code, 0, ExitCodes.Input);
            Assert.DoesNotContain("   at ", errors, StringComparison.Ordinal);
            Assert.InRange(errors.Split('\n', StringSplitOptions.RemoveEmptyEntries).Length, 0, 2);
        }
    }

    /// <summary>Command lines of processes that have a folder in them.</summary>
    private static IEnumerable<string> CommandsThatName(string folder)
    {
        foreach (var process in Directory.GetDirectories("/proc").Where(path => char.IsAsciiDigit(Path.GetFileName(path)[0])))
        {
            string command;
            try
            {
                command = File.ReadAllText(Path.Combine(process, "cmdline"));
            }
            catch (Exception gone) when (gone is IOException or UnauthorizedAccessException)
            {
                continue;
            }

            if (command.Contains(folder, StringComparison.Ordinal))
            {
                yield return command;
            }
        }
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
        for (var i = 0; i < 6_000; i++)
        {
            if (await until())
            {
                return;
            }

            await Task.Delay(100);
        }

        throw new TimeoutException("It did not happen within ten minutes.");
    }

    private static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }
}
