using HardyBench.Core.Playback;
using HardyBench.Core.Tests.Trials;
using HardyBench.Core.Trials;

namespace HardyBench.Core.Tests.Playback;

public sealed class RunPassagesTests
{
    private static readonly Run Whole = Scripted.Run(new TrialStep(StepRole.Only, Scripted.Plan(3)), _ => 1);

    [Theory]
    [InlineData(300, 100, 100, 100)]
    [InlineData(150, 100, 50, 0)]
    [InlineData(0, 0, 0, 0)]
    public void Every_slot_is_in_the_passage_that_it_belongs_to_however_far_the_run_came(int settled, params int[] counts)
    {
        foreach (
            var frames in new IReadOnlyList<FrameRecord>[] { Whole.Frames.Take(settled).ToArray(), Whole.Frames.Take(settled).ToList() }
        )
        {
            var run = Whole with { Frames = frames };

            Assert.Equal(counts, Enumerable.Range(0, 3).Select(passage => run.FramesOf(passage).Count));
            Assert.Equal(frames, Enumerable.Range(0, 3).SelectMany(passage => run.FramesOf(passage)));
        }
    }
}
