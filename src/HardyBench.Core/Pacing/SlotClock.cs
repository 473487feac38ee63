using HardyBench.Core.Footage;

namespace HardyBench.Core.Pacing;

/// <summary>When slots begin and end: frame n owns [t0 + n/r, t0 + (n+1)/r), all moved by the slip.</summary>
/// <param name="FirstShown">t0, the moment the first frame is shown, from the key.</param>
/// <param name="Slip">How far the clock has slipped; always zero under keep time.</param>
public readonly record struct SlotClock(FrameRate Rate, TimeSpan FirstShown, TimeSpan Slip)
{
    public TimeSpan StartOf(long frame) => FirstShown + Slip + Rate.StartOf(frame);

    public TimeSpan EndOf(long frame) => StartOf(frame + 1);

    /// <summary>The same clock, slipped further so that <paramref name="frame"/>'s slot begins at <paramref name="shown"/>.</summary>
    public SlotClock SlippedTo(long frame, TimeSpan shown) => this with { Slip = Slip + (shown - StartOf(frame)) };
}
