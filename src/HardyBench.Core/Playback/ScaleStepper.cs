using HardyBench.Core.Footage;

namespace HardyBench.Core.Playback;

/// <summary>The automatic scale: one step down when too much of the last second was missed. It never steps up within a
/// passage, so that it cannot swing.</summary>
public sealed class ScaleStepper
{
    /// <summary>Share of slots missed above which it steps down. Our own choice.</summary>
    public const double MaxMissed = 0.1;

    private readonly Queue<bool> slots = new();
    private readonly PreviewScale start;
    private readonly int window;
    private int missed;

    /// <param name="start">The scale that a passage begins with.</param>
    public ScaleStepper(PreviewScale start, FrameRate rate)
    {
        this.start = start;
        window = Math.Max(4, rate.NominalFramesPerSecond);
        Scale = start;
    }

    public PreviewScale Scale { get; private set; }

    /// <summary>Notes what became of a slot.</summary>
    /// <returns>True when the scale has just stepped down.</returns>
    public bool Observe(bool isMissed)
    {
        slots.Enqueue(isMissed);
        missed += isMissed ? 1 : 0;
        if (slots.Count > window)
        {
            missed -= slots.Dequeue() ? 1 : 0;
        }

        if (slots.Count < window || missed <= MaxMissed * window || Scale == PreviewScale.Eighth)
        {
            return false;
        }

        Scale = (PreviewScale)((int)Scale * 2);
        slots.Clear();
        missed = 0;
        return true;
    }

    /// <summary>Another passage begins at the scale set.</summary>
    public void Reset()
    {
        Scale = start;
        slots.Clear();
        missed = 0;
    }
}
