using HardyBench.Core.Findings.Statistics;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using static System.FormattableString;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>Does one changed setting or one effect less make a difference?</summary>
/// <param name="Other">The second side's settings; null for the same.</param>
/// <param name="WithoutEffect">The id of an effect that the second side leaves out; null for none.</param>
public sealed record CompareTrial(int Pairs = 3, PlaybackSettings? Other = null, string? WithoutEffect = null) : Trial(TrialKind.Compare)
{
    private const double MaxChance = 0.05;

    /// <summary>Headroom is read off loads; it differs where it does by more than this share. Our own choice.</summary>
    private const double SameHeadroom = 0.05;

    public override string? Problem(PlaybackPlan start) =>
        Pairs is < 1 or > MaxTimes ? $"A comparison takes 1 to {MaxTimes} pairs, not {Pairs}."
        : Other is { } other && (start with { Settings = other }).Problem is { } problem ? $"The second side: {problem}"
        : Other is null && WithoutEffect is null ? "Say what the second side changes: a setting, or an effect to leave out."
        : Other == start.Settings && WithoutEffect is null
            ? "Both sides are the same. Change one setting, or leave out an effect."
        : WithoutEffect is { } effect && !Effects(start.Timeline).Contains(effect)
            ? $"There is no effect '{effect}' in {start.Timeline.Title}."
        : null;

    public override IEnumerable<PlaybackSettings> Ways(PlaybackSettings start) => Other is { } other ? [start, other] : [start];

    public override int? StepCount(PlaybackPlan start) => Pairs * 2;

    /// <summary>In the order first, second, second, first, and so on, so that what drifts hits both sides alike.</summary>
    public override TrialStep? Next(PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed)
    {
        if (done.Count >= Pairs * 2)
        {
            return null;
        }

        var (pair, place) = (done.Count / 2, done.Count % 2);
        return (pair + place) % 2 == 0
            ? new TrialStep(new StepRole($"as set, {pair + 1}", Side: Side.First), start)
            : new TrialStep(new StepRole($"changed, {pair + 1}", Side: Side.Second), start with
            {
                Settings = Other ?? start.Settings,
                Timeline = WithoutEffect is { } effect ? start.Timeline.Without(effect) : start.Timeline,
            });
    }

    protected override string NextStep(IReadOnlyList<StepOutcome> done) => done.Count < 4
        ? "Play more pairs: three or more tell a difference from noise."
        : "Open a passage on both sides to see what limits it; more pairs find smaller differences.";

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done)
    {
        var real = RealDifferences(done, blank.Rows.Count);
        return blank with
        {
            Rows = Told(blank, row => OfPassage(done, row.Index, real.Contains(row.Index))),
            Changed = ChangeOf(done),
            Words = OfAll(blank.Rows.Count, done, real.Count),
        };
    }

    private static string OfPassage(IReadOnlyList<StepOutcome> done, int index, bool isReal)
    {
        if (PairsOf(done, index) is not { } difference)
        {
            return string.Empty;
        }

        var spread = difference.Difference;
        if (spread is { Mean: 0, Deviation: 0 })
        {
            return HeadroomOf(done, index) is { } headroom && Differs(headroom)
                ? Invariant($"as many frames; headroom {headroom.Before:0.00}× → {headroom.After:0.00}×")
                : "no difference";
        }

        var width = spread.Half is { } half ? Invariant($" ± {half:0.00}") : string.Empty;
        return Invariant($"{spread.Mean:+0.00;−0.00;0.00}{width} shown a second: ") + (isReal ? "a real difference"
            : difference.PairsToSettle is { } pairs ? $"within noise; about {pairs} pairs would be needed"
            : "within noise");
    }

    private static string OfAll(int passages, IReadOnlyList<StepOutcome> done, int real)
    {
        return done.Count < 2 ? "The second side has not been played yet."
            : done.Count < 4 ? "One pair says nothing about noise."
            : real == 0 ? $"In {done.Count / 2} pairs no passage shows more or fewer frames than noise explains{Headrooms(passages, done)}."
            : $"In {done.Count / 2} pairs {real} of {passages} passages differ by more than noise.";
    }

    /// <summary>What was changed, so that the answer can be read by itself; null before both sides were played.</summary>
    private static ChangedSide? ChangeOf(IReadOnlyList<StepOutcome> done) =>
        (HeaderOf(done, Side.First), HeaderOf(done, Side.Second)) is ({ } first, { } second)
            ? new ChangedSide(first.Settings, second.Settings, Effects(first.Timeline).Except(Effects(second.Timeline)).FirstOrDefault())
            : null;

    private static RunHeader? HeaderOf(IReadOnlyList<StepOutcome> done, Side side) =>
        done.FirstOrDefault(one => one.Role.Side == side)?.Header;

    /// <summary>Where no passage shows more frames, headroom may still differ.</summary>
    private static string Headrooms(int passages, IReadOnlyList<StepOutcome> done)
    {
        var changed = Enumerable.Range(0, passages).Select(index => HeadroomOf(done, index)).OfType<(double Before, double After)>()
            .Where(Differs).ToList();
        return changed.Count == 0 ? string.Empty
            : Invariant($"; headroom changes in {changed.Count}, by ×{Math.Exp(changed.Average(one => Math.Log(one.After / one.Before))):0.00} on average");
    }

    private static bool Differs((double Before, double After) headroom) => Math.Abs(headroom.After / headroom.Before - 1) > SameHeadroom;

    /// <summary>Mean headroom as set and changed; null where a side does not tell it.</summary>
    private static (double Before, double After)? HeadroomOf(IReadOnlyList<StepOutcome> done, int index)
    {
        return (Of(Side.First), Of(Side.Second)) is ({ } first, { } second) ? (first, second) : null;

        double? Of(Side side) => done.Where(one => one.Role.Side == side).Select(one => one.Findings[index].Headroom).ToList()
            is { Count: > 0 } all && all.TrueForAll(one => one > 0) ? all.Average() : null;
    }

    /// <summary>Passages, from 0, that differ by more than noise even though so many were looked at: with twenty passages and no
    /// difference at all, one of them would seem to differ if each was judged alone.</summary>
    private static HashSet<int> RealDifferences(IReadOnlyList<StepOutcome> done, int passages)
    {
        var pairs = Enumerable
            .Range(0, passages)
            .Select(index => (Index: index, Chance: PairsOf(done, index)?.Chance))
            .Where(pair => pair.Chance is not null)
            .ToList();
        return [.. HolmCorrection.Rejected([.. pairs.Select(pair => pair.Chance!.Value)], MaxChance).Select(place => pairs[place].Index)];
    }

    /// <summary>Frames shown a second, changed side − side as set, pair by pair.</summary>
    public static PairedDifference? PairsOf(IReadOnlyList<StepOutcome> done, int index)
    {
        var (first, second) = (Of(Side.First), Of(Side.Second));
        var pairs = Math.Min(first.Count, second.Count);
        return pairs == 0 ? null : PairedDifference.Of([.. first.Take(pairs)], [.. second.Take(pairs)]);

        List<double> Of(Side side) =>
            [.. done.Where(outcome => outcome.Role.Side == side).Select(outcome => outcome.Findings[index].Counts.ShownRate)];
    }

    private static IEnumerable<string> Effects(Timeline timeline) =>
        timeline.Passages.SelectMany(passage => passage.WithoutOff().AllEffects()).Select(effect => effect.Id);
}
