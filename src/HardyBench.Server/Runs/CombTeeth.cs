using HardyBench.Core.Playback;

namespace HardyBench.Server.Runs;

/// <summary>Writes the fates of frames as one letter a frame.</summary>
internal static class CombTeeth
{
    public static string Of(IReadOnlyList<FrameRecord> frames) => string.Create(frames.Count, frames, static (teeth, frames) =>
    {
        for (var place = 0; place < teeth.Length; place++)
        {
            teeth[place] = frames[place].Status switch { FrameStatus.OnTime => 'o', FrameStatus.Late => 'l', _ => 'd' };
        }
    });
}
