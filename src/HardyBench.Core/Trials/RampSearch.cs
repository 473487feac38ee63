using System.Globalization;
using HardyBench.Core.Findings;

namespace HardyBench.Core.Trials;

/// <summary>Finds where a ramp stops holding, playing single passages: a short ramp from its start, a long one by
/// halving what is still open. Each passage asks more than the one before, so what follows one that fails fails too.</summary>
public static class RampSearch
{
    /// <summary>Up to this many passages are played in order.</summary>
    public const int PlayedInOrder = 4;

    private const string Label = "passage ";

    /// <summary>The label of the run of a passage, from 0.</summary>
    public static string LabelOf(int index) => Label + (index + 1).ToString(CultureInfo.InvariantCulture);

    /// <summary>The passage, from 0, of a run by its label.</summary>
    public static int IndexOf(string label) => int.Parse(label[Label.Length..], CultureInfo.InvariantCulture) - 1;

    /// <summary>Whether each passage played so far holds, by its place.</summary>
    public static IReadOnlyDictionary<int, bool> Known(IReadOnlyList<StepOutcome> done) => done.ToDictionary(
        outcome => IndexOf(outcome.Label),
        outcome => outcome.Findings[0].Verdict == Verdict.Holds);

    /// <returns>The passage to play next, from 0, or null when the break point is known.</returns>
    public static int? Next(int count, IReadOnlyDictionary<int, bool> known)
    {
        var (holds, fails) = Bounds(count, known);
        return fails - holds <= 1 ? null
            : count <= PlayedInOrder ? holds + 1
            : holds + (fails - holds) / 2;
    }

    /// <returns>The last passage that holds, −1 for none, and the first that does not, the count for none.</returns>
    public static (int LastHolds, int FirstFails) Bounds(int count, IReadOnlyDictionary<int, bool> known) => (
        known.Where(passage => passage.Value).Select(passage => passage.Key).DefaultIfEmpty(-1).Max(),
        known.Where(passage => !passage.Value).Select(passage => passage.Key).DefaultIfEmpty(count).Min());
}
