using System.CommandLine;
using System.Globalization;
using HardyBench.Core;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Building;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Formats.Files;
using HardyBench.Formats.Interchange;
using HardyBench.Workbench;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

internal static class TimelinesCommand
{
    private static readonly Argument<string> Id = new("timeline") { Description = "Its id." };
    private static readonly Argument<string> Title = new("title") { Description = "Its title." };
    private static readonly Option<string?> Like = new("--like") { Description = "Take raster, rate and depth from this clip." };
    private static readonly Argument<FileInfo> Source = new("file") { Description = "An .otio or .edl file." };
    private static readonly Option<string?> Rate = new("--rate") { Description = "Frames a second, for edit decision lists, which do not contain it." };
    private static readonly Option<FileInfo> Into = new("--file")
    {
        Description = "The file to write: .otio, .edl or .json.",
        Required = true,
    };
    private static readonly Argument<SeriesKind> Kind = Choices.Argument<SeriesKind>("kind");
    private static readonly Option<string[]> Clips = new("--clip")
    {
        Description = "A clip's id. Repeat the option for several clips.",
        AllowMultipleArgumentsPerToken = true,
    };
    private static readonly Option<string[]> Effects = new("--effect")
    {
        Description = "An effect's id. Its values are the defaults.",
        AllowMultipleArgumentsPerToken = true,
    };
    private static readonly Option<int> Count = new("--count") { Description = "Steps.", DefaultValueFactory = _ => 4 };
    private static readonly Option<double> Seconds = new("--seconds")
    {
        Description = "Length of each passage.",
        DefaultValueFactory = _ => 5,
    };

    private static readonly Option<string[]> Work = new("--work")
    {
        Description = "Work of a week as CLIP:TREATMENT:STREAMS:HOURS, in hours of footage. Treatments: cut, graded, titled, cleaned. Repeat the option for several kinds of work.",
        Required = true,
    };

    public static Command Create() => new("timelines", "Benchmark timelines and their passages.")
    {
        new Command("list", "Lists timelines.").Running(async (_, bench, _) =>
        {
            foreach (var timeline in await bench.Timelines.AllAsync())
            {
                Terminal.Say($"{timeline.Id}: {timeline.Title}, {timeline.Raster} {timeline.Rate}, {timeline.Passages.Count} passages");
            }

            return ExitCodes.Done;
        }),
        new Command("show", "Shows the passages of a timeline, their load, and their problems.") { Id }.Running(ShowAsync),
        new Command("new", "Adds an empty timeline.") { Title, Like }.Running(async (parsed, bench, _) =>
        {
            var stored = await bench.Timelines.CreateAsync(parsed.GetValue(Title)!, parsed.GetValue(Like));
            Terminal.Say($"{stored.Timeline.Id}: {stored.Timeline.Raster} {stored.Timeline.Rate}");
            return ExitCodes.Done;
        }),
        new Command("build", "Adds a series of passages to the end of a timeline.") { Id, Kind, Clips, Effects, Count, Seconds }.Running(
            BuildAsync
        ),
        new Command("week", "Adds a timeline that represents a week's work, with a passage for each kind.") { Title, Work }.Running(WeekAsync),
        new Command("import", "Imports a timeline of another program.") { Source, Rate }.Running(ImportAsync),
        new Command("export", "Exports a timeline for other programs.") { Id, Into }.Running(async (parsed, bench, stop) =>
        {
            var file = parsed.GetValue(Into)!;
            var (text, notes) = await bench.Timelines.ExportAsync(parsed.GetValue(Id)!, file.Extension.TrimStart('.').ToLowerInvariant());
            await WholeFile.WriteAsync(file.FullName, text, stop);
            notes.ToList().ForEach(Terminal.Say);
            Terminal.Say($"Exported to {file.FullName}.");
            return ExitCodes.Done;
        }),
    };

    private static async Task<int> ShowAsync(ParseResult parsed, Bench bench, CancellationToken stop)
    {
        var timeline = (await bench.Timelines.FindAsync(parsed.GetValue(Id)!)).Timeline;
        Terminal.Say($"{timeline.Id}: {timeline.Title}, {timeline.Raster} {timeline.Rate}, {timeline.Passages.Count} passages");
        var table = new Table().AddColumns(
            "no.",
            "start",
            "title",
            "clips",
            "decode cores",
            "effects cores",
            "memory MB",
            "drive MB/s",
            "remarks"
        );
        foreach (var (index, (passage, review)) in timeline.Passages.Zip(bench.Timelines.Review(timeline)).Index())
        {
            table.AddRow(
                $"{index + 1}", Timecode.Of(timeline.StartOf(index), timeline.Rate), Markup.Escape(passage.Question),
                Markup.Escape(string.Join(", ", passage.Layers.Select(layer => layer.ClipId))),
                Figure(review.Asks.DecodeCores),
                Figure(review.Asks.EffectsCores),
                Figure(review.Asks.MemoryBytes / 1e6),
                Figure(review.Asks.DriveBytesPerSecond / 1e6),
                Markup.Escape(string.Join("; ", review.Problems.Concat(review.Remarks))));
        }

        Terminal.Show(table);
        return ExitCodes.Done;

        static string Figure(double value) => value.ToString("0.0", CultureInfo.InvariantCulture);
    }

    private static async Task<int> BuildAsync(ParseResult parsed, Bench bench, CancellationToken stop)
    {
        var stored = await bench.Timelines.FindAsync(parsed.GetValue(Id)!);
        var effects = (parsed.GetValue(Effects) ?? []).Select(id => EffectCatalogue.Find(id) is null
            ? throw new UnknownThingException("effect", id, EffectCatalogue.All.Select(kind => kind.Id))
            : Effect.Of(id)).ToList();
        var passages = bench.Timelines.Build(
            new Series(parsed.GetValue(Kind), parsed.GetValue(Clips) ?? [], effects, parsed.GetValue(Count), parsed.GetValue(Seconds)),
            stored.Timeline.Rate
        );
        await bench.Timelines.KeepAsync(stored.Timeline with { Passages = [.. stored.Timeline.Passages, .. passages] }, stored.Version);
        Terminal.Say($"{passages.Count} passages were added to {stored.Timeline.Id}.");
        return ExitCodes.Done;
    }

    private static async Task<int> WeekAsync(ParseResult parsed, Bench bench, CancellationToken stop)
    {
        var stored = await bench.Timelines.WriteWeekAsync(parsed.GetValue(Title)!, [.. parsed.GetValue(Work)!.Select(RowOf)]);
        Terminal.Say($"{stored.Timeline.Id}: {stored.Timeline.Raster} {stored.Timeline.Rate}, {stored.Timeline.Passages.Count} passages");
        return ExitCodes.Done;
    }

    private static WeekRow RowOf(string work) =>
        work.Split(':') is [var clip, var treatment, var streams, var hours]
        && Enum.TryParse<UsualTreatment>(treatment, ignoreCase: true, out var known) && !char.IsDigit(treatment[0])
        && int.TryParse(streams, NumberStyles.None, CultureInfo.InvariantCulture, out var count)
        && double.TryParse(hours, NumberStyles.Float, CultureInfo.InvariantCulture, out var length)
            ? new WeekRow(clip, known, count, length)
            : throw new SeriesException($"'{work}' is not CLIP:TREATMENT:STREAMS:HOURS, such as hall-wide:graded:1:6. Nothing was written.");

    private static async Task<int> ImportAsync(ParseResult parsed, Bench bench, CancellationToken stop)
    {
        var file = parsed.GetValue(Source)!;
        if (!file.Exists)
        {
            throw new InterchangeException($"There is no file {file.FullName}.");
        }

        var rate = parsed.GetValue(Rate) is { } given ? Rates.Parse(given) : (FrameRate?)null;
        var outcome = await bench.Timelines.ImportAsync(file.Name, await File.ReadAllTextAsync(file.FullName, stop), rate, stop);
        outcome.Notes.ToList().ForEach(Terminal.Say);
        foreach (var missing in outcome.Missing)
        {
            Terminal.Say(
                $"No clip was found for '{missing.Name}'{(missing.Substitutes.Count > 0 ? $"; of the same format: {string.Join(", ", missing.Substitutes)}" : "")}."
            );
        }

        Terminal.Say($"Imported as {outcome.Stored.Timeline.Id}, {outcome.Stored.Timeline.Passages.Count} passages.");
        return ExitCodes.Done;
    }
}
