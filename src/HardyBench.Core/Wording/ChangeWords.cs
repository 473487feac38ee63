using HardyBench.Core.Playback;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Trials.Kinds;

namespace HardyBench.Core.Wording;

/// <summary>Says what the second side of a comparison changes.</summary>
public static class ChangeWords
{
    /// <summary>What a trial's second side changes; null where it has none.</summary>
    public static string? Of(Trial trial, PlaybackSettings settings) =>
        trial is CompareTrial compare ? Of(settings, compare.Other, compare.WithoutEffect) : null;

    /// <param name="other">The second side's settings; null for the same.</param>
    /// <param name="withoutEffect">The id of an effect that it leaves out, or null.</param>
    /// <returns>Null when there is no second side.</returns>
    public static string? Of(PlaybackSettings settings, PlaybackSettings? other, string? withoutEffect)
    {
        var (first, second) = (settings.Differences(), (other ?? settings).Differences());
        string[] words =
        [
            .. second.Except(first),
            .. first.Except(second).Select(gone => $"no longer {gone}"),
            .. withoutEffect is null ? Array.Empty<string>() : [$"without {EffectCatalogue.LabelOf(withoutEffect)}"],
        ];
        return words.Length == 0 ? null : string.Join(", ", words);
    }
}
