using System.Diagnostics;
using System.Globalization;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Player.Course;
using HardyBench.Player.Playing;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>Decoding and effects together, as fast as they go, against FFmpeg's own command with the same graph, each in a process of
/// its own, turn and turn about. Promises: at least 0.9 of FFmpeg's frames a second, and the player's process at most 1.2 of its peak
/// memory and what the look-ahead holds.</summary>
internal static class ChainBenchmark
{
    /// <summary>The argument with which this program is started again to be measured alone.</summary>
    public const string Alone = "chain-alone";

    /// <summary>The argument with which it does nothing but come up.</summary>
    public const string Nothing = "nothing";

    private const int Rounds = 3, Frames = 300;

    public static async Task RunAsync(Bench bench)
    {
        Console.WriteLine("\nDecode and effects, frames a second (player / ffmpeg = share); peak memory beside it");
        var (plan, passage) = await PlanAsync(bench);
        var clip = bench.Clips.PathOf(bench.Clips.Clips[passage.Layers[0].ClipId]);
        var graph = "[0:v]null[in0];" + Graphs.Of(bench).Describe(plan, passage);
        var (player, ffmpeg) = (default(Measured), default(Measured));
        var stolen = new Stolen();
        for (var round = 0; round < Rounds; round++)
        {
            ffmpeg = ffmpeg.Better(
                Ffmpeg([
                    "-v",
                    "error",
                    "-stream_loop",
                    "-1",
                    "-i",
                    clip,
                    "-filter_complex",
                    graph,
                    "-map",
                    "[out]",
                    "-frames:v",
                    $"{Frames}",
                    "-f",
                    "null",
                    "-",
                ])
            );
            player = player.Better(Player());
        }

        var frame = plan.Timeline.Raster.Pixels * 3 / 2;
        var ahead = (plan.Settings.LookAhead + PlaybackSettings.DecodeAhead) * frame / 1e6;
        Console.WriteLine($"  {player.Rate,7:0.0} / {ffmpeg.Rate,7:0.0} = {player.Rate / ffmpeg.Rate:0.00}   {stolen.SoFar()}");
        await bench.Plays.PlayAsync(plan, null, CancellationToken.None);
        Console.WriteLine(
            $"  peak memory of the player's own process after a run of it {bench.Players.Processes.Max(MeasuredProcess.PeakOf):0} MB"
        );
        Console.WriteLine(
            $"  peak memory {player.Megabytes:0} MB, FFmpeg {ffmpeg.Megabytes:0} MB, look-ahead {ahead:0} MB, .NET itself about "
                + $"{BareMegabytes():0} MB"
        );
    }

    /// <summary>What is measured: one passage, every frame, with nothing else of the product running.</summary>
    public static async Task PlayAloneAsync(Bench bench)
    {
        var (plan, passage) = await PlanAsync(bench);
        var course = new PassageCourse(new RunClock(), plan.Timeline.Rate, 0, Frames, keepsTime: false);
        var began = Stopwatch.GetTimestamp();
        using (var pipeline = new PassagePipeline(plan, passage, course, bench.Clips, Graphs.Of(bench), Environment.ProcessorCount))
        {
            for (var position = 0; position < Frames; position++)
            {
                var frames = pipeline.Take(position)!;
                pipeline.Treat(frames, position)?.Dispose();
                foreach (var frame in frames)
                {
                    frame.Dispose();
                }
            }
        }

        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"seconds {Stopwatch.GetElapsedTime(began).TotalSeconds}"));
    }

    private static async Task<(PlaybackPlan Plan, Passage Passage)> PlanAsync(Bench bench)
    {
        var passage = new Passage("graded", Frames, [new Layer("hd-avc-25", [Effect.Of("primary-grade"), Effect.Of("blur")])], []);
        var plan = await bench.Plays.PlanAsync("touring-night", "this", new PlaybackSettings(Policy: PlayingPolicy.KeepFrames));
        return (plan with { Timeline = plan.Timeline with { Passages = [passage] } }, passage);
    }

    /// <summary>The peak of a process that has done nothing.</summary>
    private static double BareMegabytes() => MeasuredProcess.Again(Nothing).PeakMegabytes;

    private static Measured Ffmpeg(string[] arguments)
    {
        var process = MeasuredProcess.Run("ffmpeg", arguments);
        return new Measured(Frames / process.Took.TotalSeconds, process.PeakMegabytes);
    }

    /// <summary>The player tells how long it took alone, its start left out.</summary>
    private static Measured Player()
    {
        var process = MeasuredProcess.Again(Alone);
        return
            double.TryParse(
                process.Output.Split("seconds ").ElementAtOrDefault(1),
                NumberStyles.Float,
                CultureInfo.InvariantCulture,
                out var seconds
            )
            && seconds > 0
            ? new Measured(Frames / seconds, process.PeakMegabytes)
            : throw new MeasuringException($"The player measured alone told no time: {process.Output}");
    }

    private readonly record struct Measured(double Rate, double Megabytes)
    {
        public Measured Better(Measured other) =>
            new(Math.Max(Rate, other.Rate), Rate == 0 ? other.Megabytes : Math.Min(Megabytes, other.Megabytes));
    }
}
