using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Comparing;

/// <summary>A run that may belong to a family.</summary>
/// <param name="Timeline">Digest of the timeline as it was played.</param>
public sealed record FamilyCandidate(long Run, RunHeader Header, string Timeline);

/// <summary>Runs that differ in one thing only, which can be put in an order: what is gained along it can be drawn.</summary>
/// <param name="Of">Which clip or effect it is about; null for the run as a whole.</param>
/// <param name="Members">By rising value.</param>
public sealed record Family(Condition What, string? Of, IReadOnlyList<FamilyMember> Members)
{
    /// <summary>With fewer there is no knee to find.</summary>
    private const int Fewest = 3;

    /// <summary>All families among some runs, the largest first. Of runs with the same value the first stands for all.</summary>
    public static IReadOnlyList<Family> Among(IReadOnlyList<FamilyCandidate> runs)
    {
        var byRest = new Dictionary<(Condition What, string? Of, long AllElse), List<FamilyMember>>();
        foreach (var run in runs)
        {
            // A sum of hashes without one of them stands for all the other facts, so that each fact is looked at once.
            var facts = LikeForLike.Facts(run.Header, run.Timeline);
            var all = facts.Aggregate(0L, (sum, fact) => unchecked(sum + Hash(fact.Key, fact.Value)));
            foreach (var (fact, text) in facts)
            {
                if (Axis.ValueOf(text) is { } value)
                {
                    var rest = (fact.What, fact.Of, unchecked(all - Hash(fact, text)));
                    (byRest.TryGetValue(rest, out var members) ? members : byRest[rest] = []).Add(
                        new FamilyMember(run.Run, run.Header.Machine.Name, value, Axis.HeadOf(text)!)
                    );
                }
            }
        }

        return
        [
            .. byRest
                .Select(entry => new Family(
                    entry.Key.What,
                    entry.Key.Of,
                    [.. entry.Value.DistinctBy(member => member.Text).OrderBy(member => member.Value)]
                ))
            .Where(family => family.Members.Count >= Fewest)
            .OrderByDescending(family => family.Members.Count)
            .ThenBy(family => family.What)
            .ThenBy(family => family.Members[0].Machine, StringComparer.Ordinal),
    ];
    }

    /// <summary>Families of runs that differ in the editing program only, and in what it decides: on one machine each.</summary>
    public static IReadOnlyList<Family> OfPrograms(IReadOnlyList<FamilyCandidate> runs) =>
    [
        .. runs.Select(run => (Run: run, Facts: LikeForLike.Facts(run.Header, run.Timeline)))
            .GroupBy(one => one.Facts.Where(fact => fact.Key.What != Condition.Program && !fact.Key.What.IsOfProgram(fact.Value))
                .Aggregate(0L, (sum, fact) => unchecked(sum + Hash(fact.Key, fact.Value))))
            .Select(group => new Family(Condition.Program, null,
            [
                .. group.Select(one => new FamilyMember(
                    one.Run.Run, one.Run.Header.Machine.Name, 0, one.Facts[(Condition.Program, null)]!)).DistinctBy(member => member.Text),
            ]))
            .Where(family => family.Members.Count >= Fewest)
            .OrderBy(family => family.Members[0].Machine, StringComparer.Ordinal),
    ];

    private static long Hash((Condition What, string? Of) fact, string? text) =>
        ((long)HashCode.Combine(fact, text, 1) << 32) | (uint)HashCode.Combine(fact, text, 2);
}

/// <summary>A run in a family.</summary>
/// <param name="Text">The value as the conditions have it: "32 GB".</param>
public sealed record FamilyMember(long Run, string Machine, double Value, string Text);
