using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>What playing itself took of the processor.</summary>
public static class PlayersWork
{
    /// <summary>Cores that decoding and effects took, over the run or one passage; null where it could not be read.</summary>
    public static double? Of(Run run, int? passage = null)
    {
        var slots = passage is { } index ? run.FramesOf(index) : run.Frames;
        if (slots.Count == 0)
        {
            return null;
        }

        var loads = LoadMeans.Over(run.Loads, slots[0].SlotStart, slots[^1].SlotStart + run.Header.Timeline.Rate.FrameDuration);
        return loads.Of(LoadKind.OwnDecode) is { } decode ? decode + (loads.Of(LoadKind.OwnEffects) ?? 0) : null;
    }
}
