using System.Diagnostics;
using System.Text.Json;
using System.Text.Json.Nodes;
using HardyBench.Cli;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Workbench.Data;
using static HardyBench.Cli.Tests.Command;

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
        string[] statuses = ["onTime", "late", "overdue", "startUpDrops", "steadyDrops"];
        Assert.All(run["passages"]!.AsArray(), row => Assert.Equal((int)row!["slots"]!, statuses.Sum(status => (int)row[status]!)));
        Assert.True(new FileInfo(frames).Length > 1000);
    }

    [Fact]
    public async Task A_run_is_explained_with_its_decision_log_and_without()
    {
        var folder = TestData.NewFolder();
        var log = Path.Combine(folder, "decisions.jsonl");
        await RunAsync(folder, "play", "touring-night", "--machine", "stint-laptop", "--decisions", log);
        await RunAsync(folder, "play", "touring-night", "--machine", "curlew-desk");

        var (code, output, _) = await RunAsync(folder, "explain", "1", "--decisions", log);
        var (_, without, _) = await RunAsync(folder, "explain", "1");
        var (ofOther, _, refusal) = await RunAsync(folder, "explain", "2", "--decisions", log);
        var (unknown, _, known) = await RunAsync(folder, "explain", "7");

        Assert.Equal(ExitCodes.Done, code);
        Assert.Contains("overdue", output, StringComparison.Ordinal);
        Assert.Contains("median longer than expected", output, StringComparison.Ordinal);
        Assert.DoesNotContain("beyond what was expected", without, StringComparison.Ordinal);
        Assert.Equal((ExitCodes.Input, ExitCodes.Unknown), (ofOther, unknown));
        Assert.Contains("is of run 1", refusal, StringComparison.Ordinal);
        Assert.Contains("There is no run '7'. Known: 2, 1.", known, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Advice_can_be_read_and_written()
    {
        var folder = TestData.NewFolder();
        var json = Path.Combine(folder, "advice.json");

        var (code, output, _) = await RunAsync(folder, "advise", "touring-night", "--json", json);

        Assert.Equal(ExitCodes.Done, code);
        Assert.StartsWith("Recommended: ", output, StringComparison.Ordinal);
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
        await RunAsync(folder, "play", "touring-night", "--machine", "curlew-desk", "--program", "tallow", "--json", json);
        Assert.Equal("Tallow", (string)JsonNode.Parse(await File.ReadAllTextAsync(json))!["settings"]!["program"]!["name"]!);
        Assert.Equal(
            ExitCodes.Unknown, (await RunAsync(folder, "play", "touring-night", "--machine", "curlew-desk", "--program", "none-such")).Code);

        await File.WriteAllTextAsync(file, "no json");
        var (refused, _, why) = await RunAsync(folder, "programs", "--import", file);
        Assert.Equal(ExitCodes.Input, refused);
        Assert.Contains("not JSON", why, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("--program", "play", "touring-night", "--machine", "curlew-desk", "--as=none-such")]
    [InlineData("--real-time", "trial", "repeat", "none-such", "--at-clock")]
    [InlineData("--format", "trial", "export", "none-such", "--writes", "hevc")]
    [InlineData("--places", "trial", "start-lag", "none-such", "--times", "2")]
    [InlineData("--pairs", "trial", "compare", "none-such", "--times=2", "--to-scale", "half")]
    [InlineData("'clips create'", "clips", "make", "none-such")]
    public async Task Names_of_the_version_before_work_with_a_notice(string present, params string[] arguments)
    {
        var (code, _, errors) = await RunAsync(TestData.NewFolder(), arguments);

        Assert.Equal(ExitCodes.Unknown, code);
        Assert.Contains($"is now called {present}.", errors, StringComparison.Ordinal);
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
        var (answered, said, _) = await RunAsync(folder, "answer", "matinee", "--json", json, "--csv", $"{json}.csv");
        Assert.Equal(ExitCodes.Done, answered);
        Assert.StartsWith("Buy ", said, StringComparison.Ordinal);
        Assert.Equal("buy", (string)JsonNode.Parse(await File.ReadAllTextAsync(json))!["kind"]!);
        Assert.Contains("recommended,", await File.ReadAllTextAsync($"{json}.csv"), StringComparison.Ordinal);
        Assert.Contains(
            "Nothing within the budget", (await RunAsync(folder, "answer", "matinee", "--budget", "10")).Output, StringComparison.Ordinal);
        Assert.Equal(ExitCodes.Unknown, (await RunAsync(folder, "answer", "none-such")).Code);

        var (misfit, why, _) = await RunAsync(
            folder, "parts", "--check", "brant-8,smew-large,memory-32x2,case-small,cooler-flat,supply-300,nvme-1");
        Assert.Equal(ExitCodes.Input, misfit);
        Assert.Contains("socket", why, StringComparison.Ordinal);

        var (weekly, written, _) = await RunAsync(
            folder, "timelines", "week", "Our week", "--work", "hd-avc-50:graded:2:6", "--work", "hd-avc-50:cut:1:1.5");
        Assert.Equal(ExitCodes.Done, weekly);
        Assert.Contains("our-week: 640×360 50, 2 passages", written, StringComparison.Ordinal);
        foreach (var wrong in new[] { "hd-avc-50:sung:1:1", "hd-avc-50", "none-such:cut:1:1", "hd-avc-50:2:1:1" })
        {
            Assert.Equal(ExitCodes.Input, (await RunAsync(folder, "timelines", "week", "Our week", "--work", wrong)).Code);
        }
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
        Assert.Matches("1 +HD AVC, no effects .* holds from full scale", output);
    }

    [Fact]
    public async Task Help_lists_every_kind_of_trial()
    {
        var (code, output, _) = await RunAsync(TestData.NewFolder(), "trial", "--help");

        Assert.Equal(ExitCodes.Done, code);
        Assert.All(Enum.GetValues<TrialKind>(), kind => Assert.Contains($"  {JsonNamingPolicy.KebabCaseLower.ConvertName($"{kind}")} ", output, StringComparison.Ordinal));
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
            "Unrecognized command or argument 'stepDown'.",
            ["trial", "stepDown", "touring-night"]
        },
        { ExitCodes.Usage, "'--pairs'", ["trial", "repeat", "touring-night", "--pairs", "3"] },
        { ExitCodes.Usage, "hardybench --help", ["dance"] },
        { ExitCodes.Media, "A repeat takes 3 to 50 runs, not 2", ["trial", "repeat", "touring-night", "--times", "2"] },
        { ExitCodes.Unknown, "There is no timeline 'nope'.", ["trial", "ramp", "nope"] },
        { ExitCodes.Unknown, "There is no timeline 'compare'.", ["trial", "repeat", "compare", "--times", "3"] },
        { ExitCodes.Media, "is not created yet", ["play", "touring-night", "--machine", "this"] },
        { ExitCodes.DataFolder, "cannot be written", ["runs", "--data", "/proc/hardybench"] },
        {
            ExitCodes.DataFolder,
            "The run itself is saved",
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
        Assert.Contains("Imported as matinee-2, 3 passages", said, StringComparison.Ordinal);
        Assert.Equal(ExitCodes.Input, broken);
        Assert.Contains("Line 1", why, StringComparison.Ordinal);
    }
}
