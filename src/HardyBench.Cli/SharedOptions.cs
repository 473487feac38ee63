using System.CommandLine;
using HardyBench.Workbench;
using HardyBench.Workbench.Data;

namespace HardyBench.Cli;

/// <summary>Options that every command takes.</summary>
internal static class SharedOptions
{
    public static Option<string> Data { get; } = new("--data")
    {
        Description = "The data folder ($HARDYBENCH_DATA, else .hardybench).",
        DefaultValueFactory = _ => DataFolder.Default,
        Recursive = true,
    };

    public static Option<string> Pack { get; } = new("--pack")
    {
        Description = "Which starter pack: full, or small (a third of each side, for tests and small machines).",
        DefaultValueFactory = _ => "full",
        Recursive = true,
    };

    public static Option<string?> Watch { get; } = new("--watch")
    {
        Description = "A folder of your own clips. They are used in place and not copied.",
        Recursive = true,
    };

    static SharedOptions() => Pack.AcceptOnlyFromAmong("full", "small");

    public static async Task<Bench> OpenBenchAsync(ParseResult parsed, CancellationToken stop)
    {
        var bench = await Bench.OpenAsync(parsed.GetValue(Data)!, parsed.GetValue(Pack) == "small", stop, parsed.GetValue(Watch));
        bench.Storage.Changed += () => Console.Error.WriteLine(bench.Storage.Problem ?? "The drive accepts writes again.");
        return bench;
    }
}
