using System.CommandLine;
using HardyBench.Player.Clips;
using HardyBench.Player.Native;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

internal static class ClipsCommand
{
    public static Command Create() => new("clips", "The clips that timelines play.")
    {
        new Command("list", "Lists them.").Running((_, bench, _) =>
        {
            var table = new Table().AddColumns("id", "format", "raster and rate", "data rate", "GOP", "frames", "file");
            foreach (var recipe in bench.Clips.Recipes)
            {
                var made = bench.Clips.Made(recipe);
                var format = made?.Format ?? recipe.Asked;
                table.AddRow(
                    recipe.Id, format.Encoding, format.RasterAndRate, format.DataRate.ToString(), $"{format.GopLength}",
                    $"{recipe.FrameCount}", made is null ? "not made yet" : recipe.FileName);
            }

            Terminal.Show(table);
            return Task.FromResult(ExitCodes.Done);
        }),
        new Command("make", "Makes the clips that are missing.").Running(async (_, bench, stop) =>
        {
            PlayerLibraries.Versions();
            await Terminal.WithProgressAsync("Making clips", report => bench.ClipMaker.MakeAsync(
                new Direct<MakingProgress>(progress => report(progress.Clip ?? "all made", progress.Share)), stop));
            Terminal.Say($"{bench.Clips.Recipes.Count} clips in {bench.Clips.Path}.");
            return ExitCodes.Done;
        }),
    };

    /// <summary>Reports at once on the caller's thread, so that lines keep their order.</summary>
    private sealed class Direct<T>(Action<T> report) : IProgress<T>
    {
        public void Report(T value) => report(value);
    }
}
