using System.CommandLine;
using System.Globalization;
using HardyBench.Core.Findings.Explaining;
using HardyBench.Core.Playback;
using HardyBench.Formats.Runs;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

/// <summary>Prints what became of every passage's frames, and where the time of the cores went.</summary>
internal static class ExplainCommand
{
    private static readonly Argument<long> RunId = new("run") { Description = "Its number (hardybench runs)." };

    private static readonly Option<FileInfo?> Decisions = new("--decisions")
    {
        Description = "The decision log that was written with 'play --decisions'. Without it, frames begun and expected times are unknown.",
    };

    public static Command Create() =>
        new Command("explain", "Shows for each passage of a run what happened to its frames and what the cores did.") { RunId, Decisions }
            .Running(async (parsed, bench, stop) =>
            {
                var id = parsed.GetValue(RunId);
                var run = (await bench.FindRunAsync(id)).Run;
                if (run.Header.IsByHand)
                {
                    throw new FormatException($"Run {id} was scrubbed: it has lags and no frames to explain.");
                }

                var log = parsed.GetValue(Decisions) is { } file
                    ? DecisionLines.Read(await File.ReadAllBytesAsync(file.FullName, stop), id, run.Header)
                    : null;
                Show(id, run, PassageExplanation.Of(run, log));
                return ExitCodes.Done;
            });

    private static void Show(long id, Run run, IReadOnlyList<PassageExplanation> passages)
    {
        Terminal.Say($"Run {id}: {run.Header.Timeline.Title} on {run.Header.Machine.Name}");
        Terminal.Say("Frames:");
        Terminal.Show(Frames(passages));
        Terminal.Say("Seconds of one core, during the slots of the passage:");
        Terminal.Show(Cores(passages));
        if (passages.Any(passage => passage.Decided is not null))
        {
            Terminal.Say("Milliseconds from beginning a frame to finishing it; for early frames this includes waiting for a place in the look-ahead:");
            Terminal.Show(Decided(passages));
        }
    }

    private static Table Frames(IReadOnlyList<PassageExplanation> passages)
    {
        var table = new Table().AddColumns(
            "no.", "passage", "slots", "begun", "finished", "on time", "late", "median ms late", "overdue", "median ms overdue",
            "longest ms overdue", "dropped", "dropped because", "worked on, not shown", "% of work wasted");
        foreach (var passage in passages)
        {
            var (finding, counts) = (passage.Finding, passage.Finding.Counts);
            table.AddRow(
                $"{finding.Index + 1}", Markup.Escape(finding.Passage.Question), $"{counts.Slots}",
                passage.Decided is { } decided ? $"{decided.Begun}" : Unknown, $"{passage.Finished}", $"{counts.OnTime}",
                $"{counts.Late}", counts.Late > 0 ? Milliseconds(counts.Lateness) : Unknown, $"{counts.Overdue}",
                counts.Overdue > 0 ? Milliseconds(counts.OverdueBy.Median) : Unknown,
                counts.Overdue > 0 ? Milliseconds(counts.OverdueBy.Longest) : Unknown, $"{counts.StartUpDrops + counts.SteadyDrops}",
                string.Join(", ", counts.DropsByReason.OrderByDescending(one => one.Value)
                    .Select(one => $"{one.Value} {Choices.WordOf(one.Key).Replace('-', ' ')}")),
                $"{finding.Wasted.Frames}", Number(100 * finding.Wasted.Share, "0"));
        }

        return table;
    }

    private static Table Cores(IReadOnlyList<PassageExplanation> passages)
    {
        var table = new Table().AddColumns(
            "no.", "all", "decoding", "effects", "encoding", "presenting", "preview pictures", "measuring and logging", "other programs", "idle");
        foreach (var passage in passages.Where(passage => passage.Cores is not null))
        {
            var cores = passage.Cores!;
            double?[] parts =
            [
                cores.Length, cores.Decode, cores.Effects, cores.Encode, cores.Presenting, cores.Pictures, cores.Tool, cores.Others,
                cores.Idle,
            ];
            table.AddRow([$"{passage.Finding.Index + 1}", .. parts.Select(part => Number(part, "0.00"))]);
        }

        return table;
    }

    private static Table Decided(IReadOnlyList<PassageExplanation> passages)
    {
        var table = new Table().AddColumns(
            "no.", "frames given up", "median", "median longer than expected", "most longer than expected");
        foreach (var passage in passages.Where(passage => passage.Decided is not null))
        {
            var decided = passage.Decided!;
            table.AddRow(
                $"{passage.Finding.Index + 1}", $"{decided.GivenUp}", Milliseconds(decided.Took), Milliseconds(decided.Error),
                Milliseconds(decided.LongestError));
        }

        return table;
    }

    private const string Unknown = "—";

    private static string Milliseconds(TimeSpan? time) => Number(time?.TotalMilliseconds, "0");

    private static string Number(double? value, string format) => value?.ToString(format, CultureInfo.InvariantCulture) ?? Unknown;
}
