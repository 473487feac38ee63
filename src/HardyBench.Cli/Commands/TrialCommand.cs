using System.CommandLine;
using System.Globalization;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials;
using HardyBench.Core.Wording;
using HardyBench.Workbench;
using HardyBench.Workbench.Trials;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

internal static class TrialCommand
{
    private static readonly Argument<string> TimelineId = new("timeline") { Description = "Its id." };

    private static readonly Option<bool> AtClock = new("--real-time")
    {
        Description = "On a stand-in: play in real time instead of calculating the run at once.",
    };

    /// <summary>A command for each kind, with the options of that kind.</summary>
    public static Command Create()
    {
        var all = new Command("trial", "Answers one question about a machine, with as many runs as it takes.");
        foreach (var kind in TrialOptions.All)
        {
            var command = new Command(Choices.WordOf(kind.Kind), kind.Question) { TimelineId, MachineOption.Machine, AtClock };
            kind.Options.Concat(SettingsOptions.All).ToList().ForEach(command.Options.Add);
            all.Add(command.Running((parsed, bench, stop) => PlayAsync(kind, parsed, bench, stop)));
        }

        return all;
    }

    private static async Task<int> PlayAsync(TrialOptions kind, ParseResult parsed, Bench bench, CancellationToken stop)
    {
        var settings = await SettingsOptions.ReadAsync(parsed, bench);
        var asked = await bench.Trials.AskAsync(
            await kind.Read(parsed, settings, bench), parsed.GetValue(TimelineId)!, MachineOption.Read(parsed, bench), settings,
            parsed.GetValue(AtClock));
        TrialReport? report = null;
        await Terminal.WithProgressAsync($"Trial {asked.Id}", async tell =>
            report = await bench.Trials.PlayAsync(asked.Id, new Listener(asked.Asked.Timeline.FrameCount, tell), stop));
        Show(report!);
        return report!.Trial.State == TrialState.Stopped ? ExitCodes.Stopped : ExitCodes.Done;
    }

    internal static void Show(TrialReport report)
    {
        Terminal.Say($"Trial {report.Trial.Id}: {report.Trial.Asked.Timeline.Title}. {TrialWords.Of(report.Answer)}");
        if (report.Answer.NextStep is { } next)
        {
            Terminal.Say($"Next: {next}");
        }

        var table = new Table().AddColumns([
            new TableColumn("no."),
            new TableColumn("passage"),
            .. report.Runs.Select(run => new TableColumn(Markup.Escape(run.Role.Label))),
            new TableColumn("answer"),
        ]);
        foreach (var row in report.Answer.Rows)
        {
            var cells = row.Cells.Count == 0 ? report.Runs.Select(_ => string.Empty) : row.Cells.Select(cell => cell is null ? string.Empty
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"{cell.Verdict?.ToString().ToLowerInvariant() ?? "—"} {cell.Counts.ShownRate:0.0}"
                )
            );
            table.AddRow([$"{row.Index + 1}", Markup.Escape(row.Question), .. cells, Markup.Escape(row.Words)]);
        }

        Terminal.Show(table);
    }

    private sealed class Listener(long frames, Action<string, double> tell) : ITrialListener
    {
        private string step = string.Empty;

        public void Making(string what) => tell($"creating the {what}", 0);

        public void StepBegan(TrialStep step, int number, int? of) => tell(this.step = step.Role.Label, 0);

        public void Started(long id, RunHeader header)
        {
        }

        public void Progressed(long id, RunProgress progress)
        {
            if (progress.Frames.Count > 0)
            {
                tell(step, Math.Min(1, (progress.Frames[^1].Frame + 1.0) / frames));
            }
        }

        public void Pictured(long id, int frame, byte[] jpeg)
        {
        }
    }
}
