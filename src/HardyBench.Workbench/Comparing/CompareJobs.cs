using HardyBench.Core;
using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Timelines;
using HardyBench.Store;

namespace HardyBench.Workbench.Comparing;

/// <summary>What cannot be compared; the message says why.</summary>
public sealed class ComparisonRefusedException(string message) : Exception(message);

/// <summary>Runs side by side.</summary>
/// <param name="Sides">The base first.</param>
public sealed record Comparison(IReadOnlyList<ComparedSide> Sides);

/// <summary>A run in a comparison, with its repeats.</summary>
/// <param name="Judged">What the chosen run has shown.</param>
/// <param name="Passages">Its passages in the base's order; null where it has none such.</param>
/// <param name="Repeats">All runs that were played just so, itself among them.</param>
/// <param name="Differences">In which its conditions differ from the base's; empty for the base.</param>
/// <param name="Beside">What it shows beside the base; null for the base, and where one of the two was disturbed.</param>
public sealed record ComparedSide(
    RunHeader Header, JudgedRun Judged, IReadOnlyList<PassageSummary?> Passages, IReadOnlyList<long> Repeats,
    IReadOnlyList<ConditionDifference> Differences, SideBeside? Beside)
{
    /// <summary>Of each repeat: frames shown of those asked, the mean over its passages.</summary>
    public IReadOnlyList<double> Shares { get; init; } = [];

    public WhereWorkRan WorkRan => WhereWorkRan.Of(Header.Conditions);
}

/// <summary>Puts runs side by side.</summary>
public sealed class CompareJobs(RunReader runs)
{
    /// <summary>More columns than this cannot be looked at.</summary>
    public const int MaxSides = 6;

    private const int MaxRepeats = 20;

    /// <param name="ids">Runs, the base first.</param>
    /// <exception cref="UnknownThingException">There is no such run.</exception>
    /// <exception cref="ComparisonRefusedException">They cannot be compared.</exception>
    public async Task<Comparison> OfAsync(IReadOnlyList<long> ids)
    {
        var wanted = ids.Distinct().ToList();
        if (wanted.Count < 2)
        {
            throw new ComparisonRefusedException(
                ids.Count > 1
                    ? $"Run {ids[0]} cannot be compared with itself; choose another."
                    : "Choose two runs or more; the first is the baseline."
            );
        }

        if (wanted.Count > MaxSides)
        {
            throw new ComparisonRefusedException($"{wanted.Count} runs were chosen; up to {MaxSides} can be compared.");
        }

        var conditions = new List<RunConditions>();
        foreach (var id in wanted)
        {
            conditions.Add(Comparable(await runs.ConditionsAsync(id) ?? throw new UnknownThingException("run", $"{id}", [])));
        }

        var sides = new List<ComparedSide>();
        IReadOnlyList<IReadOnlyList<PassageSummary>> bases = [];
        var (baseTimeline, isBaseDisturbed) = (conditions[0].Header.Timeline, false);
        foreach (var run in conditions)
        {
            var judged = (await runs.JudgedAsync(run.Id))!;
            var repeats = await RepeatsOfAsync(run);
            var places = Places(baseTimeline, run.Header.Timeline);
            var all = new List<IReadOnlyList<PassageSummary?>> { InPlaces(judged, places) };
            foreach (var repeat in repeats.Where(id => id != run.Id))
            {
                all.Add(InPlaces((await runs.JudgedAsync(repeat))!, places));
            }

            var isBase = sides.Count == 0;
            isBaseDisturbed |= isBase && judged.Disturbed;
            bases = isBase ? [.. all.Select(passages => passages.OfType<PassageSummary>().ToList())] : bases;
            sides.Add(new ComparedSide(
                run.Header, judged, all[0], repeats,
                isBase ? [] : LikeForLike.Differences(conditions[0].Header, conditions[0].TimelineDigest, run.Header, run.TimelineDigest),
                isBase || judged.Disturbed || isBaseDisturbed ? null : SideBeside.Of(bases, all))
            {
                Shares = [.. all.Select(passages => ShareOf(passages, run.Header.Timeline.Rate.FramesPerSecond)).OfType<double>()],
            });
        }

        return new Comparison(sides);
    }

    private static double? ShareOf(IReadOnlyList<PassageSummary?> passages, double rate) =>
        passages.OfType<PassageSummary>().Where(passage => passage.Slots > 0).Select(passage => passage.ShownRate / rate).ToList()
            is { Count: > 0 } shares
            ? shares.Average()
            : null;

    private static RunConditions Comparable(RunConditions run) =>
        run.Ending == RunEnding.Playing
            ? throw new ComparisonRefusedException($"Run {run.Id} is still being played; compare it when it has ended.")
        : run.Header.IsByHand
            ? throw new ComparisonRefusedException(
                $"Run {run.Id} is a scrub or start-lag run: it has lags and no slots, so it cannot be compared."
            )
        : run;

    /// <summary>One that did not finish stands for itself alone. Runs of a stand-in from one seed are the same run, so each seed counts
    /// once: to count them all would make every difference look certain.</summary>
    private async Task<IReadOnlyList<long>> RepeatsOfAsync(RunConditions run)
    {
        var (repeats, seeds) = (new List<long> { run.Id }, new HashSet<int?> { run.Header.Conditions.Seed });
        foreach (var id in run.Ending == RunEnding.Finished ? await runs.RepeatsAsync(run.ConditionsDigest, MaxRepeats) : [])
        {
            if (
                id != run.Id
                && await runs.ConditionsAsync(id) is { } repeat
                && (repeat.Header.Conditions.Seed is null || seeds.Add(repeat.Header.Conditions.Seed))
            )
            {
                repeats.Add(id);
            }
        }

        return repeats;
    }

    /// <summary>Where each passage of the base is found in another timeline; −1 where it is not in it.</summary>
    private static List<int> Places(Timeline inBase, Timeline other)
    {
        var (wanted, there) = (Digests(inBase), Digests(other));
        return [.. wanted.Select((digest, place) => place < there.Count && there[place] == digest ? place : there.IndexOf(digest))];

        static List<string> Digests(Timeline timeline) =>
            [.. Enumerable.Range(0, timeline.Passages.Count).Select(place => TimelineJson.Digest(timeline, place))];
    }

    private static List<PassageSummary?> InPlaces(JudgedRun run, List<int> places) =>
        [.. places.Select(place => place >= 0 && place < run.Passages.Count ? run.Passages[place] : null)];
}
