using HardyBench.Benchmarks;
using HardyBench.Core.Playback;
using HardyBench.Media.Clips;
using HardyBench.Workbench;
using HardyBench.Workbench.Data;

// Measures what the product promises about itself, side by side with what it is measured against, in one run.
// Usage: make bench [WHAT="decode chain simulation playing live keeping footage practice costs overload limiters answer prediction"]. Uses the full pack of
// the data folder ($HARDYBENCH_DATA) and makes it if needed.
string[] wanted =
    args.Length > 0 ? args
    : ["decode", "chain", "simulation", "playing", "live", "keeping", "footage", "practice", "costs", "overload", "limiters",
        "answer", "prediction"];
if (wanted is [LiveBenchmark.Page, var address])
{
    await LiveBenchmark.ListenAsync(address);
}

var bench = await Bench.OpenAsync(DataFolder.Default, small: false, CancellationToken.None);
if (wanted is [ChainBenchmark.Alone])
{
    await ChainBenchmark.PlayAloneAsync(bench);
    return 0;
}

if (wanted is [ChainBenchmark.Nothing])
{
    return 0;
}

try
{
    await bench.ClipCreator.MakeAsync(null, null, CancellationToken.None);
}
catch (CreationException failure)
{
    await Console.Error.WriteLineAsync($"There is nothing to measure with: {failure.Message}");
    return 1;
}

Console.WriteLine($"Cores {Environment.ProcessorCount}; time a host took from them during each measurement is shown as 'stolen'.");
foreach (var what in wanted)
{
    try
    {
        if (!await MeasureAsync(what))
        {
            await Console.Error.WriteLineAsync($"There is no measurement '{what}'.");
            return 2;
        }
    }
    catch (MeasuringException failure)
    {
        await Console.Error.WriteLineAsync($"{what}: {failure.Message}");
        return 1;
    }
}

return 0;

async Task<bool> MeasureAsync(string what)
{
    switch (what)
    {
        case "decode":
            DecodeBenchmark.Run(bench);
            break;
        case "prediction":
            await PredictionBenchmark.RunAsync(bench);
            break;
        case "simulation":
            SimulationBenchmark.Run();
            break;
        case "playing":
            await PlaybackBenchmark.RunAsync(bench, new PlaybackSettings());
            break;
        case "chain":
            await ChainBenchmark.RunAsync(bench);
            break;
        case "live":
            await LiveBenchmark.RunAsync(bench);
            break;
        case "keeping":
            await KeepingBenchmark.RunAsync(bench);
            break;
        case "footage":
            FootageBenchmark.Run(bench);
            break;
        case "overload":
            await OverloadBenchmark.RunAsync(bench);
            break;
        case "costs":
            await CostBenchmark.RunAsync(bench);
            break;
        case "limiters":
            await LimiterBenchmark.RunAsync(bench);
            break;
        case "answer":
            await AnswerBenchmark.RunAsync(bench);
            break;
        case "practice":
            await PracticeBenchmark.RunAsync(bench);
            break;
        default:
            return false;
    }

    return true;
}
