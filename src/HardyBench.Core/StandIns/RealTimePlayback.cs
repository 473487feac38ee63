using HardyBench.Core.Playback;

namespace HardyBench.Core.StandIns;

/// <summary>Tells of a simulated run at the pace at which it would have played, for somebody who watches.</summary>
/// <param name="time">Whose clock it keeps.</param>
public sealed class RealTimePlayback(IPlayback playback, TimeProvider time) : IPlayback
{
    private static readonly TimeSpan TellEvery = TimeSpan.FromMilliseconds(200);

    /// <inheritdoc />
    /// <param name="stop">What lay ahead then is not in the run that is returned.</param>
    public async Task<Run> PlayAsync(PlaybackPlan plan, IRunObserver observer, CancellationToken stop)
    {
        var whole = await playback.PlayAsync(plan, new NoObserver(), stop);
        observer.Started(whole.Header);
        var (began, told) = (time.GetTimestamp(), Until(whole, TimeSpan.MinValue));
        while (!IsWhole(told, whole))
        {
            await Task.Delay(TellEvery, time, stop).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            var heard = Until(whole, time.GetElapsedTime(began));
            observer.Progressed(new RunProgress(
                [.. heard.Frames.Skip(told.Frames.Count)], [.. heard.Loads.Skip(told.Loads.Count)],
                [.. heard.Failures.Skip(told.Failures.Count)])
            {
                Lags = [.. heard.Lags.Skip(told.Lags.Count)],
            });
            told = heard;
            if (stop.IsCancellationRequested && !IsWhole(told, whole))
            {
                return told with { Ending = RunEnding.Stopped };
            }
        }

        return whole;
    }

    private static bool IsWhole(Run told, Run whole) =>
        (told.Frames.Count, told.Loads.Count, told.Lags.Count, told.Failures.Count)
            == (whole.Frames.Count, whole.Loads.Count, whole.Lags.Count, whole.Failures.Count);

    /// <summary>What had happened by a moment; what failed is known from the first.</summary>
    private static Run Until(Run run, TimeSpan moment) => run with
    {
        Frames = [.. run.Frames.TakeWhile(frame => frame.SlotStart <= moment)],
        Loads = [.. run.Loads.TakeWhile(load => load.At <= moment)],
        Lags = [.. run.Lags.TakeWhile(lag => lag.AskedAt <= moment)],
        Failures = moment < TimeSpan.Zero ? [] : run.Failures,
    };
}
