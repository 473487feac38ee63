using System.Diagnostics;
using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Wording;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>What really holds this machine back, made so on purpose, and what the rules name. No drive and no memory that holds back is
/// among them: without swap space there is no swapping, and a drive that a control group slows down does not read as busy.</summary>
internal static class LimiterBenchmark
{
    private const int Frames = 150;

    public static async Task RunAsync(Bench bench)
    {
        Console.WriteLine("\nLimiters, made on purpose: expected, named");
        var right = 0;
        foreach (var (what, clip, effects, busy, expected) in Cases())
        {
            using var others = new BusyProcesses(busy);
            var plan = await bench.Plays.PlanAsync("touring-night", "this", new PlaybackSettings());
            var passage = new Passage(what, Frames, [new Layer(clip, effects)], []);
            plan = plan with { Timeline = plan.Timeline with { Passages = [passage], Marks = null } };
            var finding = RunFindings.Of((await bench.Plays.PlayAsync(plan, null, CancellationToken.None)).Run)[0];
            var named = finding.Limiter is { } limiter ? $"{limiter.Limiter}" : $"none: it {finding.Verdict}";
            right += finding.Limiter?.Limiter == expected ? 1 : 0;
            Console.WriteLine(
                $"  {what,-44} {expected,-22} {named,-22} "
                    + (finding.Limiter is { } told ? LimiterWords.Evidence(told) : string.Empty));
        }

        Console.WriteLine($"  {right} of {Cases().Count} right");
    }

    private static IReadOnlyList<(string What, string Clip, Effect[] Effects, int Busy, Limiter Expected)> Cases() =>
    [
        ("UHD HEVC 4:2:2 by itself", "uhd-hevc-25", [], 0, Limiter.ProcessorDecode),
        ("UHD intermediate by itself", "uhd-mezz-25", [], 0, Limiter.ProcessorDecode),
        ("HD AVC with five noise reductions", "hd-avc-25", Repeated("noise-reduction", 5), 0, Limiter.ProcessorEffects),
        ("HD AVC with six glows", "hd-avc-25", Repeated("glow", 6), 0, Limiter.ProcessorEffects),
        ("HD AVC stabilised thrice", "hd-avc-25", Repeated("stabilise", 3), 0, Limiter.SingleThread),
        ("HD AVC graded beside busy programs", "hd-avc-25", [Effect.Of("noise-reduction")], 6, Limiter.OtherPrograms),
    ];

    private static Effect[] Repeated(string effect, int times) => [.. Enumerable.Repeat(Effect.Of(effect), times)];

    /// <summary>Programs that do nothing but keep a core busy each.</summary>
    private sealed class BusyProcesses : IDisposable
    {
        private readonly List<Process> processes = [];

        public BusyProcesses(int count)
        {
            for (var i = 0; i < count; i++)
            {
                processes.Add(Process.Start("sh", ["-c", "while :; do :; done"]));
            }
        }

        public void Dispose() => processes.ForEach(process =>
        {
            process.Kill();
            process.WaitForExit();
            process.Dispose();
        });
    }
}
