using System.CommandLine;
using HardyBench.Workbench;

namespace HardyBench.Cli;

/// <summary>On which machine something is played.</summary>
internal static class MachineOption
{
    private const string This = "this";

    public static Option<string> Machine { get; } = new("--machine")
    {
        Description = "The machine: 'this', or an id (hardybench machines).", DefaultValueFactory = _ => This,
    };

    /// <summary>The id of the machine that was named.</summary>
    public static string Read(ParseResult parsed, Bench bench) =>
        parsed.GetValue(Machine) is { } id && id != This ? id : bench.Machines.Host.Id;
}
