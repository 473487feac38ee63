using System.CommandLine;
using HardyBench.Core.Wording;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

internal static class ProgramsCommand
{
    private static readonly Option<FileInfo?> Import = new("--import") { Description = "Import editing programs from this JSON file." };
    private static readonly Option<FileInfo?> Export = new("--export") { Description = "Export all of them to this file, as JSON." };

    public static Command Create() => new Command("programs", "Lists the editing programs that stand-ins can play as.") { Import, Export }
        .Running(async (parsed, bench, stop) =>
        {
            if (parsed.GetValue(Import) is { } file)
            {
                foreach (var problem in (await bench.Programs.ImportAsync(await File.ReadAllTextAsync(file.FullName, stop))).Problems)
                {
                    await Console.Error.WriteLineAsync($"{problem.Where} ({problem.Name ?? "no name"}) was left out: {problem.Why}");
                }
            }

            var table = new Table().AddColumns("id", "name", "how it uses a machine");
            foreach (var (program, _) in await bench.Programs.AllAsync())
            {
                table.AddRow(program.Id, Markup.Escape(program.Name), Markup.Escape(string.Join("; ", ProgramWords.Of(program))));
            }

            Terminal.Show(table);
            if (parsed.GetValue(Export) is { } target)
            {
                await File.WriteAllTextAsync(target.FullName, await bench.Programs.ExportAsync(), stop);
            }

            return ExitCodes.Done;
        });
}
