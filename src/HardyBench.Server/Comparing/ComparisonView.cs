using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Timelines;
using HardyBench.Core.Wording;
using HardyBench.Server.Timelines;
using HardyBench.Workbench.Comparing;

namespace HardyBench.Server.Comparing;

/// <summary>Runs side by side, the base first.</summary>
/// <param name="Axis">Where they differ in one thing only, what is gained along it; null else.</param>
/// <param name="SameTimeline">Whether all were played from the same timeline.</param>
public sealed record ComparisonView(IReadOnlyList<SideView> Sides, IReadOnlyList<ComparedRow> Rows, bool SameTimeline, AxisView? Axis)
{
    public static ComparisonView Of(Comparison comparison)
    {
        var first = comparison.Sides[0];
        var differ = WhereWorkRan.Differ([.. comparison.Sides.Select(side => side.WorkRan)]);
        return new ComparisonView(
            [.. comparison.Sides.Select(side => SideView.Of(side, first, differ))],
            [.. first.Header.Timeline.Passages.Select((passage, place) => new ComparedRow(
                place + 1, passage.Question, passage.FrameCount,
                [.. comparison.Sides.Select(side => side.Passages[place] is { } found
                    ? new ComparedCell(
                        found.Index + 1,
                        CellView.Of(found),
                        side.Beside is { } beside ? ComparisonWords.Of(beside.Passages[place]) : string.Empty,
                        side.Beside?.Passages[place].IsReal
                    )
                    : null)]))],
            comparison.Sides.All(side => side.Differences.All(difference => difference.What != Condition.Timeline)),
            Core.Findings.Comparing.Axis.Along([
                .. comparison.Sides.Select(side => new AxisSide(side.Differences, side.Beside, side.Shares)),
            ])
                is { } axis
                ? AxisView.Of(axis)
                : null
        );
    }
}

/// <summary>A side's head.</summary>
/// <param name="Timeline">Its title.</param>
/// <param name="Repeats">How many runs were played just so, this one among them.</param>
/// <param name="Notes">What to know before trusting it, a phrase each.</param>
/// <param name="Conditions">Differences from the base besides the parts of the machine.</param>
/// <param name="Parts">Differences of the machine.</param>
/// <param name="Sum">What it shows beside the base; empty for the base.</param>
public sealed record SideView(
    long RunId,
    string Machine,
    bool IsStandIn,
    string Timeline,
    DateTimeOffset StartedAt,
    double FramesPerSecond,
    int Repeats,
    IReadOnlyList<string> Notes,
    IReadOnlyList<DifferenceView> Conditions, IReadOnlyList<DifferenceView> Parts, string Sum)
{
    /// <summary>Why it does not count for its machine, and what to do, in words; null where it counts.</summary>
    public string? NotCounting { get; init; }

    /// <summary>Where its decoding and effects ran, a sentence; null where all sides are alike in it.</summary>
    public string? WorkRan { get; init; }

    public static SideView Of(ComparedSide side, ComparedSide first, bool differInPlaces)
    {
        var differences = side.Differences.ToLookup(difference => difference.IsOfMachine, DifferenceView.Of);
        return new SideView(
            side.Judged.Id,
            side.Header.Machine.Name,
            side.Header.Conditions.Seed is not null,
            side.Header.Timeline.Title,
            side.Judged.StartedAt,
            side.Header.Timeline.Rate.FramesPerSecond,
            side.Repeats.Count,
            side.Judged.Notes,
            [.. differences[false]],
            [.. differences[true]],
            side.Beside is { } beside ? ComparisonWords.Sum(beside, Name(side, first, "The"), Name(first, side, "the"))
                : side == first ? string.Empty
                : $"Nothing is compared: {(side.Judged.Disturbed ? "this run" : "the base")} does not count.")
        {
            NotCounting = side.Judged.NotCounting,
            WorkRan = differInPlaces ? ComparisonWords.Of(side.WorkRan) : null,
        };
    }

    /// <summary>The machine's name, where both have the same the editing program's, where they have that too the run's number.</summary>
    private static string Name(ComparedSide side, ComparedSide other, string article) =>
        side.Header.Machine.Name != other.Header.Machine.Name ? side.Header.Machine.Name
        : side.Header.Settings.Program?.Name != other.Header.Settings.Program?.Name ? side.Header.Settings.Program?.Name ?? $"{article} Hardy Bench player"
        : $"Run {side.Judged.Id}";
}

/// <summary>A difference of conditions.</summary>
public sealed record DifferenceView(string What, string? Base, string? Other)
{
    public static DifferenceView Of(ConditionDifference difference) =>
        new(ComparisonWords.About(difference), difference.Base, difference.Other);
}

/// <summary>A passage across all sides.</summary>
/// <param name="Cells">One a side; null where it did not play this passage.</param>
public sealed record ComparedRow(int Number, string Question, int FrameCount, IReadOnlyList<ComparedCell?> Cells);

/// <summary>A passage on one side.</summary>
/// <param name="Number">In that side's own run, from 1.</param>
/// <param name="Beside">Beside the base, a phrase; empty for the base.</param>
/// <param name="IsReal">Whether it differs by more than chance; null where that is unknown.</param>
public sealed record ComparedCell(int Number, CellView Cell, string Beside, bool? IsReal);
