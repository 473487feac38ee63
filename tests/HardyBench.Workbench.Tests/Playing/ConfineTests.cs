using System.Diagnostics;
using HardyBench.Workbench.Playing;

namespace HardyBench.Workbench.Tests.Playing;

/// <summary>What a program can do that is started as the player is; a shell stands in for a player that a clip has taken over.</summary>
public sealed class ConfineTests
{
    [Theory]
    [InlineData("echo in; /bin/ls / && echo out; echo \"$?\"", "in", "out")]
    [InlineData("echo in; (echo out) ", "in", "out")]
    [InlineData("echo in; exec 3<>/dev/tcp/127.0.0.1/9 && echo out", "in", "out")]
    [InlineData("echo in; read -r line < /etc/hostname && echo out", "in", "out")]
    [InlineData("echo in; echo x > /tmp/hardybench-out && echo out", "in", "out")]
    public async Task It_starts_no_process_reaches_no_network_and_opens_only_what_it_was_handed(
        string script,
        string expected,
        string never
    )
    {
        var said = await RunAsync("-c", script);

        Assert.Contains(expected, said, StringComparison.Ordinal);
        Assert.DoesNotContain(never, said, StringComparison.Ordinal);
    }

    /// <summary>Without this a shell that cannot start for another reason would pass the cases above.</summary>
    [Fact]
    public async Task It_can_do_what_it_was_handed() =>
        Assert.Contains(
            "in 7",
            await RunAsync("-c", "read -r line < /usr/lib/os-release; echo in $((3 + 4)) \"$line\""),
            StringComparison.Ordinal
        );

    [Fact]
    public async Task The_player_says_that_it_is_confined_so()
    {
        using var player = await PlayerProcess.StartAsync(new PlayerProgram([], TestData.NewFolder()), [], CancellationToken.None);

        Assert.SkipWhen(player.Greeting.ReachesAllFiles, "This kernel does not confine processes to files.");
        Assert.True(player.Greeting.StaysAlone);
    }

    private static async Task<string> RunAsync(params string[] arguments)
    {
        var start = new ProcessStartInfo(Path.Combine(AppContext.BaseDirectory, "player", "hardybench-confine"))
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        foreach (
            var argument in (string[])
                ["--read", "/usr", "--read", "/lib", "--read", "/lib64", "--read", "/bin", "--", "/bin/bash", "--norc", .. arguments]
        )
        {
            start.ArgumentList.Add(argument);
        }

        using var process = Process.Start(start)!;
        var (output, errors) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync();
        await errors;
        return await output;
    }
}
