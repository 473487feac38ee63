using System.Globalization;

namespace HardyBench.Core.Findings.Comparing;

/// <summary>A side's place along an axis.</summary>
/// <param name="Side">Its place in the comparison, from 0.</param>
/// <param name="Text">The value as the conditions have it: "32 GB".</param>
/// <param name="Ratio">Frames shown beside the base, the geometric mean over passages; 1 for the base.</param>
public sealed record AxisPoint(int Side, double Value, string Text, double Ratio);

/// <summary>Sides that differ in one thing only, which can be put in an order.</summary>
/// <param name="Points">By rising value.</param>
/// <param name="Knee">The place among the points from which on nothing is gained; the last one where every step gains.</param>
public sealed record Axis(Condition What, IReadOnlyList<AxisPoint> Points, int Knee)
{
    /// <summary>Less than this is no gain. Common practice, no source.</summary>
    private const double Gain = 0.01;

    /// <param name="sides">Each side's differences from the base and what it shows beside it; the base first, with neither.</param>
    /// <returns>Null where they differ in more than one thing, in nothing, or in something without an order.</returns>
    public static Axis? Of(IReadOnlyList<(IReadOnlyList<ConditionDifference> Differences, SideBeside? Beside)> sides)
    {
        var others = sides.Skip(1).ToList();
        if (others.Count < 2 || others.Exists(side => side.Differences.Count != 1) || others.Select(side => (side.Differences[0].What, side.Differences[0].Of)).Distinct().Count() != 1)
        {
            return null;
        }

        var texts = others.Select(side => side.Differences[0].Other).Prepend(others[0].Differences[0].Base).ToList();
        var points = sides.Select((side, place) => Number(texts[place]) is { } value && (place == 0 ? 1 : side.Beside?.MeanRatio) is { } ratio
            ? new AxisPoint(place, value, texts[place]!, ratio) : null).OfType<AxisPoint>().OrderBy(point => point.Value).ToList();
        return points.Count == sides.Count ? new Axis(others[0].Differences[0].What, points, KneeOf(points)) : null;
    }

    private static int KneeOf(List<AxisPoint> points)
    {
        var best = points.Max(point => point.Ratio);
        return points.FindIndex(point => point.Ratio >= (1 - Gain) * best);
    }

    /// <summary>The number with which a value begins; null where it begins with none.</summary>
    private static double? Number(string? text)
    {
        var digits = new string([.. (text ?? string.Empty).TakeWhile(letter => char.IsAsciiDigit(letter) || letter == '.')]);
        return double.TryParse(digits, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number) ? number : null;
    }
}
