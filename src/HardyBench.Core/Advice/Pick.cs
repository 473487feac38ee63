using HardyBench.Core.Findings;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice;

/// <summary>Which machine to take for a timeline, and why not another.</summary>
/// <param name="Machine">The pick, or null when no machine plays all of it.</param>
/// <param name="Tightest">The passage for which the pick has least to spare; null where that is not known.</param>
/// <param name="Played">How many machines have played.</param>
/// <param name="SomeDisturbed">Whether a run of one of them does not count.</param>
/// <param name="Others">Every other machine, cheapest first.</param>
public sealed record Pick(Machine? Machine, PassageFinding? Tightest, int Played, bool SomeDisturbed, IReadOnlyList<Passed> Others)
{
    /// <summary>Headroom below which a machine that holds may not tomorrow. Common practice, no source.</summary>
    private const double CloseCall = 1.2;

    /// <summary>Whether a little more work would be too much for the pick.</summary>
    public bool IsCloseCall => Tightest?.Headroom < CloseCall;

    /// <summary>Takes the cheapest machine on which every passage holds. One without a price is already there
    /// (only this machine has none) and so costs nothing.</summary>
    public static Pick From(IReadOnlyList<Candidate> candidates)
    {
        var byPrice = candidates.OrderBy(candidate => candidate.Machine.Price ?? 0).ToList();
        var taken = byPrice.Find(candidate => candidate.Answers);
        return new Pick(
            taken?.Machine,
            taken?.Findings!.Where(finding => finding.Headroom is not null).MinBy(finding => finding.Headroom),
            byPrice.Count(candidate => candidate.Findings is not null),
            byPrice.Exists(candidate => candidate.Disturbance is not null),
            [.. byPrice.Where(candidate => candidate != taken).Select(candidate => Passed.Over(candidate, taken?.Machine))]);
    }
}

/// <summary>Why a machine was not picked.</summary>
public enum RejectionReason
{
    /// <summary>Its run does not count.</summary>
    Disturbed,

    NotPlayed,

    /// <summary>It holds every passage too and costs more.</summary>
    MoreExpensive,

    Fails,

    /// <summary>Every passage is too short for a verdict.</summary>
    TooShort,

    /// <summary>Its run ended before every passage was judged.</summary>
    EndedEarly,
}

/// <summary>A machine that was not picked.</summary>
/// <param name="FirstFailure">The passage that fails first, or null when none does or its run does not count.</param>
/// <param name="Disturbance">Why its run does not count, or null.</param>
/// <param name="More">What it costs more than the pick.</param>
public sealed record Passed(Machine Machine, RejectionReason Because, PassageFinding? FirstFailure, Disturbance? Disturbance, decimal More)
{
    internal static Passed Over(Candidate candidate, Machine? taken) => new(
        candidate.Machine,
        candidate switch
        {
            { Disturbance: not null } => RejectionReason.Disturbed,
            { Findings: null } => RejectionReason.NotPlayed,
            { Answers: true } => RejectionReason.MoreExpensive,
            { FirstFailure: not null } => RejectionReason.Fails,
            { Findings: var findings } when findings.All(finding => finding.IsTooShort) => RejectionReason.TooShort,
            _ => RejectionReason.EndedEarly,
        },
        candidate.Disturbance is null ? candidate.FirstFailure : null,
        candidate.Disturbance,
        (candidate.Machine.Price ?? 0) - (taken?.Price ?? 0));
}
