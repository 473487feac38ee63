using System.CommandLine;
using System.Text.Json;
using HardyBench.Core.Calibration;
using HardyBench.Core.Wording;
using HardyBench.Formats.Json;
using HardyBench.Workbench;
using HardyBench.Workbench.Calibration;
using Spectre.Console;
using static System.FormattableString;

namespace HardyBench.Cli.Commands;

internal static class CalibrateCommand
{
    public static Command Create()
    {
        var json = new Option<FileInfo?>("--json") { Description = "Export measurements and fit to this file, as JSON." };
        return new Command("calibrate", "Measures what decoding and effects cost on this machine, and adds its twin, a stand-in with these costs.") { json }
            .Running(async (parsed, bench, stop) =>
            {
                MachineCalibration? calibration = null;
                await Terminal.WithProgressAsync("Measuring this machine", async report =>
                    calibration = await bench.Calibrations.MeasureAsync(
                        new Direct<CalibrationProgress>(progress => report(progress.What, progress.Share)), stop));
                Show(calibration!);
                if (parsed.GetValue(json) is { } file)
                {
                    await File.WriteAllTextAsync(file.FullName, JsonSerializer.Serialize(calibration, BenchJson.Options), stop);
                }

                return ExitCodes.Done;
            });
    }

    private static void Show(MachineCalibration calibration)
    {
        var table = new Table().AddColumns("clip", "format", "measured, ms per frame", "fitted, ms per frame");
        foreach (var decode in calibration.Decodes)
        {
            table.AddRow(
                decode.Clip, $"{decode.Format.Encoding} {decode.Format.Raster}", Invariant($"{decode.Measured * 1000:0.00}"),
                Invariant($"{decode.Fitted * 1000:0.00}"));
        }

        Terminal.Show(table);
        Terminal.Say(CalibrationWords.Of(calibration));
        Terminal.Say(Invariant($"Measured in {calibration.Took.TotalSeconds:0} s. The stand-in '{calibration.Twin.Id}' plays by it from now on."));
    }
}
