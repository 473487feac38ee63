using System.CommandLine;
using HardyBench.Formats.Files;
using HardyBench.Workbench.Packs;

namespace HardyBench.Cli.Commands;

internal static class PacksCommand
{
    private static readonly Argument<string[]> Timelines = new("timeline") { Description = "Ids.", Arity = ArgumentArity.OneOrMore };
    private static readonly Argument<FileInfo> Pack = new("file") { Description = "The pack's file." };
    private static readonly Option<FileInfo> Into = new("--file") { Description = "The file to write.", Required = true };

    public static Command Create() => new("packs", "Timelines and their clips in one file, with checksums.")
    {
        new Command("export", "Exports timelines with all clips that they use.") { Timelines, Into }.Running(async (parsed, bench, stop) =>
        {
            var file = parsed.GetValue(Into)!.FullName;
            await WholeFile.WriteAsync(file, stream => bench.Packs.ExportAsync(parsed.GetValue(Timelines)!, stream, stop));
            Terminal.Say($"Packed into {file}, {new FileInfo(file).Length / 1e6:0} MB.");
            return ExitCodes.Done;
        }),
        new Command("import", "Checks a pack and imports it.") { Pack }.Running(async (parsed, bench, stop) =>
        {
            var file = parsed.GetValue(Pack)!;
            if (!file.Exists)
            {
                throw new PackException($"There is no file {file.FullName}.");
            }

            await using var stream = file.OpenRead();
            var ids = await bench.Packs.ImportAsync(stream, stop);
            Terminal.Say($"All checksums match. Imported: {string.Join(", ", ids)}.");
            return ExitCodes.Done;
        }),
    };
}
