using System.Globalization;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice;

/// <summary>Which machine to take for a timeline, and why not another.</summary>
/// <param name="Machine">The pick, or null when no machine plays all of it.</param>
/// <param name="Others">Every other machine, cheapest first.</param>
public sealed record Pick(Machine? Machine, string Reason, IReadOnlyList<Passed> Others)
{
    /// <summary>Takes the cheapest machine on which every passage holds. One without a price is at hand already
    /// (only this machine has none) and so costs nothing.</summary>
    public static Pick From(IReadOnlyList<Candidate> candidates)
    {
        var byPrice = candidates.OrderBy(candidate => candidate.Machine.Price ?? 0).ToList();
        var taken = byPrice.Find(candidate => candidate.Answers);
        var others = byPrice.Where(candidate => candidate != taken)
            .Select(candidate => Passed.Over(candidate, taken?.Machine))
            .ToList();
        return new Pick(taken?.Machine, ReasonFor(taken, byPrice), others);
    }

    /// <summary>Headroom below which a machine that holds may not tomorrow. Common practice, no source.</summary>
    private const double CloseCall = 1.2;

    private static string ReasonFor(Candidate? taken, List<Candidate> byPrice)
    {
        if (taken is null)
        {
            var played = byPrice.Count(candidate => candidate.Findings is not null);
            return played == 0
                ? "No machine has played this timeline yet."
                : byPrice.Exists(candidate => candidate.Spoilt is not null) ? "No machine holds every passage in a run that counts; some runs do not count, and have to be played again."
                : $"None of the {played} machines that played it holds every passage.";
        }

        var headroom = taken.Findings!.Where(finding => finding.Headroom is not null).MinBy(finding => finding.Headroom);
        var tightest = headroom is null
            ? string.Empty
            : string.Create(
                CultureInfo.InvariantCulture,
                $" Its tightest is passage {headroom.Index + 1}, with {headroom.Headroom:0.0} times what it asks.")
                + (headroom.Headroom < CloseCall ? " That is a close call: a little more work, or a warmer day, and it drops frames." : string.Empty);
        var cost = taken.Machine.Price is null ? "at hand already" : "the cheapest that does";
        return $"Every passage holds on it, and it is {cost}.{tightest}";
    }
}

/// <summary>A machine that was not picked.</summary>
/// <param name="FirstFailure">The passage that fails first, or null when none does or it has not played.</param>
public sealed record Passed(Machine Machine, PassageFinding? FirstFailure, string Why)
{
    internal static Passed Over(Candidate candidate, Machine? taken)
    {
        var why = candidate switch
        {
            { Spoilt: { } spoilt } => $"Its run does not count: {spoilt.By}. {spoilt.First}",
            { Findings: null } => "It has not played this timeline at full scale yet.",
            { Answers: true } => DearerBy(candidate.Machine, taken),
            { FirstFailure: { } failure } =>
                $"Passage {failure.Index + 1} {(failure.Verdict == Verdict.Breaks ? "breaks" : "wavers")}. {failure.Limiter?.Evidence}",
            { Findings: var findings } when findings.All(finding => finding.IsTooShort) => "Every passage is too short for a verdict; make them 2 s long or longer.",
            _ => "Its run ended before every passage was judged.",
        };
        return new Passed(candidate.Machine, candidate.Spoilt is null ? candidate.FirstFailure : null, why);
    }

    private static string DearerBy(Machine machine, Machine? taken)
    {
        var more = (machine.Price ?? 0) - (taken?.Price ?? 0);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"Every passage holds on it too, but it costs {more:#,0} {Machines.Machine.Currency} more and this timeline gains nothing.");
    }
}
