using System.Diagnostics;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Runs;
using HardyBench.Server.Timelines;
using HardyBench.Store;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>An hour at 60 frames a second, kept and opened again. Promises: at most 6 bytes a frame, and its comb and figures are
/// there in less than 300 ms.</summary>
internal static class KeepingBenchmark
{
    private const int Frames = 60 * 3600, Rounds = 5;

    public static async Task RunAsync(Bench bench)
    {
        Console.WriteLine("\nKeeping an hour at 60 frames a second");
        var folder = Directory.CreateTempSubdirectory("hardybench-keeping-").FullName;
        var databases = new BenchDatabaseFactory(Path.Combine(folder, "bench.db"));
        await databases.MigrateAsync(CancellationToken.None);
        var (runs, writer, run) = (new RunReader(databases), new RunWriter(databases), await HourAsync(bench));
        var id = await writer.BeginAsync(run.Header);
        await writer.FinishAsync(id, run);

        var whole = (await RunColumns.WriteAsync(run.Frames, run.Loads)).Length;
        var framesOnly = (await RunColumns.WriteAsync(run.Frames, [])).Length;
        Console.WriteLine(
            $"  frames {(double)framesOnly / Frames:0.00} bytes each, with loads ten times a second {(double)whole / Frames:0.00}"
        );
        var (judged, opened) = (double.MaxValue, double.MaxValue);
        for (var round = 0; round < Rounds; round++)
        {
            var began = Stopwatch.GetTimestamp();
            var teeth = (await runs.JudgedAsync(id))!.Passages[0].Teeth.Length;
            judged = Math.Min(judged, Stopwatch.GetElapsedTime(began).TotalMilliseconds);
            began = Stopwatch.GetTimestamp();
            var frames = RunSummary.Of((await runs.FindAsync(id))!.Run).Passages[0].Teeth.Length;
            opened = Math.Min(opened, Stopwatch.GetElapsedTime(began).TotalMilliseconds);
            Debug.Assert((teeth, frames) == (Frames, Frames), "every frame has its tooth");
        }

        Console.WriteLine(
            $"  its figures and its comb, as kept beside it, in {judged:0} ms; opened whole and judged again in {opened:0} ms"
        );
        Directory.Delete(folder, recursive: true);
    }

    /// <summary>Uneven as a real run: times scatter, now and then a frame is dropped, loads wander.</summary>
    private static async Task<Run> HourAsync(Bench bench)
    {
        var plan = await bench.Plays.PlanAsync("touring-night", "this", new PlaybackSettings());
        var rate = new FrameRate(60);
        var timeline = plan.Timeline with { Rate = rate, Passages = [plan.Timeline.Passages[0] with { FrameCount = Frames }] };
        var random = new Random(1);
        var frames = Enumerable.Range(0, Frames).Select(n =>
        {
            var (start, dropped) = (rate.StartOf(n), random.Next(200) == 0);
            return new FrameRecord(
                n, start, dropped ? null : start - Milliseconds(40 + 20 * random.NextDouble()), dropped ? null : start + Milliseconds(0.02),
                dropped ? FrameStatus.Dropped : FrameStatus.OnTime, dropped ? DropReason.NotReady : DropReason.None,
                Milliseconds(0.3 + 0.1 * random.NextDouble()), Milliseconds(6 + random.NextDouble()), Milliseconds(3 + random.NextDouble()),
                Milliseconds(40), 5 + random.Next(2));
        }).ToList();
        var loads = Enumerable.Range(0, 36_000).SelectMany(n => Enumerable.Range(0, 12).Select(kind =>
            new LoadReading(TimeSpan.FromSeconds(n / 10.0), (LoadKind)kind, 0, (float)random.NextDouble()))).ToList();
        var conditions = new Conditions("benchmark", null, [0], null, null, null);
        return new Run(
            new RunHeader(timeline, plan.Machine, plan.Settings, conditions, new Dictionary<string, string>(), DateTimeOffset.UnixEpoch),
            RunEnding.Finished,
            TimeSpan.Zero,
            frames,
            loads,
            []
        );

        static TimeSpan Milliseconds(double ms) => TimeSpan.FromTicks((long)(ms * TimeSpan.TicksPerMillisecond));
    }
}
