using HardyBench.Core.Playback;

namespace HardyBench.Server.Plays;

/// <summary>How often pages hear of a run. Drawing what they hear takes some of the machine they are open on, so while it is the one that
/// plays they hear every two seconds, which costs less than a hundredth of a core; a stand-in's run is heard as it comes.</summary>
/// <param name="time">The source of the time.</param>
public sealed class NewsPace(TimeProvider time)
{
    /// <summary>Between two pieces of news of a run on this machine.</summary>
    public static readonly TimeSpan Rhythm = TimeSpan.FromSeconds(2);

    private RunProgress? untold;
    private bool isHere;
    private long toldAt;

    /// <summary>Another run begins: nothing of the one before is sent any more.</summary>
    /// <param name="onThisMachine">Whether it plays on the machine that the server runs on.</param>
    public void Begin(bool onThisMachine) => (untold, isHere, toldAt) = (null, onThisMachine, time.GetTimestamp());

    /// <summary>Adds what a run has brought.</summary>
    /// <returns>All that was not sent yet when it is time to send it; else null.</returns>
    public RunProgress? Add(RunProgress progress)
    {
        untold = untold?.Then(progress) ?? progress;
        if (isHere && time.GetElapsedTime(toldAt) < Rhythm)
        {
            return null;
        }

        var told = untold;
        (untold, toldAt) = (null, time.GetTimestamp());
        return told;
    }
}
