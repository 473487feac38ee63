using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Comparing;

/// <summary>Where the clips and the effects of a run were worked on: sides that differ in it are not alike, whatever else is.</summary>
/// <param name="Decoding">Each place once; empty where no clip was decoded or it is unknown.</param>
/// <param name="Effects">The same of effects.</param>
public sealed record WhereWorkRan(IReadOnlyList<string> Decoding, IReadOnlyList<string> Effects)
{
    public static WhereWorkRan Of(Conditions conditions) => new(
        Once(conditions.Footage?.Values.Select(clip => clip.DecodedOn)),
        Once(conditions.Effects?.Values.Select(effect => effect.RanOn)));

    /// <summary>Whether any two differ in where decoding or effects ran.</summary>
    public static bool Differ(IReadOnlyList<WhereWorkRan> sides) =>
        sides.Any(side => !side.Decoding.SequenceEqual(sides[0].Decoding) || !side.Effects.SequenceEqual(sides[0].Effects));

    private static List<string> Once(IEnumerable<string>? places) => [.. (places ?? []).Distinct().Order(StringComparer.Ordinal)];
}
