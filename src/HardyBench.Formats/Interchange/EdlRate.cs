using System.Globalization;
using System.Text.RegularExpressions;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;

namespace HardyBench.Formats.Interchange;

/// <summary>The rates that an edit decision list can be counted in. The format does not say; its frame numbers and the way it leaves
/// numbers out rule some out.</summary>
/// <param name="Likely">To be offered first.</param>
/// <param name="Why">What speaks for it, a sentence.</param>
/// <param name="Possible">Every standard rate that has all its numbers, slowest first.</param>
public sealed partial record EdlRate(FrameRate Likely, string Why, IReadOnlyList<FrameRate> Possible)
{
    /// <summary>So many numbers without one of 24 say that frames are counted from 0 to 23: by chance 75 do so once in twenty lists at
    /// 25.</summary>
    private const int EnoughNumbers = 75;

    /// <exception cref="InterchangeException">No standard rate has the list's numbers.</exception>
    public static EdlRate Of(string text)
    {
        var numbers = Numbers().Matches(text);
        var highest = numbers
            .Select(number => int.Parse(number.Groups["frames"].ValueSpan, CultureInfo.InvariantCulture))
            .DefaultIfEmpty(0)
            .Max();
        var drops =
            text.Split('\n').Any(line => EdlReader.LeavesOut(EdlReader.Bare(line)))
            || numbers.Any(number => number.Groups["sign"].Value is ";" or ".");
        var possible = StandardRates
            .All.Where(rate =>
                rate.NominalFramesPerSecond > highest && (!drops || Timecode.HasDropFrame(rate)) && rate.NominalFramesPerSecond >= 24
            )
            .OrderBy(rate => rate.FramesPerSecond).ToList();
        if (possible.Count == 0)
        {
            throw new InterchangeException(
                $"The list has a frame numbered {highest}{(drops ? " and leaves numbers out" : "")}; no standard rate has such frame numbers."
            );
        }

        // Of two that count alike the one over 1.001 is the usual one above 24. Common practice, no source.
        FrameRate[] usual = highest == 23 && numbers.Count >= EnoughNumbers
            ? [new(24)]
            : [new(25), new(30000, 1001), new(50), new(60000, 1001), new(100), new(120000, 1001)];
        var likely = usual.Where(possible.Contains).Concat(possible).First();
        var why = drops ? "It is drop-frame, which only rates over 1.001 use."
            : $"Its highest frame number is {highest}{(likely.NominalFramesPerSecond > highest + 1 ? ", which says little" : "")}.";
        return new EdlRate(likely, why, possible);
    }

    [GeneratedRegex(
        @"(?<=\s)\d\d:\d\d:\d\d(?<sign>[:;.])(?<frames>\d{2,3})(?=\s|$)",
        RegexOptions.CultureInvariant,
        matchTimeoutMilliseconds: 1000
    )]
    private static partial Regex Numbers();
}
