using HardyBench.Benchmarks;
using HardyBench.Core.Playback;
using HardyBench.Workbench;

// Measures what the product promises about itself, side by side with what it is measured against, in one run.
// Usage: make bench [WHAT="decode simulation playing footage"]. Uses the full pack of the data folder ($HARDYBENCH_DATA) and
// makes it if needed.
string[] wanted = args.Length > 0 ? args : ["decode", "simulation", "playing", "footage"];
var bench = await Bench.OpenAsync(DataFolder.Default, small: false, CancellationToken.None);
await bench.ClipMaker.MakeAsync(null, null, CancellationToken.None);

Console.WriteLine($"Cores {Environment.ProcessorCount}; time a host took from them during each measurement is shown as 'stolen'.");
foreach (var what in wanted)
{
    switch (what)
    {
        case "decode":
            DecodeBenchmark.Run(bench);
            break;
        case "simulation":
            SimulationBenchmark.Run();
            break;
        case "playing":
            await PlaybackBenchmark.RunAsync(bench, new PlaybackSettings());
            break;
        case "footage":
            FootageBenchmark.Run(bench);
            break;
        default:
            await Console.Error.WriteLineAsync($"There is no measurement '{what}'.");
            return 2;
    }
}

return 0;
