using System.Diagnostics;
using HardyBench.Player.Decoding;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>Free-run decoding through the player against FFmpeg's own decode to nowhere: same clip, same threads, turn
/// and turn about, the better of several rounds each. Promise: at least 0.95 of FFmpeg's for every clip.</summary>
internal static class DecodeBenchmark
{
    private const int Rounds = 3, Loops = 4;

    /// <summary>So many that large rasters can be measured, a few frames of which take a second.</summary>
    private const double MaxPixels = 1.25e9;

    public static void Run(Bench bench)
    {
        Console.WriteLine("\nDecode, frames a second (player / ffmpeg = share)");
        foreach (var recipe in bench.Clips.Recipes.Where(recipe => File.Exists(bench.Clips.FileOf(recipe))))
        {
            var file = bench.Clips.FileOf(recipe);
            var frames = Math.Min(recipe.FrameCount * Loops, (int)(MaxPixels / recipe.Raster.Pixels));
            var (player, ffmpeg, stolen) = (0.0, 0.0, new Stolen());
            for (var round = 0; round < Rounds; round++)
            {
                ffmpeg = Math.Max(ffmpeg, frames / Time(() => Ffmpeg(file, frames)));
                player = Math.Max(player, frames / Time(() => Player(file, frames)));
            }

            Console.WriteLine($"  {recipe.Id,-12} {player,7:0.0} / {ffmpeg,7:0.0} = {player / ffmpeg:0.00}   {stolen.SoFar()}");
        }
    }

    private static void Player(string file, int frames)
    {
        using var decoder = new ClipDecoder(file, Environment.ProcessorCount);
        for (var i = 0; i < frames; i++)
        {
            decoder.Next().Dispose();
        }
    }

    private static void Ffmpeg(string file, int frames) => MeasuredProcess.Run(
        "ffmpeg",
        "-v",
        "error",
        "-threads",
        $"{Environment.ProcessorCount}",
        "-stream_loop",
        "-1",
        "-i",
        file,
        "-frames:v",
        $"{frames}",
        "-f",
        "null",
        "-"
    );

    private static double Time(Action work)
    {
        var start = Stopwatch.GetTimestamp();
        work();
        return Stopwatch.GetElapsedTime(start).TotalSeconds;
    }
}
