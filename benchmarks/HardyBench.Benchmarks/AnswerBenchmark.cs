using System.Diagnostics;
using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Workbench;
using HardyBench.Workbench.Demo;

namespace HardyBench.Benchmarks;

/// <summary>A shortlist for ten passages among all builds that come of the demo's parts, of which there are more than a hundred thousand.
/// Asked: under two seconds on two cores, and under 500 MB. Beside it, as a bound of the same minute: listing the builds alone.</summary>
internal static class AnswerBenchmark
{
    private const int Passages = 10, Times = 3;

    public static async Task RunAsync(Bench bench)
    {
        Console.WriteLine("\nAnswer");
        var timeline = (await bench.Timelines.FindAsync("touring-night")).Timeline;
        var passages = Enumerable.Range(0, Passages).Select(place => timeline.Passages[place % timeline.Passages.Count]).ToList();
        var plan = new PlaybackPlan(
            timeline with { Passages = passages }, bench.Clips.Clips, DemoMachines.All[0], new PlaybackSettings()).Checked();
        var brief = new Brief("b", "B", [timeline.Id]);
        for (var time = 0; time < Times; time++)
        {
            var stolen = new Stolen();
            var start = Stopwatch.GetTimestamp();
            var builds = new Catalogue(DemoParts.All).Builds();
            var listed = Stopwatch.GetElapsedTime(start);
            start = Stopwatch.GetTimestamp();
            var shortlist = Shortlist.For(brief, [.. builds.Select(Offer.Of)], new Forecaster([plan]));
            var answered = listed + Stopwatch.GetElapsedTime(start);
            Console.WriteLine(
                $"  {builds.Count,8} builds {answered.TotalSeconds,6:0.00} s, listed alone {listed.TotalSeconds,5:0.00} s: "
                    + $"{shortlist.Steps.Count} steps, {GC.GetTotalMemory(false) / 1e6,4:0} MB held   {stolen.SoFar()}");
        }

        Ladders(plan);
        var asked = DemoBriefs.All[0];
        await bench.Answers.AnswerAsync(asked, CancellationToken.None);
        var again = Stopwatch.GetTimestamp();
        await bench.Answers.AnswerAsync(asked with { Budget = 700 }, CancellationToken.None);
        Console.WriteLine($"  another budget {Stopwatch.GetElapsedTime(again).TotalMilliseconds:0} ms (asked: 100)");
    }

    /// <summary>A ladder over a long price list, of which every part costs about what it can do.</summary>
    private static void Ladders(PlaybackPlan plan)
    {
        var old = DemoMachines.All.First(machine => machine.Form == MachineForm.Tower) with { Places = new Places("A", 300, "DDR5", 4, 256, 2, 2, 400, 900, 100) };
        foreach (var count in new[] { 100, 300, 1000 })
        {
            var parts = LongList(count);
            var start = Stopwatch.GetTimestamp();
            var ladder = Ladder.For(old, Asked.Nothing, parts, new Forecaster([plan]));
            Console.WriteLine(
                $"  ladder of {count,5} parts {Stopwatch.GetElapsedTime(start).TotalSeconds:0.00} s, {Dominance.Best(parts).Count} that none replaces, "
                    + $"{ladder.Rungs.Count} rungs (asked: 2 s for 1000)");
        }
    }

    private static List<Part> LongList(int count)
    {
        var random = new Random(1);
        return [.. Enumerable.Range(0, count).Select(n =>
        {
            var strength = 0.5 + 3 * random.NextDouble();
            var price = Math.Round((decimal)(100 * strength * (0.8 + 0.4 * random.NextDouble())));
            return (Part)((n % 6) switch
            {
                0 => new ProcessorPart($"p{n}", "P", price, "A", new Processor("P", (int)(4 * strength) + 2, 16, 1 + strength / 3, 4), 65 + 40 * strength),
                1 => new MemoryPart($"m{n}", "M", price, "DDR5", 2, 8 * Math.Ceiling(strength * 2), 4800 + 400 * random.Next(4)),
                2 => new GraphicsPart($"g{n}", "G", price, new Graphics("G", 6000 * strength, 200 * strength, 8 * Math.Ceiling(strength), 16), 100 * strength, 200 + 40 * strength),
                3 => new DrivePart($"d{n}", "D", price, DriveInterface.Nvme, "NVMe", 2000 * strength, 1500 * strength, 0.1),
                4 => new SupplyPart($"s{n}", "S", price, 400 + 300 * strength),
                _ => new CoolerPart($"c{n}", "C", price, 100 + 80 * strength, 150, 30),
            });
        })];
    }
}
