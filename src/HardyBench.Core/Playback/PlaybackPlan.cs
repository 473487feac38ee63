using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Playback;

/// <summary>Everything that decides a run before it starts: what is played, on what, how.</summary>
public sealed record PlaybackPlan(
    Timeline Timeline, IReadOnlyDictionary<string, Clip> Clips, Machine Machine, PlaybackSettings Settings)
{
    /// <exception cref="PlanRefusedException">The timeline cannot be played as it stands.</exception>
    public PlaybackPlan Checked()
    {
        var problems = TimelineCheck.Problems(Timeline, Clips);
        return problems.Count == 0 ? this : throw new PlanRefusedException(string.Join(' ', problems));
    }

    /// <summary>SHA-256 of the files played, by clip id; clips that are not made have none.</summary>
    public IReadOnlyDictionary<string, string> ClipChecksums => Timeline.ClipIds
        .Where(id => Clips[id].Sha256 is not null)
        .ToDictionary(id => id, id => Clips[id].Sha256!);

    /// <summary>The clips of a passage's layers, bottom first.</summary>
    public IReadOnlyList<Clip> ClipsOf(Passage passage) => [.. passage.Layers.Select(layer => Clips[layer.ClipId])];
}

/// <summary>A plan that cannot be played; the message says what is wrong with it.</summary>
public sealed class PlanRefusedException(string message) : Exception(message);
