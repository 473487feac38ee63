using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Player.Decoding;

/// <summary>How the frames of a layer hang on each other, by timeline frame.</summary>
/// <param name="source">The source frame that a frame of the passage shows.</param>
/// <param name="start">Timeline frame on which the passage begins.</param>
internal sealed class LayerReferences(KeyFrames keys, Func<long, long> source, long start, int frameCount) : IReferences
{
    public bool StandAlone => keys.AllIntra;

    public long FirstFrom(long frame)
    {
        if (frame >= start + frameCount)
        {
            return start + frameCount;
        }

        var key = keys.FirstFrom(source(frame - start));
        while (frame < start + frameCount && source(frame - start) < key)
        {
            frame++;
        }

        return frame;
    }
}
