using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>The fates of frames, a letter each: o on time, l late, d dropped.</summary>
public static class CombTeeth
{
    public static string Of(IReadOnlyList<FrameRecord> frames) => string.Create(frames.Count, frames, static (teeth, frames) =>
    {
        for (var place = 0; place < teeth.Length; place++)
        {
            teeth[place] = frames[place].Status switch { FrameStatus.OnTime => 'o', FrameStatus.Late => 'l', _ => 'd' };
        }
    });
}
