using System.Diagnostics;

namespace HardyBench.Cli.Tests;

/// <summary>Runs the command in a process of its own.</summary>
internal static class Command
{
    public static Task<(int Code, string Output, string Errors)> RunAsync(string data, params string[] arguments) =>
        RunAsync(data, arguments, TheProgram);

    /// <summary>The program as people start it, compiled ahead.</summary>
    public static string TheProgram { get; } = Repository.PathOf(
        "src",
        "HardyBench.Cli",
        "bin",
        AppContext.BaseDirectory.Contains("/Debug/", StringComparison.Ordinal) ? "Debug" : "Release",
        "program"
    );

    public static async Task<(int Code, string Output, string Errors)> RunAsync(string data, string[] arguments, string program)
    {
        using var process = Start(data, arguments, program);
        var (output, errors) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync();
        return (process.ExitCode, await output, await errors);
    }

    public static Process Start(string data, string[] arguments, string program)
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
