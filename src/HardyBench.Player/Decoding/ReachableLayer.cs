using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;

namespace HardyBench.Player.Decoding;

/// <summary>Reaches any frame of one layer by the shortest way: the picture it has, on from where it is, or from the
/// nearest frame before that stands alone. Retimed layers show the frame shot nearest before.</summary>
public sealed class ReachableLayer : IDisposable
{
    private readonly ClipDecoder source;
    private readonly Layer layer;
    private DecodedFrame? last;

    /// <exception cref="Native.MediaException">The clip cannot be opened.</exception>
    public ReachableLayer(string path, int threads, string? device, Layer layer)
    {
        this.layer = layer;
        source = new ClipDecoder(path, threads, device);
        if (source.Keys.AllIntra)
        {
            // With frame threads each single frame would wait for those after it, which nobody asked for.
            source.Dispose();
            source = new ClipDecoder(path, threads, device, oneByOne: true);
        }
    }

    /// <summary>Frames decoded since it was opened, which is what reaching costs.</summary>
    public int Decoded { get; private set; }

    /// <summary>What the decoder said of damaged data so far, in words, or null.</summary>
    public string? Damage => source.Damage;

    /// <returns>The caller's own reference.</returns>
    /// <exception cref="Native.MediaException">The clip is damaged.</exception>
    public DecodedFrame Reach(long position, FrameRate timeline)
    {
        var number = layer.SourceFrameAt(position, timeline, source.Rate);
        if (last?.Number != number)
        {
            var key = source.Keys.LastUpTo(number);
            if (last is null || number < last.Number || key > last.Number + 1)
            {
                source.SeekTo(key);
            }

            do
            {
                last?.Dispose();
                last = source.Next();
                Decoded++;
            }
            while (last.Number < number);
        }

        return last with { Picture = last.Picture.Another() };
    }

    public void Dispose()
    {
        last?.Dispose();
        source.Dispose();
    }
}
