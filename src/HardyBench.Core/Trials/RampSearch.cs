using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Trials;

/// <summary>Finds where a ramp stops holding, playing single passages: a short ramp from its start, a long one by
/// halving what is still open. Each passage asks more than the one before, so what follows one that fails fails too. Passages that are too
/// short for a verdict are left out: no verdict is not a failure.</summary>
public static class RampSearch
{
    /// <summary>Up to this many passages are played in order.</summary>
    public const int PlayedInOrder = 4;

    /// <summary>The passages, from 0, that are long enough to be judged, in order.</summary>
    public static IReadOnlyList<int> Judged(Timeline timeline) =>
        [
            .. timeline
                .Passages.Index()
                .Where(passage => timeline.Rate.StartOf(passage.Item.FrameCount) >= VerdictLimits.Default.ShortestJudged)
                .Select(passage => passage.Index),
        ];

    /// <summary>What keeps the passages from being a ramp, a sentence: one that asks less than the one before, or none that asks
    /// more.</summary>
    /// <returns>Null where each asks for as much as the one before or more, and the last for more than the first.</returns>
    public static string? WhyNotRising(Timeline timeline, IReadOnlyDictionary<string, Clip> clips)
    {
        var judged = Judged(timeline);
        var weights = judged.Select(index => PassageWeight.Of(timeline.Passages[index], timeline, clips)).ToList();
        for (var place = 1; place < judged.Count; place++)
        {
            var less = Parts
                .Where(part => part.Of(weights[place]) < Alike * part.Of(weights[place - 1]))
                .Select(part => part.Name)
                .ToList();
            if (less.Count > 0)
            {
                return $"This is no ramp: passage {judged[place] + 1} has less load than passage {judged[place - 1] + 1} ({string.Join(", ", less)}), so what follows a passage that fails may hold again.";
            }
        }

        return judged.Count > 1 && Parts.All(part => Alike * part.Of(weights[^1]) <= part.Of(weights[0]))
            ? "This is no ramp: no passage has more load than the first."
            : null;
    }

    /// <summary>What differs by less than this share is alike.</summary>
    private const double Alike = 0.99;

    private static readonly (string Name, Func<PassageWeight, double> Of)[] Parts =
    [
        ("decoding", weight => weight.DecodeCores), ("effects", weight => weight.EffectsCores),
        ("memory", weight => weight.MemoryBytes), ("drive", weight => weight.DriveBytesPerSecond),
    ];

    /// <summary>Whether each passage played so far holds, by its place in the timeline. Only passages that can be judged are played, so
    /// one without a verdict could not be played: it is passed by as one that holds, because it says nothing against the machine.</summary>
    public static IReadOnlyDictionary<int, bool> Known(IReadOnlyList<StepOutcome> done) => done.DistinctBy(outcome => outcome.Role.Passage)
        .ToDictionary(outcome => outcome.Role.Passage!.Value, outcome => outcome.Findings[0].Verdict is null or Verdict.Holds);

    /// <param name="judged">The passages that can be judged.</param>
    /// <returns>The passage to play next, from 0, or null when the break point is known.</returns>
    public static int? Next(IReadOnlyList<int> judged, IReadOnlyDictionary<int, bool> known)
    {
        var (holds, fails) = Bounds(judged, known);
        return fails - holds <= 1 ? null
            : judged[judged.Count <= PlayedInOrder ? holds + 1 : holds + (fails - holds) / 2];
    }

    /// <returns>Places within <paramref name="judged"/>: of the last that holds, −1 for none, and of the first that does not, the count for
    /// none.</returns>
    public static (int LastHolds, int FirstFails) Bounds(IReadOnlyList<int> judged, IReadOnlyDictionary<int, bool> known)
    {
        var places = judged
            .Index()
            .Where(place => known.ContainsKey(place.Item))
            .Select(place => (place.Index, Holds: known[place.Item]))
            .ToList();
        return (
            places.Where(place => place.Holds).Select(place => place.Index).DefaultIfEmpty(-1).Max(),
            places.Where(place => !place.Holds).Select(place => place.Index).DefaultIfEmpty(judged.Count).Min());
    }
}
