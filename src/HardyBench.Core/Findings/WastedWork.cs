using HardyBench.Core.Footage;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>Work on frames of a passage that were not shown.</summary>
/// <param name="Frames">Frames that were wasted.</param>
/// <param name="Share">Their part of all reading, decoding and effects time, 0 to 1; null where nothing was worked on.</param>
public readonly record struct WastedWork(int Frames, double? Share)
{
    /// <param name="frames">The settled slots of the passage, in order.</param>
    /// <param name="loads">Of the passage at least.</param>
    public static WastedWork Of(IReadOnlyList<FrameRecord> frames, IReadOnlyList<LoadReading> loads, FrameRate rate)
    {
        if (frames.Count == 0)
        {
            return default;
        }

        var (from, to) = (frames[0].SlotStart, frames[^1].SlotStart + rate.FrameDuration);
        var wasted = loads.Where(load => load.Kind == LoadKind.WastedWork && load.At >= from && load.At < to)
            .Select(load => (double)load.Value).ToList();
        var useful = frames.Where(frame => frame.Shown is not null).Sum(frame => (frame.Read + frame.Decode + frame.Effects).TotalSeconds);
        return new WastedWork(wasted.Count, wasted.Sum() + useful is > 0 and var all ? wasted.Sum() / all : null);
    }
}
