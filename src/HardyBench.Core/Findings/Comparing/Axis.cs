using System.Globalization;
using System.Text.RegularExpressions;
using HardyBench.Core.Findings.Statistics;

namespace HardyBench.Core.Findings.Comparing;

/// <summary>A side of a comparison, as it is put on an axis.</summary>
/// <param name="Differences">From the base; none for the base.</param>
/// <param name="Beside">What it shows beside the base; null for the base.</param>
/// <param name="Shares">Of each of its runs: frames shown of those asked, the mean over its passages.</param>
public sealed record AxisSide(IReadOnlyList<ConditionDifference> Differences, SideBeside? Beside, IReadOnlyList<double> Shares);

/// <summary>A side's place along an axis.</summary>
/// <param name="Side">Its place in the comparison, from 0.</param>
/// <param name="Text">The value as the conditions have it: "32 GB".</param>
/// <param name="Ratio">Frames shown beside the base, the geometric mean over passages; 1 for the base.</param>
/// <param name="Share">Frames shown of those asked, the mean over passages and runs; above 1 where it was played without a clock.</param>
/// <param name="Half">Half the width of that mean's 95 % interval; null where it was played once.</param>
public sealed record AxisPoint(int Side, double Value, string Text, double Ratio, double Share, double? Half);

/// <summary>Sides that differ in one thing only. What has a size is put in order by it; editing programs have none, and stand by what they
/// show.</summary>
/// <param name="Of">Which clip or effect it is about; null for the run as a whole.</param>
/// <param name="Points">By rising value; programs by rising ratio.</param>
/// <param name="Knee">The place among the points from which on nothing is gained; the last one where every step gains.</param>
public sealed partial record Axis(Condition What, string? Of, IReadOnlyList<AxisPoint> Points, int Knee)
{
    /// <summary>Less than this is no gain. Common practice, no source.</summary>
    private const double Gain = 0.01;

    /// <param name="sides">The base first.</param>
    /// <returns>Null where they differ in more than one thing, in nothing, or in something without an order.</returns>
    public static Axis? Along(IReadOnlyList<AxisSide> sides)
    {
        var programs = sides.Any(side => side.Differences.Any(difference => difference.What == Condition.Program));
        var others = sides.Skip(1).Select(side => programs ? side with { Differences = Without(side.Differences) } : side).ToList();
        if (
            others.Count < 2
            || others.Exists(side => side.Differences.Count != 1)
            || others.Select(side => (side.Differences[0].What, side.Differences[0].Of)).Distinct().Count() != 1
        )
        {
            return null;
        }

        var first = others[0].Differences[0];
        var texts = others.Select(side => side.Differences[0].Other).Prepend(first.Base).Select(HeadOf).ToList();
        var points = sides
            .Select((side, place) => PointOf(side, place, texts[place], programs ? 0 : ValueOf(texts[place])))
            .OfType<AxisPoint>()
            .OrderBy(point => point.Value).ThenBy(point => point.Ratio)
            .ToList();
        points = programs ? [.. points.Select((point, place) => point with { Value = place })] : points;
        return points.Count == sides.Count ? new Axis(first.What, first.Of, points, KneeOf(points)) : null;
    }

    /// <summary>Whether the points have a size of their own, and not only what they show.</summary>
    public bool HasSizes => What != Condition.Program;

    /// <summary>What a program decides by itself is no second difference.</summary>
    private static IReadOnlyList<ConditionDifference> Without(IReadOnlyList<ConditionDifference> differences) =>
        [.. differences.Where(difference =>
            !difference.What.IsOfProgram(difference.Base) || !difference.What.IsOfProgram(difference.Other))];

    private static AxisPoint? PointOf(AxisSide side, int place, string? text, double? size)
    {
        if (size is not { } value || (place == 0 ? 1 : side.Beside?.MeanRatio) is not { } ratio || side.Shares.Count == 0)
        {
            return null;
        }

        var spread = Spread.Of(side.Shares);
        return new AxisPoint(place, value, text!, ratio, spread.Mean, spread.Half);
    }

    private static int KneeOf(List<AxisPoint> points)
    {
        var best = points.Max(point => point.Ratio);
        return points.FindIndex(point => point.Ratio >= (1 - Gain) * best);
    }

    /// <summary>The number by which a value is put in order: the one that it begins with, or the only one in it that has a unit. Null where
    /// there is none such.</summary>
    public static double? ValueOf(string? text)
    {
        text = HeadOf(text);
        var (begins, withUnit) = (NumberFirst().Match(text ?? string.Empty), NumberWithUnit().Matches(text ?? string.Empty));
        var digits = begins.Success ? begins.Value : withUnit.Count == 1 ? withUnit[0].Groups[1].Value : null;
        return double.TryParse(digits, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number) ? number : null;
    }

    /// <summary>What a value is called by: what stands behind a semicolon tells values apart and orders none.</summary>
    public static string? HeadOf(string? text) => text?.Split(';')[0];

    [GeneratedRegex(@"^\d+(\.\d+)?")]
    private static partial Regex NumberFirst();

    [GeneratedRegex(@"(\d+(?:\.\d+)?) [A-Za-z]")]
    private static partial Regex NumberWithUnit();
}
