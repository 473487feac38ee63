using HardyBench.Core.Footage;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Timelines;

/// <summary>What is wrong with a timeline before anybody plays it.</summary>
public static class TimelineCheck
{
    /// <summary>One sentence a problem; empty when the timeline can be played.</summary>
    public static IReadOnlyList<string> Problems(Timeline timeline, IReadOnlyDictionary<string, Clip> clips)
    {
        var problems = new List<string>();
        if (timeline.Passages.Count == 0)
        {
            problems.Add("The timeline has no passages.");
        }

        foreach (var (index, passage) in timeline.Passages.Index())
        {
            problems.AddRange(ProblemsOf(passage, clips).Select(problem =>
                $"Passage {index + 1} ({passage.Question}): {problem}."));
        }

        return problems;
    }

    /// <summary>What keeps one passage from being played: phrases, none when it can be.</summary>
    public static IEnumerable<string> ProblemsOf(Passage passage, IReadOnlyDictionary<string, Clip> clips)
    {
        if (passage.FrameCount < 1)
        {
            yield return "it has no length";
        }

        if (passage.Layers.Count == 0)
        {
            yield return "it has no layers";
        }

        if (passage.Transition is { } transition && passage.Layers.Count != 2)
        {
            yield return $"a {transition.ToString().ToLowerInvariant()} needs two layers; it has {passage.Layers.Count}";
        }

        if (passage.Layers.Count > 0 && passage.Layers[0].IsTranslucent)
        {
            yield return "the lowest layer has nothing below it that could show through";
        }

        if (passage.Transition is Timelines.Transition.Wipe or Timelines.Transition.Dip && passage.Layers.Any(layer => layer.IsTranslucent))
        {
            yield return $"a {passage.Transition.ToString()!.ToLowerInvariant()} needs opaque layers; make "
                + "them opaque, or use a dissolve";
        }

        foreach (var layer in passage.Layers)
        {
            if (!clips.TryGetValue(layer.ClipId, out var clip))
            {
                yield return $"the clip “{layer.ClipId}” is not known";
            }
            else if (layer.StartFrame < 0 || layer.Skipped < 0)
            {
                yield return $"it begins on frame {layer.StartFrame} of “{clip.Title}”; allowed: 0 or more";
            }

            if (layer.Opacity is < 0 or > 1 or double.NaN)
            {
                yield return FormattableString.Invariant($"an opacity of {layer.Opacity * 100} %; allowed: 0 to 100 %");
            }

            if (layer.Retime is { Speed: < 0 or > 100 or double.NaN } retime)
            {
                yield return FormattableString.Invariant($"a speed of {retime.Speed}; allowed: 0 to 100");
            }
        }

        foreach (var problem in passage.AllEffects().SelectMany(EffectCatalogue.Problems))
        {
            yield return problem;
        }
    }

    /// <summary>Clips of a passage that only stand-ins can play as long as they are not made: phrases.</summary>
    public static IEnumerable<string> NotMade(Passage passage, IReadOnlyDictionary<string, Clip> clips) => passage.Layers
        .Select(layer => clips.GetValueOrDefault(layer.ClipId)).OfType<Clip>().Distinct().Where(clip => clip.Sha256 is null)
        .Select(clip => $"“{clip.Title}” is not created yet: create it under Footage before this machine plays it");

    /// <summary>What a person should know of a passage that can be played: phrases.</summary>
    public static IEnumerable<string> RemarksOn(Passage passage, Timeline timeline, IReadOnlyDictionary<string, Clip> clips)
    {
        foreach (var layer in passage.Layers.Where(layer => clips.ContainsKey(layer.ClipId)))
        {
            var clip = clips[layer.ClipId];
            var needed = layer.SourceFrameAt(passage.FrameCount - 1, timeline.Rate, clip.Format.Rate) + 1;
            if (needed > clip.FrameCount && clip.FrameCount > 1)
            {
                yield return $"“{clip.Title}” has {clip.FrameCount} of the {needed} frames needed and loops";
            }

            if (!DividesEvenly(clip.Format.Rate, timeline.Rate) && clip.FrameCount > 1)
            {
                yield return $"{clip.Format.Rate} frames a second do not divide into {timeline.Rate}, so the movement is uneven";
            }

            if (layer.Retime is { Method: not RetimeMethod.Repeat })
            {
                yield return "this machine's player repeats frames where the retime asks for more; stand-ins include it in full";
            }
        }

        foreach (var kind in passage.AllEffects().Select(effect => EffectCatalogue.Find(effect.Id)).OfType<EffectKind>())
        {
            if (kind.RunsOn == EffectPlace.StandInsOnly)
            {
                yield return $"only stand-ins can play '{kind.Label}'; on this machine the passage fails";
            }
        }
    }

    /// <summary>Whether one rate is a whole multiple of the other.</summary>
    private static bool DividesEvenly(FrameRate one, FrameRate other)
    {
        var (a, b) = ((long)one.Numerator * other.Denominator, (long)other.Numerator * one.Denominator);
        return a % b == 0 || b % a == 0;
    }
}
