using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;

namespace HardyBench.Player.Decoding;

/// <summary>Reaches any frame of one layer by the shortest way: the picture it has, on from where it is, or from the
/// nearest frame before that stands alone. Retimed layers show the frame shot nearest before, and a frame for which the footage has
/// no picture shows the one before it.</summary>
public sealed class ReachableLayer : IDisposable
{
    private readonly ClipDecoder source;
    private readonly Layer layer;
    private DecodedFrame? last;
    private DecodedFrame? after;

    /// <exception cref="MediaException">The clip cannot be opened.</exception>
    public ReachableLayer(ClipSource clip, int threads, string? device, Layer layer)
    {
        this.layer = layer;
        source = new ClipDecoder(clip, threads, device);
        if (source.Keys.AllIntra)
        {
            // With frame threads each single frame would wait for those after it, which nobody asked for.
            source.Dispose();
            source = new ClipDecoder(clip, threads, device, oneByOne: true);
        }
    }

    /// <summary>Frames decoded since it was opened, which is what reaching costs.</summary>
    public int Decoded { get; private set; }

    /// <summary>What the decoder said of damaged data so far, in words, or null.</summary>
    public string? Damage => source.Damage;

    /// <returns>The caller's own reference.</returns>
    /// <exception cref="MediaException">The clip is damaged.</exception>
    public DecodedFrame Reach(long position, FrameRate timeline)
    {
        var number = layer.SourceFrameAt(position, timeline, source.Rate);
        if (last is null || number < last.Number || source.Keys.LastUpTo(number) > (after ?? last).Number + 1)
        {
            Begin(source.Keys.LastUpTo(number), number);
        }

        while (last!.Number < number && !(after?.Number > number))
        {
            if (after is not null)
            {
                last.Dispose();
                (last, after) = (after, null);
                continue;
            }

            after = Next();
        }

        return last with { Picture = last.Picture.Another() };
    }

    public void Dispose()
    {
        Forget();
        source.Dispose();
    }

    /// <summary>Seeks, and reads on from the start of the clip where seeking ended past the frame, as in files without an index.</summary>
    private void Begin(long key, long number)
    {
        Forget();
        source.SeekTo(key);
        last = Next();
        if (last.Number > number && source.FrameCount > 0)
        {
            Forget();
            source.SeekTo(number / source.FrameCount * source.FrameCount);
            last = Next();
        }
    }

    private DecodedFrame Next()
    {
        Decoded++;
        return source.Next();
    }

    private void Forget()
    {
        last?.Dispose();
        after?.Dispose();
        (last, after) = (null, null);
    }
}
