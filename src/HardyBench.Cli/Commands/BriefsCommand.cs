using System.CommandLine;
using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Wording;
using HardyBench.Formats.Advice;
using Spectre.Console;
using static System.FormattableString;

namespace HardyBench.Cli.Commands;

/// <summary>Briefs and their answers.</summary>
internal static class BriefsCommand
{
    private static readonly Option<FileInfo?> Import = new("--import") { Description = "Import briefs from this JSON file." };
    private static readonly Option<FileInfo?> Export = new("--export") { Description = "Export all of them to this file, as JSON." };

    public static Command Create() => new Command("briefs", "Lists, imports and exports briefs.") { Import, Export }
        .Running(async (parsed, bench, stop) =>
        {
            if (parsed.GetValue(Import) is { } file)
            {
                foreach (var problem in (await bench.Briefs.ImportAsync(await File.ReadAllTextAsync(file.FullName, stop))).Problems)
                {
                    await Console.Error.WriteLineAsync($"{problem.Where} ({problem.Name ?? "no name"}) was left out: {problem.Why}");
                }
            }

            var table = new Table().AddColumns("id", "name", "work", "budget", "owned machine");
            foreach (var (brief, _) in await bench.Briefs.AllAsync())
            {
                table.AddRow(
                    brief.Id, Markup.Escape(brief.Name), string.Join(", ", brief.Timelines),
                    brief.Budget is { } budget ? AnswerWords.Money(budget) : "any", brief.Owned ?? "nothing");
            }

            Terminal.Show(table);
            if (parsed.GetValue(Export) is { } target)
            {
                await File.WriteAllTextAsync(target.FullName, await bench.Briefs.ExportAsync(), stop);
            }

            return ExitCodes.Done;
        });

    /// <summary>The answer to one.</summary>
    public static Command Answer()
    {
        var id = new Argument<string>("brief") { Description = "Its id (hardybench briefs)." };
        var budget = new Option<decimal?>("--budget") { Description = "A budget that replaces the brief's." };
        var json = new Option<FileInfo?>("--json") { Description = "Export the answer to this file." };
        var csv = new Option<FileInfo?>("--csv") { Description = "Export its figures to this file, as CSV." };
        return new Command("answer", "Answers a brief: keep the machine that you own, work in another way, or buy.")
        {
            id, budget, json, csv,
        }.Running(async (parsed, bench, stop) =>
        {
            var brief = (await bench.Briefs.FindAsync(parsed.GetValue(id)!)).Thing;
            brief = parsed.GetValue(budget) is { } other ? brief with { Budget = other } : brief;
            var answer = await bench.Answers.AnswerAsync(brief, stop);
            Show(answer);
            var document = AnswerDocument.Of(answer, await bench.Answers.TitlesAsync(brief));
            foreach (var (file, text) in new[] { (json, AnswerJson.Write(document)), (csv, AnswerCsv.Write(document)) })
            {
                if (parsed.GetValue(file) is { } target)
                {
                    await File.WriteAllTextAsync(target.FullName, text, stop);
                }
            }

            return ExitCodes.Done;
        });
    }

    private static void Show(Answer answer)
    {
        Terminal.Say($"{AnswerWords.Headline(answer)}. {AnswerWords.Reason(answer)}");
        if (AnswerWords.Storage(answer) is { } storage)
        {
            Terminal.Say(storage);
        }

        foreach (var remedy in answer.Remedies)
        {
            Terminal.Say($"{AnswerWords.Of(remedy)}: {AnswerWords.Gain(remedy)}");
        }

        foreach (var rung in answer.Ladder.Rungs.Concat(answer.Ladder.Useless))
        {
            Terminal.Say($"{AnswerWords.Of(rung)}, {AnswerWords.Money(rung.Price)}: {AnswerWords.Gain(rung)}");
        }

        if (AnswerWords.Path(answer) is { } path)
        {
            Terminal.Say(path);
        }

        var table = new Table().AddColumns("price", "machine or build", "headroom", "probability that all of it plays", "limits first");
        foreach (var step in answer.Shortlist.Within(answer.Brief.Budget).Steps)
        {
            table.AddRow(
                AnswerWords.Money(step.Offer.Price), Markup.Escape(step.Offer.Machine.Name), Invariant($"{step.Weakest.Headroom:0.00}"),
                Invariant($"{step.Chance:0 %}"), AnswerWords.Of(step.Weakest.Tightest));
        }

        Terminal.Show(table);
        Terminal.Say(AnswerWords.Of(answer.Shortlist.Counts));
    }
}
