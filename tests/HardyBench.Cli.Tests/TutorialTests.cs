using System.Text.RegularExpressions;
using HardyBench.Cli;
using static HardyBench.Cli.Tests.Command;

namespace HardyBench.Cli.Tests;

/// <summary>Every command of the tutorial works as it is written, in its order, on a new folder.</summary>
public sealed partial class TutorialTests
{
    [Fact]
    public async Task The_commands_of_the_first_hour_work_as_written()
    {
        var folder = TestData.NewFolder();
        var commands = (await File.ReadAllLinesAsync(Repository.PathOf("docs", "tutorial.md")))
            .Where(line => line.StartsWith(Start, StringComparison.Ordinal)).Select(line => Words(line[Start.Length..])).ToList();

        Assert.Equal(["serve"], commands[0]);
        foreach (var command in commands.Skip(1))
        {
            var (code, _, errors) = await RunAsync(folder, command);

            Assert.True(code == ExitCodes.Done, $"'{string.Join(' ', command)}' ended with {code}: {errors}");
        }

        Assert.True(commands.Count > 8, "the tutorial lost its commands");
    }

    private const string Start = "./hardybench --data first-bench ";

    /// <summary>As a shell reads them: quotes hold words together.</summary>
    private static string[] Words(string line) => [.. Word().Matches(line).Select(word => word.Value.Trim('"'))];

    [GeneratedRegex("\"[^\"]*\"|\\S+")]
    private static partial Regex Word();
}
