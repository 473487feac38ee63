using System.Text.Json;
using HardyBench.Core.Calibration;
using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Formats.Json;
using HardyBench.Formats.Runs;

namespace HardyBench.Formats.Tests;

/// <summary>What earlier versions wrote is read as they meant it.</summary>
public sealed class FormerNamesTests
{
    [Fact]
    public void A_prediction_of_an_earlier_version_is_read_and_written_under_the_present_names()
    {
        var text = File.ReadAllText(PathOf("prediction-of-october.json"));

        var prediction = JsonSerializer.Deserialize<Prediction>(text, BenchJson.Options)!;
        var written = JsonSerializer.Serialize(prediction, BenchJson.Options);

        Assert.Equal(
            new (double, Verdict?)[] { (61.5, null), (24.9, Verdict.Holds) },
            prediction.Passages.Select(passage => (passage.Predicted, passage.PredictedVerdict)));
        Assert.Equal([58.2, 25], prediction.Passages.Select(passage => passage.Measured));
        Assert.DoesNotContain("foretold", written, StringComparison.Ordinal);
        Assert.Equal(prediction.Passages, JsonSerializer.Deserialize<Prediction>(written, BenchJson.Options)!.Passages);
    }

    [Fact]
    public async Task Frames_and_loads_of_an_earlier_version_are_read()
    {
        var (frames, loads) = await RunColumns.ReadAsync(await File.ReadAllBytesAsync(PathOf("run-of-november.parquet")));

        Assert.Equal((1050, 3), (frames.Count, loads.Count(load => load.Kind == LoadKind.WastedWork)));
        var written = await RunColumns.ReadAsync(await RunColumns.WriteAsync(frames, loads));
        Assert.Equal(loads, written.Loads);
    }

    /// <summary>The program may be updated while a run that broke off waits to be made whole.</summary>
    [Fact]
    public async Task A_piece_of_an_earlier_version_is_read()
    {
        var piece = """{"progressed":{"frames":[],"loads":[{"at":"00:00:01","kind":"InVain","index":0,"value":0.5}],"failures":[]}}"""u8;

        var (_, loads) = await RunPiece.ReadAsync(piece.ToArray());

        Assert.Equal([new LoadReading(TimeSpan.FromSeconds(1), LoadKind.WastedWork, 0, 0.5f)], loads);
    }

    private static string PathOf(string file) => Repository.PathOf("tests", "HardyBench.Formats.Tests", "Former", file);
}
