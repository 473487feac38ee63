using System.Diagnostics;
using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Wording;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>What really holds this machine back, made so on purpose, and what the rules name. A slow drive and want of memory are brought
/// about with control groups, which only the system's administrator may make; without them these two are left out and reported.</summary>
internal static class LimiterBenchmark
{
    private const int Frames = 150;

    public static async Task RunAsync(Bench bench)
    {
        Console.WriteLine("\nLimiters, made on purpose: expected, named");
        var right = 0;
        var played = 0;
        foreach (var (what, clip, effects, busy, expected, squeeze) in Cases())
        {
            using var others = new BusyProcesses(busy);
            using var group = squeeze is null ? null : ControlGroup.Make(squeeze);
            if (squeeze is not null && group is null)
            {
                Console.WriteLine($"  {what,-44} left out: no control group could be made here");
                continue;
            }

            var settings = new PlaybackSettings(
                Cache: squeeze switch { null => FileCache.AsFound, { MemoryBytes: null } => FileCache.Cold, _ => FileCache.Warm },
                LookAhead: squeeze?.LookAhead ?? 6);
            var plan = await bench.Plays.PlanAsync("touring-night", "this", settings);
            var passage = new Passage(what, Frames, [new Layer(clip, effects)], []);
            plan = plan with { Timeline = plan.Timeline with { Passages = [passage], Marks = null } };
            var run = (await bench.Plays.PlayAsync(plan, null, CancellationToken.None)).Run;
            var finding = RunFindings.Of(run)[0];
            var named = finding.Limiter is { } limiter ? $"{limiter.Limiter}" : $"none: it {finding.Verdict}";
            played++;
            right += finding.Limiter?.Limiter == expected ? 1 : 0;
            Console.WriteLine(
                $"  {what,-44} {expected,-22} {named,-22} "
                    + (finding.Limiter is { } told ? LimiterWords.Evidence(told) : string.Empty));
        }

        Console.WriteLine($"  {right} of {played} right");
    }

    private static IReadOnlyList<(string What, string Clip, Effect[] Effects, int Busy, Limiter Expected, Squeeze? Squeeze)> Cases() =>
    [
        ("UHD HEVC 4:2:2 by itself", "uhd-hevc-25", [], 0, Limiter.ProcessorDecode, null),
        ("UHD intermediate by itself", "uhd-mezz-25", [], 0, Limiter.ProcessorDecode, null),
        ("HD AVC with ten noise reductions", "hd-avc-25", Repeated("noise-reduction", 10), 0, Limiter.ProcessorEffects, null),
        ("HD AVC with six glows", "hd-avc-25", Repeated("glow", 6), 0, Limiter.ProcessorEffects, null),
        ("HD AVC stabilised thrice", "hd-avc-25", Repeated("stabilise", 3), 0, Limiter.SingleThread, null),
        ("HD AVC graded beside busy programs", "hd-avc-25", [Effect.Of("noise-reduction")], 6, Limiter.OtherPrograms, null),
        ("HD intermediate from a drive of 2 MB/s", "hd-mezz-25", [], 0, Limiter.Drive, new Squeeze(2_000_000)),
        ("HD intermediate with little memory", "hd-mezz-25", [], 0, Limiter.Memory, new Squeeze(8_000_000, 100_000_000, 100)),
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
