using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Playback;

public sealed class EstimatedClockTests
{
    private readonly SetClock time = new();
    private readonly EstimatedClock clock;
    private double passed, waited;

    public EstimatedClockTests() => clock = new EstimatedClock(time);

    /// <summary>News comes late by up to two seconds; the moment of a key press is told all the same.</summary>
    [Fact]
    public void The_news_with_the_least_delay_tells_the_moment()
    {
        clock.Begin(7);
        Hear(at: 1000, delay: 100);
        Hear(at: 3000, delay: 1900);
        time.Now += TimeSpan.FromMilliseconds(50);

        Assert.Equal(Samples.Ms(3000 + 1900 + 50 - 100), clock.MomentOf(7, TimeSpan.Zero));
        Assert.Equal(Samples.Ms(3000 + 1900 + 50 - 100 - 800), clock.MomentOf(7, Samples.Ms(800)));
    }

    [Fact]
    public void Of_another_run_and_before_anything_was_heard_nothing_is_told()
    {
        clock.Begin(7);
        Assert.Null(clock.MomentOf(7, TimeSpan.Zero));
        Hear(at: 100, delay: 0);

        Assert.Null(clock.MomentOf(8, TimeSpan.Zero));
        clock.Begin(8);
        Assert.Null(clock.MomentOf(8, TimeSpan.Zero));
    }

    [Fact]
    public void Before_the_run_began_it_is_its_beginning()
    {
        clock.Begin(7);
        Hear(at: 100, delay: 0);

        Assert.Equal(TimeSpan.Zero, clock.MomentOf(7, TimeSpan.FromSeconds(9)));
    }

    /// <summary>Lets the time pass until the run is at a moment and the news of it has come.</summary>
    private void Hear(double at, double delay)
    {
        time.Now += Samples.Ms(at - passed + delay - waited);
        (passed, waited) = (at, delay);
        clock.Hear(new RunProgress([], [new LoadReading(Samples.Ms(at), LoadKind.Core, 0, 0)], []));
    }

    private sealed class SetClock : TimeProvider
    {
        public TimeSpan Now { get; set; } = TimeSpan.FromMinutes(1);

        public override long TimestampFrequency => TimeSpan.TicksPerSecond;

        public override long GetTimestamp() => Now.Ticks;
    }
}
