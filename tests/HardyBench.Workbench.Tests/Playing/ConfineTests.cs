using System.Diagnostics;
using HardyBench.Media.Commands;
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

    /// <summary>A program that tries everything that what has been taken over could try. Beside it runs an unconfined one: what that
    /// cannot do either proves nothing.</summary>
    [Fact]
    public async Task Whatever_a_clip_could_make_it_try_is_refused()
    {
        using var player = await PlayerProcess.StartAsync(new PlayerProgram([], TestData.NewFolder()), [], CancellationToken.None);
        Assert.SkipWhen(
            player.Greeting is not { RulesVersion: >= 3, StaysAlone: true }, "This kernel does not confine processes as far as that.");
        var folder = TestData.NewFolder("probe");
        var probe = await BuildAsync(folder);

        var (free, confined) = (await ProbeAsync(folder, probe, isConfined: false), await ProbeAsync(folder, probe, isConfined: true));

        Assert.Equal("end", free[^1]);
        Assert.Equal("end", confined[^1]);
        Assert.True(free.Count(line => line.StartsWith("DONE", StringComparison.Ordinal)) > 15, string.Join('\n', free));
        Assert.All(confined.SkipLast(1), line => Assert.StartsWith("refused", line, StringComparison.Ordinal));
        Assert.True(confined.Count > free.Count);
    }

    private static async Task<string> BuildAsync(string folder)
    {
        var source = Repository.PathOf("tests", "HardyBench.Workbench.Tests", "Playing", "probe.c");
        var probe = Path.Combine(folder, "probe");
        var (code, said) = await StartAsync("gcc", ["-O1", "-o", probe, source]);
        Assert.True(code == 0, said);
        return probe;
    }

    /// <summary>Against a file, a process, sockets and a port of this test's own.</summary>
    private static async Task<IReadOnlyList<string>> ProbeAsync(string folder, string probe, bool isConfined)
    {
        var (file, home) = (Path.Combine(folder, "victim"), Directory.CreateDirectory(Path.Combine(folder, "home")).FullName);
        await File.WriteAllTextAsync(file, "victim");
        var (path, name) = (Path.Combine(folder, $"socket-{isConfined}"), $"hardybench-probe-{Environment.ProcessId}-{isConfined}");
        using var port = new System.Net.Sockets.TcpListener(System.Net.IPAddress.Loopback, 0);
        port.Start();
        using var byPath = Listening(path);
        using var byName = Listening("\0" + name);
        using var victim = Process.Start(new ProcessStartInfo("sleep", "600"))!;
        try
        {
            string[] asked =
                [probe, $"{victim.Id}", file, path, name, $"{((System.Net.IPEndPoint)port.LocalEndpoint).Port}", home];
            var (_, said) = isConfined
                ? await StartAsync(
                    Confinement.Program,
                    [
                        .. Confinement.System.SelectMany(one => new[] { "--read", one }), "--read", probe, "--read", "/proc/self",
                        "--read", $"/proc/{victim.Id}/task", "--file", $"{64 << 20}", "--scratch", home, "--", .. asked,
                    ])
                : await StartAsync(probe, [.. asked[1..], "gently"]);
            return said.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        }
        finally
        {
            victim.Kill();
            foreach (var left in new[] { "/tmp/probe-renamed", "/tmp/probe-linked", "/tmp/probe-symlink", "/tmp/probe-made", "/dev/shm/probe-made" })
            {
                File.Delete(left);
            }

            Directory.Delete(home, recursive: true);
        }
    }

    private static System.Net.Sockets.Socket Listening(string at)
    {
        var socket = new System.Net.Sockets.Socket(
            System.Net.Sockets.AddressFamily.Unix, System.Net.Sockets.SocketType.Stream, System.Net.Sockets.ProtocolType.Unspecified);
        socket.Bind(new System.Net.Sockets.UnixDomainSocketEndPoint(at));
        socket.Listen();
        return socket;
    }

    private static async Task<(int Code, string Said)> StartAsync(string program, IEnumerable<string> arguments)
    {
        var start = new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true };
        using var process = Process.Start(start)!;
        var (output, errors) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync();
        return (process.ExitCode, await output + await errors);
    }

    private static async Task<string> RunAsync(params string[] arguments)
    {
        var start = new ProcessStartInfo(Confinement.Program)
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
