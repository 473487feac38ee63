using CsCheck;
using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;

namespace HardyBench.Core.Tests.Advice;

/// <summary>Ways of working are what trying every set of them comes to.</summary>
public sealed class RemedyTests
{
    private static readonly RemedyKind[] Kinds = Enum.GetValues<RemedyKind>();

    /// <summary>The smallest sets that suffice are those that playing every set of up to three finds, by whole runs and their
    /// findings.</summary>
    [Fact]
    public void The_smallest_sets_that_suffice_are_those_of_brute_force_over_every_set()
    {
        var sizes = new System.Collections.Concurrent.ConcurrentDictionary<int, int>();
        Gen.Select(Gen.Int[0, 100_000], Gen.Int[1, 10], Gen.Double[0.3, 1.5], Gen.Double[1, 1.4], Gen.Double[0.05, 2]).Sample((
            work, cores, speed, growth, scrub) =>
        {
            var machine = Samples.Machine(
                cores: cores, speed: speed, graphics: new Graphics("g", 200 + 4000 * (speed - 0.3), 60, 4, 8), memory: new Memory(6 + cores, 2.5, 2, 3200));
            var asked = new Asked(growth < 1.2 ? 1 : growth, null, scrub > 1 ? null : scrub);
            var plans = ShortlistTests.Work(work, new Brief("b", "B", ["t"]) { Others = work % 2 == 0 ? new OtherPrograms(1, 4) : null })
                .Select(plan => plan with { Machine = machine }).ToList();
            var found = Remedies.For(plans, asked).Where(remedy => remedy.Suffices).ToList();
            var brute = (Suffices(plans, asked, []) ? new List<RemedyKind[]>() : Enumerable.Range(1, 3)
                .Select(size => Sets(size).Where(kinds => IsASet(plans, kinds) && Suffices(plans, asked, kinds)).ToList())
                .FirstOrDefault(sets => sets.Count > 0)) ?? [];

            Assert.Equal(
                brute.Select(kinds => string.Join(' ', kinds)).Order(), found.Select(remedy => string.Join(' ', remedy.Kinds)).Order());
            sizes.AddOrUpdate(brute.Count == 0 ? 0 : brute[0].Length, 1, (_, count) => count + 1);
        }, iter: 200);

        Assert.True(
            sizes.GetValueOrDefault(1) > 20 && sizes.GetValueOrDefault(2) + sizes.GetValueOrDefault(3) > 3
                && sizes.GetValueOrDefault(0) > 10,
            string.Join(", ", sizes));
    }

    private static IEnumerable<RemedyKind[]> Sets(int size) =>
        from bits in Enumerable.Range(0, 1 << Kinds.Length)
        where int.PopCount(bits) == size
        select Kinds.Where((_, place) => (bits >> place & 1) == 1).ToArray();

    /// <summary>Each of them changes something by itself, and no two are one thing.</summary>
    private static bool IsASet(List<PlaybackPlan> plans, RemedyKind[] kinds) =>
        kinds.All(kind => plans.Exists(plan => Remedies.With(plan, kind) != plan))
        && !(kinds.Contains(RemedyKind.HalfScale) && kinds.Contains(RemedyKind.QuarterScale))
        && kinds.Count(kind => kind is RemedyKind.HalfProxies or RemedyKind.QuarterProxies or RemedyKind.Intermediates) < 2;

    private static bool Suffices(List<PlaybackPlan> plans, Asked asked, RemedyKind[] kinds)
    {
        var with = plans.Select(plan => StandInAids.Apply(kinds.Aggregate(plan, Remedies.With))).ToList();
        var findings = with.SelectMany(plan => RunFindings.Of(new StandInPlayback(TimeProvider.System)
            .PlayAsync(plan, new NoObserver(), CancellationToken.None).Result)).ToList();
        return findings.TrueForAll(finding => finding.Verdict is null or Verdict.Holds)
            && new Forecaster(with).Of(with[0].Machine).All(forecast => forecast.Headroom >= asked.Headroom)
            && !(asked.MostScrubSeconds is { } most && (GestureWaitTests.OfEveryFrame(with, with[0].Machine)
                - GestureWaitTests.OpeningOf).TotalSeconds > most);
    }
}
