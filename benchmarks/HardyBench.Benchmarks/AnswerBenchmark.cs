using System.Diagnostics;
using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
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

        var asked = DemoBriefs.All[0];
        await bench.Answers.AnswerAsync(asked, CancellationToken.None);
        var again = Stopwatch.GetTimestamp();
        await bench.Answers.AnswerAsync(asked with { Budget = 700 }, CancellationToken.None);
        Console.WriteLine($"  another budget {Stopwatch.GetElapsedTime(again).TotalMilliseconds:0} ms (asked: 100)");
    }
}
