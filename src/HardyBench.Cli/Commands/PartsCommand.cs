using System.CommandLine;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Wording;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

internal static class PartsCommand
{
    private static readonly Option<FileInfo?> Import = new("--import") { Description = "Import parts from this JSON or CSV file; parts with known ids are changed." };
    private static readonly Option<FileInfo?> Export = new("--export") { Description = "Export all of them to this file: CSV if its name ends in .csv, else JSON." };
    private static readonly Option<string?> Check = new("--check")
    {
        Description = "Check whether these parts make a machine: ids, separated by commas. Prints the price, or what does not fit.",
    };

    public static Command Create() => new Command("parts", "Lists, imports and exports the parts that machines are built from.") { Import, Export, Check }
        .Running(async (parsed, bench, stop) =>
        {
            if (parsed.GetValue(Import) is { } file)
            {
                var outcome = await bench.Catalogue.ImportAsync(await File.ReadAllTextAsync(file.FullName, stop));
                Terminal.Say($"{outcome.Added} added, {outcome.Changed} changed.");
                foreach (var problem in outcome.Problems)
                {
                    await Console.Error.WriteLineAsync($"{problem.Where} ({problem.Name ?? "no name"}) was left out: {problem.Why}");
                }
            }

            var parts = await bench.Catalogue.AllAsync();
            if (parsed.GetValue(Check) is { } wanted)
            {
                var (problems, price) = new Catalogue(parts).Check(
                    wanted.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries));
                Terminal.Say(problems.Count == 0 ? $"They make a machine of {AnswerWords.Money(price)}." : string.Join(' ', problems));
                return problems.Count == 0 ? ExitCodes.Done : ExitCodes.Input;
            }

            var table = new Table().AddColumns("id", "kind", "name", "price", "what it is");
            foreach (var part in parts)
            {
                table.AddRow(
                    part.Id, PartWords.KindOf(part), Markup.Escape(part.Name), AnswerWords.Money(part.Price),
                    Markup.Escape(PartWords.Of(part)));
            }

            Terminal.Show(table);
            if (parsed.GetValue(Export) is { } target)
            {
                var format = target.Extension.Equals(".csv", StringComparison.OrdinalIgnoreCase) ? "csv" : "json";
                await File.WriteAllTextAsync(target.FullName, await bench.Catalogue.ExportAsync(format), stop);
            }

            return ExitCodes.Done;
        });
}
