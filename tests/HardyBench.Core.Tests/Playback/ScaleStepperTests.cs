using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Playback;

public sealed class ScaleStepperTests
{
    [Theory]
    [InlineData(2, false)]
    [InlineData(3, true)]
    public void More_than_a_tenth_of_a_second_s_slots_missed_steps_down(int missed, bool steps)
    {
        var stepper = new ScaleStepper(PreviewScale.Full, Samples.Rate);

        var stepped = Enumerable.Range(0, 25).Count(slot => stepper.Observe(slot < missed));

        Assert.Equal(steps ? (1, PreviewScale.Half) : (0, PreviewScale.Full), (stepped, stepper.Scale));
    }

    [Fact]
    public void It_waits_a_whole_second_between_steps_and_ends_at_an_eighth()
    {
        var stepper = new ScaleStepper(PreviewScale.Full, Samples.Rate);

        var steps = Enumerable.Range(1, 200).Where(_ => stepper.Observe(true)).ToList();

        Assert.Equal([25, 50, 75], steps);
        Assert.Equal(PreviewScale.Eighth, stepper.Scale);
    }

    [Fact]
    public void Another_passage_begins_at_the_scale_that_was_set()
    {
        var stepper = new ScaleStepper(PreviewScale.Half, Samples.Rate);
        _ = Enumerable.Range(0, 25).Count(_ => stepper.Observe(true));

        stepper.Reset();

        Assert.Equal(PreviewScale.Half, stepper.Scale);
        Assert.False(stepper.Observe(true));
    }
}
