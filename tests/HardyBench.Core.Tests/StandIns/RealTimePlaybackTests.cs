using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;

namespace HardyBench.Core.Tests.StandIns;

/// <summary>A simulated run at the pace of a made-up clock.</summary>
public sealed class RealTimePlaybackTests
{
    private static readonly PlaybackPlan Plan = Samples.Plan(Samples.Machine(), Samples.HdAvc);

    private readonly WaitingClock clock = new();

    [Fact]
    public async Task What_comes_by_and_by_is_the_run_that_is_there_at_once()
    {
        var heard = new Heard();
        var whole = await new StandInPlayback(clock).PlayAsync(Plan, new NoObserver(), CancellationToken.None);

        var run = await new RealTimePlayback(new StandInPlayback(clock), clock).PlayAsync(Plan, heard, CancellationToken.None);

        Assert.Equal((RunEnding.Finished, whole.Frames.Count), (run.Ending, run.Frames.Count));
        Assert.Equal(whole.Frames, heard.Pieces.SelectMany(piece => piece.Frames));
        Assert.Equal(whole.Loads, heard.Pieces.SelectMany(piece => piece.Loads));
        // Five in a fifth of a second, from shortly after the key on.
        Assert.All(heard.Pieces.Skip(1).SkipLast(2), piece => Assert.InRange(piece.Frames.Count, 4, 6));
        Assert.InRange(clock.Waited.TotalSeconds, 4, 4.6);
    }

    [Fact]
    public async Task One_that_is_stopped_has_what_had_come_till_then()
    {
        using var stop = new CancellationTokenSource();
        var heard = new Heard(25, stop.Cancel);

        var run = await new RealTimePlayback(new StandInPlayback(clock), clock).PlayAsync(Plan, heard, stop.Token);

        Assert.Equal(RunEnding.Stopped, run.Ending);
        Assert.InRange(run.Frames.Count, 25, 40);
        Assert.Equal(run.Frames, heard.Pieces.SelectMany(piece => piece.Frames));
    }

    /// <summary>Whoever waits by it has waited at once.</summary>
    private sealed class WaitingClock : TimeProvider
    {
        public TimeSpan Waited { get; private set; }

        public override long TimestampFrequency => TimeSpan.TicksPerSecond;

        public override long GetTimestamp() => Waited.Ticks;

        public override ITimer CreateTimer(TimerCallback callback, object? state, TimeSpan dueTime, TimeSpan period)
        {
            Waited += dueTime;
            return base.CreateTimer(callback, state, TimeSpan.Zero, period);
        }
    }

    private sealed class Heard(int after = int.MaxValue, Action? then = null) : IRunObserver
    {
        public List<RunProgress> Pieces { get; } = [];

        public void Progressed(RunProgress progress)
        {
            Pieces.Add(progress);
            if (Pieces.Sum(piece => piece.Frames.Count) >= after)
            {
                then!();
            }
        }
    }
}
