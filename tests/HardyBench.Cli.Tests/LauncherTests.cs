using System.Diagnostics;

namespace HardyBench.Cli.Tests;

/// <summary>The script that people start. Compiling in the background, while something is played, would take from what is
/// measured.</summary>
public sealed class LauncherTests
{
    [Theory]
    [InlineData("0", "serve", "--port", "5999")]
    [InlineData("0", "--data", "somewhere", "play", "touring-night")]
    [InlineData("0", "trial", "repeat", "touring-night")]
    [InlineData("", "clips", "list")]
    public async Task What_plays_compiles_nothing_in_the_background(string compiling, params string[] words)
    {
        // A runtime that only says how it was started.
        var folder = TestData.NewFolder("launcher");
        var runtime = Path.Combine(folder, "dotnet");
        await File.WriteAllTextAsync(runtime, "#!/bin/sh\necho \"[$DOTNET_TieredCompilation] $*\"\n");
        Process.Start("chmod", ["+x", runtime]).WaitForExit();
        var start = new ProcessStartInfo("/bin/sh", [Repository.PathOf("hardybench"), .. words])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.Environment["PATH"] = $"{folder}:{Environment.GetEnvironmentVariable("PATH")}";
        start.Environment.Remove("DOTNET_TieredCompilation");
        using var launched = Process.Start(start)!;

        var said = (await launched.StandardOutput.ReadToEndAsync()).Trim().Split('\n')[^1];

        Assert.StartsWith($"[{compiling}] ", said, StringComparison.Ordinal);
        Assert.EndsWith(string.Join(' ', words), said, StringComparison.Ordinal);
    }
}
