using System.CommandLine;
using HardyBench.Core.Advice;
using HardyBench.Core.Wording;
using HardyBench.Formats.Advice;

namespace HardyBench.Cli.Commands;

internal static class AdviseCommand
{
    public static Command Create()
    {
        var timeline = new Argument<string>("timeline") { Description = "Its id." };
        var json = new Option<FileInfo?>("--json") { Description = "Export the advice to this file." };
        return new Command("advise", "Recommends a machine for a timeline at full preview scale, and states why the others were not chosen.")
        {
            timeline, json,
        }.Running(async (parsed, bench, stop) =>
        {
            var id = parsed.GetValue(timeline)!;
            await bench.Advice.PlayStandInsAsync(id, stop);
            var pick = await bench.Advice.AdviseAsync(id);
            Show(pick);
            if (parsed.GetValue(json) is { } file)
            {
                await File.WriteAllTextAsync(file.FullName, PickJson.Write(id, pick), stop);
            }

            return ExitCodes.Done;
        });
    }

    private static void Show(Pick pick)
    {
        Terminal.Say(pick.Machine is { } machine ? $"Recommended: {machine.Name}. {AdviceWords.ReasonFor(pick)}" : AdviceWords.ReasonFor(pick));
        foreach (var other in pick.Others)
        {
            Terminal.Say($"Not {other.Machine.Name}: {AdviceWords.WhyNot(other)}");
        }
    }
}
