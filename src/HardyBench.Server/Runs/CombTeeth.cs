using HardyBench.Core.Playback;

namespace HardyBench.Server.Runs;

/// <summary>Writes the fates of frames as one letter a frame.</summary>
internal static class CombTeeth
{
    public static string Of(IEnumerable<FrameRecord> frames) => string.Concat(frames.Select(frame => frame.Status switch
    {
        FrameStatus.OnTime => 'o',
        FrameStatus.Late => 'l',
        _ => 'd',
    }));
}
