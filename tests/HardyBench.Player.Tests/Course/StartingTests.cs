using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Player.Course;

namespace HardyBench.Player.Tests.Course;

/// <summary>How long it takes to start decoding afresh is learned only while a passage has the machine to itself.</summary>
public sealed class StartingTests
{
    private static readonly FrameRate Rate = new(25);

    private static readonly TimeSpan Took = TimeSpan.FromSeconds(0.95);

    /// <summary>The first of five frames took 0.95 s, those after it no time. Frame 1 is late by a slot, and the next GOP is due in 0.9 s:
    /// by the time of the first frame the rest of this one would have to be given up for it.</summary>
    [Theory]
    [InlineData(true, false)]
    [InlineData(false, true)]
    public void Time_spent_beside_another_passage_does_not_count(bool isAhead, bool givesUp)
    {
        var run = new RunClock();
        var course = new PassageCourse(run, Rate, 0, 250, keepsTime: true, isAhead: isAhead);
        course.Lead(_ => new Gop());
        course.Begin(0, DropReason.None);
        Thread.Sleep(Took + TimeSpan.FromSeconds(0.1));
        course.Decoded(new LeadSample(null, Took, 1) { Begun = 5 });
        course.GoOn();
        course.Decoded(new LeadSample(TimeSpan.Zero, TimeSpan.Zero, 1));

        run.Publish(new SlotClock(Rate, run.Now - TimeSpan.FromSeconds(0.1), TimeSpan.Zero));

        Assert.Equal(givesUp, course.Choose()!.Value.GivesUp);
    }

    private sealed class Gop : IReferences
    {
        public bool StandAlone => false;

        public long FirstFrom(long frame) => (frame + 24) / 25 * 25;
    }
}
