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
    private static readonly Option<string?> Like = new("--like") { Description = "A clip to take raster, rate and depth from." };
    private static readonly Argument<FileInfo> Source = new("file") { Description = "An .otio or .edl file." };
    private static readonly Option<string?> Rate = new("--rate") { Description = "Frames a second, for lists that do not say." };
    private static readonly Option<FileInfo> Into = new("--file")
    {
        Description = "Where to write it; .otio, .edl or .json.",
        Required = true,
    };
    private static readonly Argument<SeriesKind> Kind = Choices.Argument<SeriesKind>("kind");
    private static readonly Option<string[]> Clips = new("--clip")
    {
        Description = "A clip; several times for several.",
        AllowMultipleArgumentsPerToken = true,
    };
    private static readonly Option<string[]> Effects = new("--effect")
    {
        Description = "An effect's id, at its defaults.",
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
        Description = "A kind of work as CLIP:TREATMENT:STREAMS:HOURS, of footage a week; treatments are cut, graded, titled, cleaned. Several times for several.",
        Required = true,
    };

    public static Command Create() => new("timelines", "Benchmark timelines and their passages.")
    {
        new Command("list", "Lists them.").Running(async (_, bench, _) =>
        {
            foreach (var timeline in await bench.Timelines.AllAsync())
            {
                Terminal.Say($"{timeline.Id}: {timeline.Title}, {timeline.Raster} {timeline.Rate}, {timeline.Passages.Count} passages");
            }

            return ExitCodes.Done;
        }),
        new Command("show", "Shows the passages of one, what they ask, and what is wrong with them.") { Id }.Running(ShowAsync),
        new Command("new", "Begins an empty one.") { Title, Like }.Running(async (parsed, bench, _) =>
        {
            var stored = await bench.Timelines.CreateAsync(parsed.GetValue(Title)!, parsed.GetValue(Like));
            Terminal.Say($"{stored.Timeline.Id}: {stored.Timeline.Raster} {stored.Timeline.Rate}");
            return ExitCodes.Done;
        }),
        new Command("build", "Writes a series of passages at the end of one.") { Id, Kind, Clips, Effects, Count, Seconds }.Running(
            BuildAsync
        ),
        new Command("week", "Writes one that stands for a week's work: a passage for each kind of it.") { Title, Work }.Running(WeekAsync),
        new Command("import", "Reads another program's timeline.") { Source, Rate }.Running(ImportAsync),
        new Command("export", "Writes one for other programs.") { Id, Into }.Running(async (parsed, bench, stop) =>
        {
            var file = parsed.GetValue(Into)!;
            var (text, notes) = await bench.Timelines.ExportAsync(parsed.GetValue(Id)!, file.Extension.TrimStart('.').ToLowerInvariant());
            await WholeFile.WriteAsync(file.FullName, text, stop);
            notes.ToList().ForEach(Terminal.Say);
            Terminal.Say($"Written to {file.FullName}.");
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
            : throw new SeriesException($"'{work}' is no CLIP:TREATMENT:STREAMS:HOURS, such as hall-wide:graded:1:6. Nothing was written.");

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

        Terminal.Say($"Taken in as {outcome.Stored.Timeline.Id}, {outcome.Stored.Timeline.Passages.Count} passages.");
        return ExitCodes.Done;
    }
}
