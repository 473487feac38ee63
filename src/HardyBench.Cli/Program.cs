using System.CommandLine;
using HardyBench.Cli;
using HardyBench.Cli.Commands;

using var stopping = new Stopping();
OwnProcess.Hide();
// A failure on a thread of its own would otherwise abort the process with a stack trace.
AppDomain.CurrentDomain.UnhandledException += (_, failed) =>
{
    Console.Error.WriteLine(Guarded.LineOf(failed.ExceptionObject as Exception));
    Environment.Exit(ExitCodes.Failed);
};

var root = new RootCommand("Plays benchmark timelines on this machine and on stand-ins, and reports which machines play them in real time.")
{
    SharedOptions.Data,
    SharedOptions.Pack,
    SharedOptions.Watch,
    ClipsCommand.Create(),
    TimelinesCommand.Create(),
    PacksCommand.Create(),
    MachinesCommand.Create(),
    ProgramsCommand.Create(),
    PlayCommand.Create(),
    TrialCommand.Create(),
    CalibrateCommand.Create(),
    RunsCommand.Create(),
    ExplainCommand.Create(),
    AdviseCommand.Create(),
    BriefsCommand.Create(),
    BriefsCommand.Answer(),
    PartsCommand.Create(),
    ServeCommand.Create(),
    TokenCommand.Create(),
    BackupCommands.Backup(),
    BackupCommands.Restore(),
};
var parsed = root.Parse(FormerNames.Replaced(args, Console.Error.WriteLine));
if (parsed.Errors.Count > 0 && args.Length > 0)
{
    foreach (var error in parsed.Errors)
    {
        await Console.Error.WriteLineAsync(error.Message);
    }

    await Console.Error.WriteLineAsync("'hardybench --help' lists the commands.");
    return ExitCodes.Usage;
}

// The program watches for signals itself, see above.
var invocation = new InvocationConfiguration { EnableDefaultExceptionHandler = false, ProcessTerminationTimeout = null };
return await Guarded.RunAsync(() => parsed.InvokeAsync(invocation, stopping.Token), stopping.Token);
