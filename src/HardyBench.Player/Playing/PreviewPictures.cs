using HardyBench.Core.Playback;
using HardyBench.Player.Native;

namespace HardyBench.Player.Playing;

/// <summary>A screen that sends a small picture to the observer a few times a second. It costs some of what is
/// measured, so it is used only when the settings ask for it.</summary>
public sealed class PreviewPictures(RunClock run, IRunObserver observer) : IScreen
{
    private const int Width = 320;
    private static readonly TimeSpan Interval = TimeSpan.FromMilliseconds(250);
    private TimeSpan due = TimeSpan.Zero;

    public void Show(long frame, FrameHandle picture)
    {
        if (run.Now >= due)
        {
            due = run.Now + Interval;
            observer.Pictured((int)frame, picture.ToJpeg(Width));
        }
    }
}
