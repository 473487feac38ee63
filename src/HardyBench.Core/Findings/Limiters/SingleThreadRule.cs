using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>One thread of the player does all it can, whatever the other cores do. Where threads are not read one by one, a core that is
/// full while the others idle says the same.</summary>
/// <param name="ceiling">Share of its time from which on a thread is at its ceiling.</param>
public sealed class SingleThreadRule(double ceiling) : LimiterRule
{
    /// <summary>A thread that is behind gives up what is left of a passage and then waits for the next one: with this much of the time
    /// busy, and nothing else at its ceiling, it is still the limit.</summary>
    public const double UnevenCeiling = 0.85;

    private const double IdleCore = 0.5;

    protected override IReadOnlyDictionary<Limiter, LimiterAdvice> Names { get; } = new Dictionary<Limiter, LimiterAdvice>
    {
        [Limiter.SingleThread] = new(
            "A processor with faster cores.",
            "More cores will not help: this work cannot be shared among them.",
            "a single core still is at its limit",
            IsOfProcessor: true),
    };

    public override LimiterFinding? Find(LoadMeans loads, Conditions conditions)
    {
        if (loads.HighestOf(LoadKind.OwnThread) is { } thread && thread.Value >= ceiling)
        {
            return Found(loads, Limiter.SingleThread, new BusyThread(thread.Value, Pool(loads, conditions) ?? 0));
        }

        var cores = loads.Cores(conditions.UsableCores).OrderDescending().ToList();
        return cores.Count > 1 && cores[0] >= DeviceCeiling && cores.Skip(1).All(core => core < IdleCore)
            ? Found(loads, Limiter.SingleThread, new BusyCore(cores[0], cores[1]))
            : null;
    }

    protected override string? KnownBy(LimiterFinding finding) => finding.Evidence switch
    {
        BusyThread thread =>
            $"one thread of the player {Figures.Percent(thread.Busy)} busy while the processor as a whole is at {Figures.Percent(thread.Pool)}",
        BusyCore core => $"one core {Figures.Percent(core.Busy)} busy while the others stay at {Figures.Percent(core.Next)} or below",
        _ => null,
    };
}
