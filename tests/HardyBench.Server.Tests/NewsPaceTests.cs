using HardyBench.Core.Playback;
using HardyBench.Server.Plays;

namespace HardyBench.Server.Tests;

/// <summary>Pages on the machine that is measured are told of its run every two seconds, and miss nothing of it.</summary>
public sealed class NewsPaceTests
{
    private readonly SetClock clock = new();

    [Fact]
    public void What_came_within_two_seconds_on_this_machine_is_told_at_its_end_at_once()
    {
        var pace = new NewsPace(clock);
        pace.Begin(onThisMachine: true);

        var told = Enumerable.Range(0, 11).Select(tenth => At(tenth * 200, pace, tenth)).ToList();

        Assert.All(told.Take(10), Assert.Null);
        Assert.Equal(Enumerable.Range(0, 11), told[10]!.Frames.Select(frame => frame.Frame));
        Assert.Null(At(3900, pace, 11));
        Assert.Equal([11, 12], At(4000, pace, 12)!.Frames.Select(frame => frame.Frame));
    }

    [Fact]
    public void Of_a_stand_in_all_is_told_as_it_comes()
    {
        var pace = new NewsPace(clock);
        pace.Begin(onThisMachine: false);

        Assert.Equal([3], At(0, pace, 3)!.Frames.Select(frame => frame.Frame));
        Assert.Equal([4], At(1, pace, 4)!.Frames.Select(frame => frame.Frame));
    }

    [Fact]
    public void Nothing_of_a_run_is_told_after_another_began()
    {
        var pace = new NewsPace(clock);
        pace.Begin(onThisMachine: true);
        At(500, pace, 7);
        pace.Begin(onThisMachine: true);

        Assert.Equal([0], At(2500, pace, 0)!.Frames.Select(frame => frame.Frame));
    }

    private RunProgress? At(int milliseconds, NewsPace pace, int frame)
    {
        clock.Now = TimeSpan.FromMilliseconds(milliseconds);
        return pace.Add(new RunProgress([new FrameRecord { Frame = frame }], [], []));
    }

    private sealed class SetClock : TimeProvider
    {
        public TimeSpan Now { get; set; }

        public override long TimestampFrequency => TimeSpan.TicksPerSecond;

        public override long GetTimestamp() => Now.Ticks;
    }
}
