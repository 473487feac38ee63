using HardyBench.Core.Footage;

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
            var where = $"Passage {index + 1} ({passage.Question})";
            if (passage.FrameCount < 1)
            {
                problems.Add($"{where} has no length.");
            }

            if (passage.Layers.Count == 0)
            {
                problems.Add($"{where} has no layers.");
            }

            if (passage.Dissolve && passage.Layers.Count != 2)
            {
                problems.Add($"{where} dissolves, which needs two layers; it has {passage.Layers.Count}.");
            }

            problems.AddRange(passage.Layers
                .Where(layer => !clips.ContainsKey(layer.ClipId))
                .Select(layer => $"{where} plays the clip '{layer.ClipId}', which is not known."));
        }

        return problems;
    }
}
