using System.CommandLine;
using HardyBench.Core.Timelines;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

internal static class TimelinesCommand
{
    public static Command Create() => new Command("timelines", "Lists the benchmark timelines and their passages.")
        .Running(async (_, bench, _) =>
        {
            foreach (var timeline in await bench.TimelinesAsync())
            {
                Terminal.Say($"{timeline.Id}: {timeline.Title}, {timeline.Raster} {timeline.Rate}, {timeline.Passages.Count} passages");
                var table = new Table().AddColumns("no.", "start", "what it asks", "clips");
                foreach (var (index, passage) in timeline.Passages.Index())
                {
                    table.AddRow(
                        $"{index + 1}", Timecode.Of(timeline.StartOf(index), timeline.Rate), passage.Question,
                        string.Join(", ", passage.Layers.Select(layer => layer.ClipId)));
                }

                Terminal.Show(table);
            }

            return ExitCodes.Done;
        });
}
