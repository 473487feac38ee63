using System.Diagnostics;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;

namespace HardyBench.Benchmarks;

/// <summary>Simulated frames a second. Promise: at least a million.</summary>
internal static class SimulationBenchmark
{
    private const int Frames = 1_000_000;

    public static void Run()
    {
        Console.WriteLine("\nSimulation");
        foreach (var (name, decode) in new[] { ("holds", 20.0), ("breaks", 60.0) })
        {
            var stolen = new Stolen();
            var best = Enumerable.Range(0, 3).Min(_ => Once(decode));
            Console.WriteLine($"  {name,-12} {Frames / best / 1e6,6:0.00} million frames a second   {stolen.SoFar()}");
        }
    }

    private static double Once(double decode)
    {
        var demand = new PassageDemand(
            Frames,
            [
                new Visit(Station.Drive, VisitKind.Read, [TimeSpan.FromMilliseconds(1)]),
                new Visit(Station.Processor, VisitKind.Decode, [TimeSpan.FromMilliseconds(decode)]),
                new Visit(Station.Bus, VisitKind.Copy, [TimeSpan.FromMilliseconds(2)]),
                new Visit(Station.Graphics, VisitKind.Effects, [TimeSpan.FromMilliseconds(8)]),
            ],
            KeyInterval: 1, 0, 0, 0, 0, []);
        var simulation = new Simulation(
            [demand], new FrameRate(25), new PlaybackSettings(), new ServiceSpread(1, 0.08, 0.0002, TimeSpan.FromMilliseconds(12)), null);
        var start = Stopwatch.GetTimestamp();
        simulation.Play();
        return Stopwatch.GetElapsedTime(start).TotalSeconds;
    }
}
