using System.Diagnostics;
using System.Text;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines.Imports;
using HardyBench.Formats.Interchange;
using HardyBench.Media.Clips;
using HardyBench.Player.Decoding;
using HardyBench.Player.Strips;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>Promises: the strip is read at no less than 0.9 of the speed at which its file is decoded; lists of 5 000 events
/// are imported in under a second of processor time; facts of 10 000 clips take under 50 ms of it.</summary>
internal static class FootageBenchmark
{
    private const int Rounds = 3, Events = 5000, Clips = 10_000;

    public static void Run(Bench bench)
    {
        Console.WriteLine("\nIndex strip, frames a second (reading it / decoding alone = share)");
        foreach (var recipe in bench.Clips.Recipes.Where(recipe => StarterPack.DemoIds.Contains(recipe.Id)))
        {
            var (file, frames, read, decoded) = (bench.Clips.FileOf(recipe), recipe.FrameCount, 0.0, 0.0);
            for (var round = 0; round < Rounds; round++)
            {
                decoded = Math.Max(decoded, frames / Seconds(() => Decode(file, frames)));
                read = Math.Max(read, frames / Seconds(() => Read(file, frames)));
            }

            Console.WriteLine($"  {recipe.Id,-12} {read,7:0.0} / {decoded,7:0.0} = {read / decoded:0.00}");
        }

        Console.WriteLine("\nProcessor time");
        var (otio, edl) = Lists();
        Console.WriteLine($"  {Events} events of OpenTimelineIO: {ProcessorMs(() => Cut(OtioReader.Read(otio))):0} ms");
        Console.WriteLine(
            $"  {Events} events of an edit decision list: {ProcessorMs(() => Cut(EdlReader.Read(edl, new FrameRate(25)))):0} ms"
        );
        var formats = bench.Clips.Clips.Values.Select(clip => clip.Format).ToList();
        Console.WriteLine($"  facts of {Clips} clips: {ProcessorMs(() => Facts(formats)):0} ms");
    }

    private static int Cut(ImportedTimeline imported) => StackCutter.Cut(imported, "t", Raster.Hd, _ => null).Timeline.Passages.Count;

    private static (string Otio, string Edl) Lists()
    {
        var (children, edl) = (new StringBuilder(), new StringBuilder("TITLE: LONG\nFCM: NON-DROP FRAME\n"));
        for (var i = 0; i < Events; i++)
        {
            children
                .Append(i == 0 ? "" : ",")
                .Append(
                    $$"""{"OTIO_SCHEMA":"Clip.1","name":"c{{i % 40}}","source_range":{"OTIO_SCHEMA":"TimeRange.1","start_time":{"OTIO_SCHEMA":"RationalTime.1","rate":25,"value":{{i % 50}}},"duration":{"OTIO_SCHEMA":"RationalTime.1","rate":25,"value":25} },"media_reference":{"OTIO_SCHEMA":"MissingReference.1"} }"""
                );
            edl.Append($"{i + 1:000}  C{i % 40,-6} V     C        00:00:00:00 00:00:01:00 {Code(i)}:00 {Code(i + 1)}:00\n");
        }

        return (
            "{\"OTIO_SCHEMA\":\"Timeline.1\",\"name\":\"long\",\"tracks\":{\"OTIO_SCHEMA\":\"Stack.1\",\"children\":[{\"OTIO_SCHEMA\":\"Track.1\",\"kind\":\"Video\",\"children\":["
                + children
                + "]}]}}",
            edl.ToString()
        );

        static string Code(int seconds) => $"{seconds / 3600:00}:{seconds / 60 % 60:00}:{seconds % 60:00}";
    }

    private static void Read(string file, int frames)
    {
        var wrong = StripReader
            .Read(file, frames, Environment.ProcessorCount)
            .Index()
            .Count(reading => reading.Item?.Frame != reading.Index);
        if (wrong > 0)
        {
            Console.WriteLine($"  {wrong} frames were not read right");
        }
    }

    private static void Facts(List<ClipFormat> formats)
    {
        for (var i = 0; i < Clips; i++)
        {
            GC.KeepAlive(ClipFacts.Of(formats[i % formats.Count]));
        }
    }

    private static void Decode(string file, int frames)
    {
        using var decoder = new ClipDecoder(file, Environment.ProcessorCount);
        for (var i = 0; i < frames; i++)
        {
            decoder.Next().Dispose();
        }
    }

    private static double Seconds(Action work)
    {
        var start = Stopwatch.GetTimestamp();
        work();
        return Stopwatch.GetElapsedTime(start).TotalSeconds;
    }

    /// <summary>The least of several rounds, so that compiling does not count.</summary>
    private static double ProcessorMs(Action work) => Enumerable.Range(0, Rounds * 2).Min(_ =>
    {
        var before = Process.GetCurrentProcess().TotalProcessorTime;
        work();
        return (Process.GetCurrentProcess().TotalProcessorTime - before).TotalMilliseconds;
    });
}
