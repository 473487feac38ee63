using System.Diagnostics;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;

namespace HardyBench.Benchmarks;

/// <summary>Simulated frames a second of one core, in runs as long as timelines are. Beside it, as a bound of the same minute on the same
/// core: how many such frames a second could be drawn and written down if nothing were decided. Asked: three million.
/// Where everything holds, stretches are reckoned at once; where it breaks, event by event.</summary>
internal static class SimulationBenchmark
{
    private const int Runs = 40, Frames = 25_000;

    public static void Run()
    {
        Console.WriteLine("\nSimulation");
        foreach (var (name, decode) in new[] { ("holds", 20.0), ("breaks", 60.0) })
        {
            var stolen = new Stolen();
            var best = Enumerable.Range(0, 3).Min(_ => Enumerable.Range(0, Runs).Sum(_ => Once(decode)));
            var bound = Enumerable.Range(0, 3).Min(_ => Enumerable.Range(0, Runs).Sum(_ => DrawnOnly()));
            Console.WriteLine(
                $"  {name, -12} {Runs * Frames / best / 1e6, 6:0.00} million frames a second, drawn alone "
                    + $"{Runs * Frames / bound / 1e6, 6:0.00}: {bound / best, 4:0.00}   {stolen.SoFar()}"
            );
        }
    }

    /// <summary>Four services drawn for each frame, and its record.</summary>
    private static double DrawnOnly()
    {
        var spread = Uneven();
        var records = new FrameRecord[Frames];
        var start = Stopwatch.GetTimestamp();
        for (var frame = 0; frame < Frames; frame++)
        {
            var (read, decode) = (spread.Draw(TimeSpan.FromMilliseconds(1), 0), spread.Draw(TimeSpan.FromMilliseconds(20), 1));
            var (copy, effects) = (spread.Draw(TimeSpan.FromMilliseconds(2), 2), spread.Draw(TimeSpan.FromMilliseconds(8), 3));
            var done = read + decode + copy + effects;
            records[frame] = new FrameRecord(
                frame, done, done, done, FrameStatus.OnTime, DropReason.None, read, decode + copy, effects, TimeSpan.Zero, 0);
        }

        return Stopwatch.GetElapsedTime(start).TotalSeconds;
    }

    private static ServiceSpread Uneven() => new(1, 0.08, 0.0002, TimeSpan.FromMilliseconds(12));

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
            [demand], new FrameRate(25), new PlaybackSettings(), Uneven(), null);
        var start = Stopwatch.GetTimestamp();
        simulation.Play();
        return Stopwatch.GetElapsedTime(start).TotalSeconds;
    }
}
