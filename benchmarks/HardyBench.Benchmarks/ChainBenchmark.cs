using System.Diagnostics;
using System.Globalization;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Player.Effects;
using HardyBench.Player.Playing;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>Decoding and effects together, as fast as they go, against FFmpeg's own command with the same graph, each in a process of
/// its own, turn and turn about. Promises: at least 0.9 of FFmpeg's frames a second, and at most 1.2 of its peak memory and
/// what the look-ahead holds.</summary>
internal static class ChainBenchmark
{
    /// <summary>The argument with which this program is started again to be measured alone.</summary>
    public const string Alone = "chain-alone";

    private const int Rounds = 3, Frames = 300;

    public static async Task RunAsync(Bench bench)
    {
        Console.WriteLine("\nDecode and effects, frames a second (player / ffmpeg = share); peak memory beside it");
        var (plan, passage) = await PlanAsync(bench);
        var clip = bench.Clips.PathOf(bench.Clips.Clips[passage.Layers[0].ClipId]);
        var graph = "[0:v]null[in0];" + new PassageGraph(bench.Filters).Describe(plan, passage);
        var (player, ffmpeg) = (default(Measured), default(Measured));
        var stolen = new Stolen();
        for (var round = 0; round < Rounds; round++)
        {
            ffmpeg = ffmpeg.Better(Measure("ffmpeg", ["-v", "error", "-stream_loop", "-1", "-i", clip, "-filter_complex", graph, "-map", "[out]", "-frames:v", $"{Frames}", "-f", "null", "-"]));
            player = player.Better(Measure(Environment.ProcessPath!, [typeof(ChainBenchmark).Assembly.Location, Alone]));
        }

        var frame = plan.Timeline.Raster.Pixels * 3 / 2;
        var ahead = (plan.Settings.LookAhead + PlaybackSettings.DecodeAhead) * frame / 1e6;
        Console.WriteLine($"  {player.Rate,7:0.0} / {ffmpeg.Rate,7:0.0} = {player.Rate / ffmpeg.Rate:0.00}   {stolen.SoFar()}");
        Console.WriteLine($"  peak memory {player.Megabytes:0} MB, FFmpeg {ffmpeg.Megabytes:0} MB, look-ahead {ahead:0} MB, .NET itself about {BareMegabytes():0} MB");
    }

    /// <summary>What is measured: one passage, every frame, with nothing else of the product running.</summary>
    public static async Task PlayAloneAsync(Bench bench)
    {
        var (plan, passage) = await PlanAsync(bench);
        var clock = new PassageClock(new RunClock(), plan.Timeline.Rate, 0, keepsTime: false);
        var began = Stopwatch.GetTimestamp();
        using (var pipeline = new PassagePipeline(plan, passage, clock, bench.Clips, new PassageGraph(bench.Filters), Environment.ProcessorCount))
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
        var plan = await bench.PlanAsync("touring-night", "this", new PlaybackSettings(Policy: PlayingPolicy.KeepFrames));
        return (plan with { Timeline = plan.Timeline with { Passages = [passage] } }, passage);
    }

    /// <summary>The peak of a process that has done nothing.</summary>
    private static double BareMegabytes() => Measure(Environment.ProcessPath!, [typeof(ChainBenchmark).Assembly.Location, "nothing"]).Megabytes;

    /// <summary>Runs a command to its end. Its peak memory is read from the kernel while it lives.</summary>
    private static Measured Measure(string command, string[] arguments)
    {
        var began = Stopwatch.GetTimestamp();
        using var process = Process.Start(new ProcessStartInfo(command, arguments) { RedirectStandardOutput = true, RedirectStandardError = true })!;
        var told = process.StandardOutput.ReadToEndAsync();
        var peak = 0.0;
        while (!process.WaitForExit(20))
        {
            peak = Math.Max(peak, PeakOf(process.Id));
        }

        var itself = told.Result.Split("seconds ").ElementAtOrDefault(1);
        var seconds = itself is null ? Stopwatch.GetElapsedTime(began).TotalSeconds : double.Parse(itself, CultureInfo.InvariantCulture);
        return new Measured(Frames / seconds, peak);
    }

    private static double PeakOf(int process)
    {
        try
        {
            var line = File.ReadLines($"/proc/{process}/status").FirstOrDefault(line => line.StartsWith("VmHWM:", StringComparison.Ordinal));
            return line is null ? 0 : double.Parse(line.Split(' ', StringSplitOptions.RemoveEmptyEntries)[1], CultureInfo.InvariantCulture) * 1024 / 1e6;
        }
        catch (IOException)
        {
            return 0;
        }
    }

    private readonly record struct Measured(double Rate, double Megabytes)
    {
        public Measured Better(Measured other) => new(Math.Max(Rate, other.Rate), Rate == 0 ? other.Megabytes : Math.Min(Megabytes, other.Megabytes));
    }
}
