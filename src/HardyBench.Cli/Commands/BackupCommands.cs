using System.CommandLine;
using HardyBench.Workbench.Data;

namespace HardyBench.Cli.Commands;

/// <summary>Backup and restore of what was measured and written: the database. Clips, proxies and renders are made again or copied as
/// files.</summary>
internal static class BackupCommands
{
    public static Command Backup()
    {
        var file = new Argument<string>("file") { Description = "The file to create for the copy." };
        return new Command("backup", "Copies the database (runs, trials, timelines, marks) to one file, also while a server runs.") { file }.Running(
            async (parsed, bench, stop) =>
        {
            var bytes = await Backups.MakeAsync(bench.Folder, parsed.GetValue(file)!, stop);
            Terminal.Say($"{parsed.GetValue(file)}: {bytes / 1e6:0.0} MB. Clips are not in it.");
            return ExitCodes.Done;
        });
    }

    public static Command Restore()
    {
        var file = new Argument<string>("file") { Description = "The copy made with 'hardybench backup'." };
        var command = new Command(
            "restore",
            "Replaces runs, trials, timelines and marks with those of a copy; the former database stays beside it."
        )
        {
            file,
        };
        command.SetAction((parsed, stop) => Guarded.RunAsync(
            async () =>
            {
                var kept = await Backups.RestoreAsync(new DataFolder(parsed.GetValue(SharedOptions.Data)!), parsed.GetValue(file)!, stop);
                Terminal.Say(kept is null ? "Restored." : $"Restored. The former database is kept as {kept}.");
                return ExitCodes.Done;
            },
            stop));
        return command;
    }
}
