using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>One rule by which a limiter is found: from which loads, by which figures it is known, and what would help. Another rule is
/// another file here and its line in <see cref="InOrder"/>.</summary>
public abstract class LimiterRule
{
    /// <summary>Share of its time from which on a device is at its ceiling.</summary>
    protected const double DeviceCeiling = 0.95;

    /// <summary>The same of the processor as a whole.</summary>
    protected const double PoolCeiling = 0.90;

    /// <summary>Share below its rated clock at which power or heat is named.</summary>
    protected const double ClockFallen = 0.95;

    /// <summary>Those that need something at its ceiling. Where several fit, the first one limits and the next one about something else is
    /// named beside it.</summary>
    public static readonly IReadOnlyList<LimiterRule> InOrder =
    [
        new MemoryRule(),
        new GraphicsMemoryRule(),
        new MediaEngineRule(),
        new EncodingEngineRule(),
        new GraphicsRule(),
        new PowerRule(),
        new HeatRule(),
        new ProcessorRule(PoolCeiling),
        new SingleThreadRule(DeviceCeiling),
        new DriveRule(),
        new BusRule(),
    ];

    /// <summary>Those that are asked where none of the others fits; the last one always does.</summary>
    public static readonly IReadOnlyList<LimiterRule> Otherwise =
        [new ProcessorRule(ProcessorRule.UnevenCeiling), new SingleThreadRule(SingleThreadRule.UnevenCeiling), new UnclearRule()];

    private static readonly Dictionary<Limiter, (LimiterRule Rule, LimiterAdvice Advice)> All = InOrder.Concat(Otherwise)
        .Append(new ClipRule())
        .SelectMany(rule => rule.Names.Select(name => (name.Key, Value: (rule, name.Value))))
        .DistinctBy(name => name.Key)
        .ToDictionary(name => name.Key, name => name.Value);

    /// <summary>The advice on a limiter.</summary>
    public static LimiterAdvice AdviceOf(Limiter limiter) => All[limiter].Advice;

    /// <summary>The figures by which a limiter is known, a phrase; null where a sentence says it.</summary>
    public static string? FiguresOf(LimiterFinding finding) => All[finding.Limiter].Rule.KnownBy(finding);

    /// <summary>The limiters that it can name.</summary>
    protected abstract IReadOnlyDictionary<Limiter, LimiterAdvice> Names { get; }

    /// <param name="conditions">Which cores the player could use, on which drives the footage lay and what each reading was of.</param>
    /// <returns>Null where it does not fit.</returns>
    public abstract LimiterFinding? Find(LoadMeans loads, Conditions conditions);

    /// <summary>A phrase; null where there are no figures.</summary>
    protected abstract string? KnownBy(LimiterFinding finding);

    protected static LimiterFinding Found(LoadMeans loads, Limiter limiter, Evidence evidence) =>
        new(limiter, evidence with { From = loads.From, To = loads.To });

    /// <summary>How busy the cores are that the player may use, 0 to 1; null where that could not be read.</summary>
    protected static double? Pool(LoadMeans loads, Conditions conditions) =>
        loads.Cores(conditions.UsableCores) is { Count: > 0 } cores ? cores.Average() : null;

    /// <summary>The mean clock and the rated one, hertz, of a processor that is busy and has lost speed; null for any other.</summary>
    protected static (double Clock, double Rated)? FallenClockOf(LoadMeans loads, Conditions conditions) =>
        loads.Of(LoadKind.Clock) is { } clock
        && loads.Of(LoadKind.RatedClock) is { } rated
        && clock < ClockFallen * rated
        && Pool(loads, conditions) is >= PoolCeiling
            ? (clock, rated)
            : null;
}

/// <summary>The advice on a limiter, besides its figures.</summary>
/// <param name="Helps">What would change the result, a sentence or two.</param>
/// <param name="DoesNotHelp">What would not, though it is often tried; null where nothing common comes to mind.</param>
/// <param name="Still">That it still limits after a remedy, a clause.</param>
/// <param name="IsOfProcessor">Whether the processor is full, whatever fills it or keeps it down: of several such limiters one is named.</param>
public sealed record LimiterAdvice(string Helps, string? DoesNotHelp, string Still, bool IsOfProcessor = false);
