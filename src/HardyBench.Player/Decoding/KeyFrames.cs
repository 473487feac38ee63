namespace HardyBench.Player.Decoding;

/// <summary>Which frames of a looped clip stand alone.</summary>
public sealed class KeyFrames
{
    private readonly long[] keys;
    private readonly long frameCount;

    /// <summary>Every frame stands alone.</summary>
    public static KeyFrames All(long frameCount) => new([], frameCount) { AllIntra = true };

    /// <param name="keys">Frames within the file that stand alone, ascending; frame 0 always counts as one.</param>
    /// <param name="frameCount">Frames in the file, or 0 when unknown: then only the first loop has known key frames.</param>
    public KeyFrames(IReadOnlyList<long> keys, long frameCount)
    {
        this.keys = [0, .. keys.Where(key => key > 0)];
        this.frameCount = frameCount;
        AllIntra = frameCount > 0 && this.keys.Length == frameCount;
    }

    /// <summary>Whether every frame stands alone.</summary>
    public bool AllIntra { get; private init; }

    /// <summary>Frames from one key frame to the next, the longest such stretch of the file.</summary>
    public int LongestGop
    {
        get
        {
            if (AllIntra)
            {
                return 1;
            }

            var end = Math.Max(frameCount, keys[^1] + 1);
            return (int)keys.Zip(keys.Skip(1).Append(end), (from, to) => to - from).Max();
        }
    }

    /// <summary>The last one at or before a frame.</summary>
    public long LastUpTo(long frame)
    {
        if (AllIntra)
        {
            return frame;
        }

        var (loopStart, within) = Place(frame);
        var at = Array.BinarySearch(keys, within);
        return loopStart + keys[at >= 0 ? at : ~at - 1];
    }

    /// <summary>The first one at or after a frame.</summary>
    public long FirstFrom(long frame)
    {
        if (AllIntra)
        {
            return frame;
        }

        var (loopStart, within) = Place(frame);
        var at = Array.BinarySearch(keys, within);
        at = at >= 0 ? at : ~at;
        return at < keys.Length ? loopStart + keys[at] : loopStart + Math.Max(frameCount, within);
    }

    private (long LoopStart, long Within) Place(long frame)
    {
        var loopStart = frameCount > 0 ? frame / frameCount * frameCount : 0;
        return (loopStart, frame - loopStart);
    }
}
