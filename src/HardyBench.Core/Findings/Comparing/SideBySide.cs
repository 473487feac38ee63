using HardyBench.Core.Findings.Statistics;

namespace HardyBench.Core.Findings.Comparing;

/// <summary>A passage on one side beside the base.</summary>
/// <param name="Place">Of the passage in the base, from 0.</param>
/// <param name="Difference">Frames shown a second, this side − base; null where a side did not play it.</param>
/// <param name="Ratio">This side ÷ base; null where that says nothing.</param>
/// <param name="Headroom">Where both hold: this side's headroom ÷ the base's; null where that is not known.</param>
/// <param name="IsReal">Whether they differ by more than chance, even though so many passages were looked at. Null where a side was played
/// once.</param>
public sealed record PassageBeside(int Place, WelchDifference? Difference, double? Ratio, double? Headroom, bool? IsReal)
{
    /// <summary>Where they differ by no more than chance: how many runs a side a difference of <see cref="Statistics.RepeatsToFind.Share"/>
    /// takes to be found; null where that is unknown.</summary>
    public int? RunsToFind { get; init; }
}

/// <summary>One side beside the base, passage by passage.</summary>
/// <param name="MeanRatio">Geometric mean of the ratios over passages of which both show any frame; null without any.</param>
/// <param name="Better">Places of passages with a better verdict than the base's.</param>
/// <param name="Worse">Places of those with a worse one.</param>
public sealed record SideBeside(
    IReadOnlyList<PassageBeside> Passages,
    double? MeanRatio,
    IReadOnlyList<int> Better,
    IReadOnlyList<int> Worse
)
{
    private const double MaxChance = 0.05;

    /// <summary>Passages that both played and of which one shows nothing at all: no ratio can tell of them.</summary>
    public int WithoutRatio { get; init; }

    /// <param name="bases">Each run of the base: its passages.</param>
    /// <param name="others">Each run of this side: the passages that match the base's, in its order; null where it has none such.</param>
    public static SideBeside Of(IReadOnlyList<IReadOnlyList<PassageSummary>> bases, IReadOnlyList<IReadOnlyList<PassageSummary?>> others)
    {
        var places = Enumerable.Range(0, bases[0].Count).ToList();
        var rates = places
            .Select(place => (Base: Rates(bases.Select(run => run[place])), Other: Rates(others.Select(run => run[place]))))
            .ToList();
        var differences = rates.Select(rate => DifferenceOf(rate.Base, rate.Other)).ToList();
        var judged = places.Where(place => differences[place]?.Difference.Chance is not null).ToList();
        var real = HolmCorrection
            .Rejected([.. judged.Select(place => differences[place]!.Value.Difference.Chance!.Value)], MaxChance)
            .Select(at => judged[at])
            .ToHashSet();
        var passages = places.Select(place => new PassageBeside(
            place,
            differences[place]?.Difference,
            differences[place]?.Ratio,
            HeadroomOf(bases[0][place], others[0][place]),
            differences[place]?.Difference.Chance is null ? null : real.Contains(place)
        )
        {
            RunsToFind = differences[place]?.Difference.Chance is null || real.Contains(place) ? null
                : RepeatsToFind.Of(rates[place].Base, rates[place].Other, MaxChance / judged.Count),
        })
        .ToList();
        var ratios = passages.Select(passage => passage.Ratio).OfType<double>().Where(ratio => ratio > 0).ToList();
        return new SideBeside(
            passages, ratios.Count == 0 ? null : Math.Exp(ratios.Average(Math.Log)),
            [.. places.Where(place => Verdicts(place) is var (one, other) && other < one)],
            [.. places.Where(place => Verdicts(place) is var (one, other) && other > one)]
        )
        {
            WithoutRatio = passages.Count(passage => passage.Difference is not null) - ratios.Count,
        };

        (Verdict Base, Verdict Other)? Verdicts(int place) =>
            bases[0][place].Verdict is { } one && others[0][place]?.Verdict is { } other ? (one, other) : null;
    }

    private static double? HeadroomOf(PassageSummary one, PassageSummary? other) =>
        one.Verdict == Verdict.Holds && other?.Verdict == Verdict.Holds ? other.Headroom / one.Headroom : null;

    private static List<double> Rates(IEnumerable<PassageSummary?> passages) =>
        [.. passages.OfType<PassageSummary>().Where(IsPlayed).Select(passage => passage.ShownRate)];

    private static bool IsPlayed(PassageSummary passage) => passage.Slots > 0 && passage.Failure is null;

    private static (WelchDifference Difference, double? Ratio)? DifferenceOf(List<double> first, List<double> second) =>
        first.Count == 0 || second.Count == 0 ? null
            : (WelchDifference.Of(first, second), first.Average() > 0 ? second.Average() / first.Average() : null);
}
