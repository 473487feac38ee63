using System.CommandLine;
using System.Globalization;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using HardyBench.Core.Wording;
using HardyBench.Formats.Files;
using HardyBench.Formats.Runs;
using HardyBench.Store;
using HardyBench.Workbench;
using HardyBench.Workbench.Plays;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

internal static class PlayCommand
{
    private static readonly Argument<string> TimelineId = new("timeline") { Description = "Its id." };

    private static readonly Option<FileInfo?> Json = new("--json") { Description = "Export the results to this file, as JSON." };
    private static readonly Option<FileInfo?> Frames = new("--frames") { Description = "Export frames and loads to this file, as Parquet." };
    private static readonly Option<FileInfo?> Decisions = new("--decisions")
    {
        Description = "Export every decision about a frame to this file, as JSON lines for 'hardybench explain'.",
    };

    public static Command Create()
    {
        var command = new Command("play", "Plays a timeline and saves the run.") { TimelineId, MachineOption.Machine, Json, Frames, Decisions };
        SettingsOptions.All.ToList().ForEach(command.Options.Add);
        return command.Running(PlayAsync);
    }

    private static async Task<int> PlayAsync(ParseResult parsed, Bench bench, CancellationToken stop)
    {
        var settings = await SettingsOptions.ReadAsync(parsed, bench);
        var plan = (await bench.Plays.PlanAsync(parsed.GetValue(TimelineId)!, MachineOption.Read(parsed, bench), settings)).Checked()
            with { LogsDecisions = parsed.GetValue(Decisions) is not null };
        StoredRun? stored = null;
        var decisions = new List<Decision>();
        await Terminal.WithProgressAsync($"Playing {plan.Timeline.Title}", async report =>
            stored = await bench.Plays.PlayAsync(plan, new Reporter(plan, report, decisions), stop));

        var (id, run) = stored!;
        var findings = RunFindings.Of(run);
        Show(id, run, findings);
        await WriteAsync(
            parsed.GetValue(Json),
            () => Task.FromResult(System.Text.Encoding.UTF8.GetBytes(RunJson.Write(id, run, findings)))
        );
        await WriteAsync(parsed.GetValue(Frames), () => RunColumns.WriteAsync(run.Frames, run.Loads));
        await WriteAsync(parsed.GetValue(Decisions), () => Task.FromResult(DecisionLines.Write(id, run.Header, decisions)));
        foreach (var failure in run.Failures)
        {
            await Console.Error.WriteLineAsync(failure.Overcome
                ? $"Passage {failure.PassageIndex + 1}: {failure.Message}."
                : $"Passage {failure.PassageIndex + 1} failed: {failure.Message} The other passages are saved.");
        }

        return run.Ending == RunEnding.Stopped ? ExitCodes.Stopped
            : run.Failures.Any(failure => !failure.Overcome) ? ExitCodes.Media
            : ExitCodes.Done;
    }

    internal static void Show(long id, Run run, IReadOnlyList<PassageFinding> findings)
    {
        var rate = run.Header.Timeline.Rate;
        var lag = run.StartLag is { } shown
            ? string.Create(CultureInfo.InvariantCulture, $", start lag {shown.TotalMilliseconds:0} ms")
            : string.Empty;
        Terminal.Say(
            $"Run {id}: {run.Header.Timeline.Title} on {run.Header.Machine.Name}, {Choices.WordOf(run.Ending).Replace('-', ' ')}{lag}"
        );
        var table = new Table().AddColumns(
            "no.",
            "passage",
            "verdict",
            $"shown of {rate}",
            "slots",
            "on time",
            "late",
            "overdue",
            "start-up drops",
            "steady drops",
            "freeze ms",
            "limiter"
        );
        foreach (var finding in findings)
        {
            var counts = finding.Counts;
            table.AddRow(
                $"{finding.Index + 1}", Markup.Escape(finding.Passage.Question), finding.Verdict?.ToString().ToLowerInvariant() ?? "—",
                counts.ShownRate.ToString("0.0", CultureInfo.InvariantCulture), $"{counts.Slots}", $"{counts.OnTime}", $"{counts.Late}",
                $"{counts.Overdue}", $"{counts.StartUpDrops}", $"{counts.SteadyDrops}",
                counts.LongestFreeze.TotalMilliseconds.ToString("0", CultureInfo.InvariantCulture),
                Markup.Escape(LimiterWords.Evidence(finding) ?? string.Empty)
            );
        }

        Terminal.Show(table);
        if (AdviceWords.NotCounting(run, findings) is { } why)
        {
            Terminal.Say(why);
        }
    }

    /// <summary>Writes a file whole or not at all.</summary>
    private static async Task WriteAsync(FileInfo? file, Func<Task<byte[]>> content)
    {
        if (file is null)
        {
            return;
        }

        try
        {
            await WholeFile.WriteAsync(file.FullName, await content(), CancellationToken.None);
        }
        catch (Exception failure) when (failure is IOException or UnauthorizedAccessException)
        {
            throw new IOException($"{file.FullName} cannot be written: {failure.Message} The run itself is saved.", failure);
        }
    }

    private sealed class Reporter(PlaybackPlan plan, Action<string, double> report, List<Decision> decisions) : IRunListener
    {
        public void Started(long id, RunHeader header)
        {
        }

        public void Progressed(long id, RunProgress progress)
        {
            decisions.AddRange(progress.Decisions);
            if (progress.Frames.Count > 0)
            {
                var frame = progress.Frames[^1].Frame;
                var index = plan.Timeline.PassageIndexAt(frame);
                report($"passage {index + 1}, {plan.Timeline.Passages[index].Question}", (frame + 1.0) / plan.Timeline.FrameCount);
            }
        }

        public void Pictured(long id, int frame, byte[] jpeg)
        {
        }
    }
}
