using HardyBench.Benchmarks;
using HardyBench.Core.Playback;
using HardyBench.Workbench;

// Measures what the product promises about itself, side by side with what it is measured against, in one run.
// Usage: make bench [ARGUMENTS in HARDYBENCH_DATA]. Uses the full pack of the data folder and makes it if needed.
var bench = await Bench.OpenAsync(DataFolder.Default, small: false, CancellationToken.None);
await bench.ClipMaker.MakeAsync(null, CancellationToken.None);

Console.WriteLine($"Cores {Environment.ProcessorCount}; time a host took from them during each measurement is shown as 'stolen'.");
DecodeBenchmark.Run(bench);
SimulationBenchmark.Run();
await PlaybackBenchmark.RunAsync(bench, new PlaybackSettings());
