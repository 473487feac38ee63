using System.CommandLine;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Wording;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

internal static class PartsCommand
{
    private static readonly Option<FileInfo?> Import = new("--import") { Description = "Add or change the parts of this JSON or CSV file." };
    private static readonly Option<FileInfo?> Export = new("--export") { Description = "Write all of them here, as CSV where the name ends so, else as JSON." };
    private static readonly Option<string?> Check = new("--check")
    {
        Description = "Say why these do not make a machine, or what they cost: ids, parted by commas.",
    };

    public static Command Create() => new Command("parts", "Lists the parts that machines can be put together from.") { Import, Export, Check }
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
