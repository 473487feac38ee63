using HardyBench.Core.Playback;
using static System.FormattableString;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>The processor as a whole is busy: with other programs, or with the work of the player that takes most of it.</summary>
/// <param name="ceiling">The share of it from which on it is at its ceiling.</param>
public sealed class ProcessorRule(double ceiling) : LimiterRule
{
    /// <summary>Decoders cannot share their work out evenly: with this much of the processor busy, nearly all of it with
    /// the player, and nothing else at its ceiling, the processor is still the limit.</summary>
    public const double UnevenCeiling = 0.75;

    /// <summary>Share of the processor that other programs may take before they are named.</summary>
    private const double OthersCeiling = 0.25;

    protected override IReadOnlyDictionary<Limiter, LimiterAdvice> Names { get; } = new Dictionary<Limiter, LimiterAdvice>
    {
        [Limiter.OtherPrograms] = new(
            "Close other programs and play again. A virtual machine needs cores that its host does not share.",
            null,
            "other programs still take too much",
            IsOfProcessor: true),
        [Limiter.ProcessorDecode] = new(
            "An all-intra intermediate or proxies, a media engine that takes this format, or more cores.",
            "A smaller timeline raster or a faster drive will not help: every source frame is still decoded whole.",
            "the processor still decodes too slowly",
            IsOfProcessor: true),
        [Limiter.ProcessorEffects] = new(
            "A smaller preview scale, a pre-render of this passage, or effects on a graphics unit.",
            "Proxies will hardly help: the effects work at the timeline's raster, not the clip's.",
            "effects still take too much of the processor",
            IsOfProcessor: true),
        [Limiter.ProcessorEncode] = new(
            "A media engine that encodes this format, a lighter format, or more cores.",
            "Pre-renders and a stronger graphics unit will not help: the encoder is the slow part.",
            "the processor still encodes too slowly",
            IsOfProcessor: true),
    };

    public override LimiterFinding? Find(LoadMeans loads, Conditions conditions)
    {
        if (Pool(loads, conditions) is not { } pool
            || pool < ceiling
            || loads.Of(LoadKind.OwnDecode) is not { } decode
            || loads.Of(LoadKind.OwnEffects) is not { } effects)
        {
            return null;
        }

        var cores = conditions.UsableCores.Count;
        if (loads.Of(LoadKind.OwnProcess) is { } own && own < cores * (pool - OthersCeiling))
        {
            return Found(loads, Limiter.OtherPrograms, new TakenProcessor(pool, own, cores));
        }

        var encode = loads.Of(LoadKind.OwnEncode) ?? 0;
        var work = decode + effects + encode;
        var (limiter, most) = decode >= Math.Max(effects, encode) && work > 0 ? (Limiter.ProcessorDecode, decode)
            : effects >= encode ? (Limiter.ProcessorEffects, effects)
            : (Limiter.ProcessorEncode, encode);
        return Found(loads, limiter, new BusyProcessor(pool, work > 0 ? most / work : 1));
    }

    protected override string? KnownBy(LimiterFinding finding) => finding.Evidence switch
    {
        TakenProcessor taken =>
            Invariant($"processor {Figures.Percent(taken.Busy)} busy, but only {taken.Own:0.0} of {taken.Cores} cores with this player"),
        BusyProcessor processor =>
            $"processor {Figures.Percent(processor.Busy)} busy and {Figures.Percent(processor.Work)} of the player's work was "
                + finding.Limiter switch
                {
                    Limiter.ProcessorDecode => "decoding",
                    Limiter.ProcessorEncode => "encoding",
                    _ => "effects",
                },
        _ => null,
    };
}
