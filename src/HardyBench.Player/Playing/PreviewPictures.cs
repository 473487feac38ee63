using HardyBench.Core.Playback;
using HardyBench.Player.Native;
using HardyBench.Telemetry;

namespace HardyBench.Player.Playing;

/// <summary>A screen that sends a small picture to the observer a few times a second. They are made on a thread of their own, whose
/// load is read separately, so that the presenter is not held up; they still cost some of what is measured, and are made only when the
/// settings ask for them. One that cannot be made is left out, and the run goes on.</summary>
public sealed class PreviewPictures : IScreen, IDisposable
{
    private const int Width = 320;
    private static readonly TimeSpan Interval = TimeSpan.FromMilliseconds(250);

    private readonly RunClock run;
    private readonly IRunObserver observer;
    private readonly object gate = new();
    private readonly Task making;
    private (long Frame, FrameHandle Picture)? newest;
    private TimeSpan due = TimeSpan.Zero;
    private bool over;
    private int failed;

    public PreviewPictures(RunClock run, IRunObserver observer)
    {
        (this.run, this.observer) = (run, observer);
        making = OwnThread.Start(ThreadRoles.Picture, Make);
    }

    /// <summary>What did not work, a phrase; null when everything did.</summary>
    public string? Failure =>
        failed == 0 ? null : $"{(failed == 1 ? "1 preview picture" : $"{failed} preview pictures")} could not be made";

    public void Show(long frame, FrameHandle picture)
    {
        if (run.Now < due)
        {
            return;
        }

        due = run.Now + Interval;
        lock (gate)
        {
            newest?.Picture.Dispose();
            newest = null;
            Try(() => newest = (frame, picture.Another()));
            Monitor.Pulse(gate);
        }
    }

    /// <summary>Waits for the picture that is being made.</summary>
    public void Dispose()
    {
        lock (gate)
        {
            over = true;
            Monitor.Pulse(gate);
        }

        making.Wait();
    }

    private void Make()
    {
        while (Next() is { } next)
        {
            using var picture = next.Picture;
            Try(() => observer.Pictured((int)next.Frame, picture.ToJpeg(Width)));
        }
    }

    private void Try(Action work)
    {
        try
        {
            work();
        }
        catch (Exception)
        {
            failed++;
        }
    }

    /// <summary>Waits for a picture; null when the run is over and none is left.</summary>
    private (long Frame, FrameHandle Picture)? Next()
    {
        lock (gate)
        {
            while (newest is null && !over)
            {
                Monitor.Wait(gate);
            }

            var next = newest;
            newest = null;
            return next;
        }
    }
}
