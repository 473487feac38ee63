using System.Diagnostics;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;

namespace HardyBench.Benchmarks;

/// <summary>Simulated frames a second of one core, in runs as long as timelines are. Beside it, as a bound of the same minute on the same
/// core: how many such frames a second could be drawn and written down if nothing were decided. Asked: three million.
/// Where everything holds, stretches are calculated at once; where it breaks, event by event.</summary>
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
            var (read, decode) = (Of(1, frame, Station.Drive, VisitKind.Read), Of(20, frame, Station.Processor, VisitKind.Decode));
            var (copy, effects) = (Of(2, frame, Station.Bus, VisitKind.Copy), Of(8, frame, Station.Graphics, VisitKind.Effects));
            var done = read + decode + copy + effects;
            records[frame] = new FrameRecord(
                frame, done, done, done, FrameStatus.OnTime, DropReason.None, read, decode + copy, effects, TimeSpan.Zero, 0);
        }

        return Stopwatch.GetElapsedTime(start).TotalSeconds;

        TimeSpan Of(int milliseconds, int frame, Station station, VisitKind kind) =>
            spread.Draw(TimeSpan.FromMilliseconds(milliseconds), 0, frame, station, kind);
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
