using System.CommandLine;
using System.Globalization;
using HardyBench.Core;
using HardyBench.Core.Footage;
using HardyBench.Media.Clips;
using HardyBench.Workbench;
using HardyBench.Workbench.Clips;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

internal static class ClipsCommand
{
    private static readonly Argument<string[]> Ids = new("clip")
    {
        Description = "Ids of recipes. Without any: those of the demo.",
        Arity = ArgumentArity.ZeroOrMore,
    };
    private static readonly Argument<FileInfo> File = new("file") { Description = "A video file." };
    private static readonly Argument<string> Id = new("clip") { Description = "Its id." };
    private static readonly Option<string> Family = new("--family") { Description = "All recipes of this family." };
    private static readonly Option<bool> Every = new("--all") { Description = "All recipes." };

    public static Command Create() => new("clips", "The clips that timelines play.")
    {
        new Command("list", "Lists clips.").Running((_, bench, _) => List(bench)),
        new Command("recipes", "Lists the recipes for clips, by family.").Running((_, bench, _) => Recipes(bench)),
        new Command("create", "Creates clips that are missing.") { Ids, Family, Every }.Running(MakeAsync),
        new Command("probe", "Inspects a file without importing it.") { File }.Running(async (parsed, _, stop) =>
        {
            var report = await ClipProbe.LookAsync(Existing(parsed.GetValue(File)!), null, stop);
            Terminal.Say(
                $"{report.Format.Encoding}, {report.Format.RasterAndRate}, {report.FrameCount} frames, GOP {report.Format.GopLength}, {report.Format.DataRate}{(report.Profile is null ? "" : $", {report.Profile}")}"
            );
            report.Caveats.ToList().ForEach(caveat => Terminal.Say($"  caveat: {caveat}"));
            return ExitCodes.Done;
        }),
        new Command("import", "Imports a file as a clip of your own.") { File }.Running(async (parsed, bench, stop) =>
        {
            var source = Existing(parsed.GetValue(File)!);
            var copy = Path.Combine(bench.Folder.Incoming, Path.GetRandomFileName());
            System.IO.File.Copy(source, copy);
            try
            {
                var clip = await bench.Clips.Own!.TakeAsync(copy, Path.GetFileName(source), stop);
                Terminal.Say($"Imported as {clip.Id}.");
                return ExitCodes.Done;
            }
            finally
            {
                System.IO.File.Delete(copy);
            }
        }),
        new Command("facts", "Shows what a clip's format means for playback.") { Id }.Running((parsed, bench, _) => Facts(bench, parsed.GetValue(Id)!)),
    };

    private static Task<int> List(Bench bench)
    {
        var table = new Table().AddColumns("id", "format", "raster and rate", "data rate", "GOP", "frames", "state");
        foreach (var clip in bench.Clips.Clips.Values)
        {
            table.AddRow(
                clip.Id, clip.Format.Encoding, clip.Format.RasterAndRate, clip.Format.DataRate.ToString(), $"{clip.Format.GopLength}",
                $"{clip.FrameCount}", clip.Sha256 is null ? "not created yet" : Markup.Escape(string.Join(", ", clip.Caveats ?? ["ready"])));
        }

        Terminal.Show(table);
        foreach (var refused in bench.Clips.Own!.Refused)
        {
            Terminal.Say($"Not imported: {refused.Why}");
        }

        return Task.FromResult(ExitCodes.Done);
    }

    private static Task<int> Recipes(Bench bench)
    {
        var table = new Table().AddColumns("family", "id", "title", "requested", "raster and rate", "encoder");
        foreach (var recipe in bench.Clips.Recipes.OrderBy(recipe => recipe.Family, StringComparer.Ordinal))
        {
            var made = bench.Clips.Made(recipe);
            table.AddRow(
                recipe.Family, recipe.Id, recipe.Title, $"{recipe.Asked.Encoding}, GOP {recipe.GopLength}, {recipe.Asked.DataRate}",
                recipe.Asked.RasterAndRate,
                made is null
                    ? "—"
                    : $"GOP {made.Format.GopLength}, {made.Format.DataRate}{(made.Profile is null ? "" : $", {made.Profile}")}"
            );
        }

        Terminal.Show(table);
        return Task.FromResult(ExitCodes.Done);
    }

    private static async Task<int> MakeAsync(ParseResult parsed, Bench bench, CancellationToken stop)
    {
        var known = bench.Clips.Recipes.Select(recipe => recipe.Id).ToList();
        string[]? wanted = parsed.GetValue(Every) ? [.. known]
            : parsed.GetValue(Family) is { } family
                ? [.. bench.Clips.Recipes.Where(recipe => recipe.Family == family).Select(recipe => recipe.Id)]
            : parsed.GetValue(Ids) is { Length: > 0 } ids ? ids
            : null;
        if (wanted is [] || wanted?.Except(known).FirstOrDefault() is not null)
        {
            throw new UnknownThingException(
                "recipe",
                wanted.Except(known).FirstOrDefault() ?? parsed.GetValue(Family)!,
                [.. bench.Clips.Recipes.Select(recipe => recipe.Family).Distinct(), .. known]
            );
        }

        await Terminal.WithProgressAsync("Creating clips", report => bench.ClipCreator.MakeAsync(
            wanted, new Direct<CreationProgress>(progress => report(progress.Clip ?? "all created", progress.Share)), stop));
        Terminal.Say($"{(wanted ?? StarterPack.DemoIds).Count} clips are ready in {bench.Clips.Path}.");
        return ExitCodes.Done;
    }

    private static Task<int> Facts(Bench bench, string id)
    {
        var clip = bench.Clips.Clips.Known(id);
        var facts = ClipFacts.Of(clip.Format);
        var table = new Table().AddColumns("fact", "value");
        foreach (var (name, value) in new (string, FormattableString)[]
        {
            ("format", $"{clip.Format.Encoding}, {clip.Format.RasterAndRate}"),
            ("samples a second", $"{facts.SamplesPerSecond / 1e6:0.0} million"),
            ("uncompressed", $"{facts.Uncompressed}"),
            ("compressed", $"{clip.Format.DataRate}, 1 : {facts.CompressionRatio:0.0}, {facts.BitsPerPixel:0.00} bits per pixel"),
            ("an hour", $"{facts.GigabytesPerHour:0.0} GB"),
            (
                "profile and level needed",
                $"{(facts.Standard is { } standard ? $"{standard.Profile}, {standard.Level ?? "none"}{(standard.Refusal is { } why ? $"; {why}" : "")}" : "—")}"
            ),
            ("profile in the file", $"{clip.Profile ?? "—"}"),
            ("frames decoded per random access", $"{facts.MeanRandomAccess:0.0} on average, {facts.WorstRandomAccess} at worst"),
            ("memory for a second of frames", $"{facts.MemoryPerSecond / 1e6:0} MB"),
            ("streams from a drive of 500 MB/s", $"{ClipFacts.StreamsFrom(clip.Format, 500)}"),
        })
        {
            table.AddRow(name, Markup.Escape(value.ToString(CultureInfo.InvariantCulture)));
        }

        Terminal.Show(table);
        return Task.FromResult(ExitCodes.Done);
    }

    private static string Existing(FileInfo file) =>
        file.Exists ? file.FullName : throw new MediaException($"There is no file {file.FullName}.");
}
