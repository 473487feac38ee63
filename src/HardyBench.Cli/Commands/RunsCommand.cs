using System.CommandLine;
using System.Globalization;
using HardyBench.Core.Findings;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

internal static class RunsCommand
{
    public static Command Create() => new Command("runs", "Lists the saved runs, newest first.")
        .Running(async (_, bench, _) =>
        {
            var table = new Table().AddColumns("run", "started", "timeline", "machine", "scale", "ending", "holds", "wavers", "breaks");
            foreach (var run in await bench.RunList.AllAsync())
            {
                table.AddRow(
                    $"{run.Id}", run.StartedAtUtc.ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture), run.TimelineId,
                    run.MachineId, Word(run.Scale), Choices.WordOf(run.Ending) + (run.NotCounting is null ? string.Empty : ", does not count"),
                    Count(Verdict.Holds), Count(Verdict.Wavers), Count(Verdict.Breaks));

                string Count(Verdict verdict) => $"{run.Passages.Count(passage => passage.Verdict == verdict)}";
            }

            Terminal.Show(table);
            return ExitCodes.Done;

            static string Word(Enum value) => value.ToString().ToLowerInvariant();
        });
}
