namespace HardyBench.Player.Decoding;

/// <summary>Which frames of a layer were left out on purpose, to catch up. A frame that is missing and was not left out is one that the
/// footage does not have.</summary>
public sealed class SkippedFrames
{
    /// <summary>Frames may leave a decoder so much later than their data went in.</summary>
    private const int Reordering = 16;

    private readonly List<(long From, long To)> stretches = [];
    private long? openFrom;

    /// <summary>Frames from one up to, but not including, another were left out.</summary>
    public void Add(long from, long to)
    {
        if (to > from)
        {
            stretches.Add((from, to));
        }
    }

    /// <summary>Whether some frames are being left out from here on.</summary>
    /// <param name="next">The next frame whose data goes to the decoder.</param>
    public void Skipping(bool on, long next)
    {
        if (on)
        {
            openFrom ??= next - Reordering;
        }
        else if (openFrom is { } from)
        {
            Add(from, next + Reordering);
            openFrom = null;
        }
    }

    /// <summary>Whether any frame from one to another, both included, may have been left out.</summary>
    public bool Touches(long from, long to) =>
        openFrom <= to || stretches.Exists(stretch => stretch.From <= to && from < stretch.To);

    /// <summary>Forgets what lies before a frame.</summary>
    public void Forget(long before) => stretches.RemoveAll(stretch => stretch.To <= before);
}
