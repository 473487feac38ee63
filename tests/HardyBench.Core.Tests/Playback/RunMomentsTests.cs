using HardyBench.Core.Playback;
using HardyBench.Core.Tests.Trials;
using HardyBench.Core.Trials;

namespace HardyBench.Core.Tests.Playback;

public sealed class RunMomentsTests
{
    /// <summary>Two passages of 100 slots, 40 ms each, whose first begins 500 ms after the key.</summary>
    private static readonly Run Played = Late(Scripted.Run(new TrialStep(StepRole.Only, Scripted.Plan(2)), _ => 1));

    [Theory]
    [InlineData(0, 500)]
    [InlineData(60, 2900)]
    [InlineData(199, 8460)]
    public void A_mark_at_a_frame_lies_where_its_slot_began(int frame, double ms) =>
        Assert.Equal((Samples.Ms(ms), frame), At(null, frame));

    [Theory]
    [InlineData(0, null)]
    [InlineData(499, null)]
    [InlineData(500, 0)]
    [InlineData(2939, 60)]
    [InlineData(99999, 199)]
    public void A_mark_at_a_moment_belongs_to_the_slot_that_it_falls_in(double ms, int? frame) =>
        Assert.Equal((Samples.Ms(ms), frame), At(Samples.Ms(ms), null));

    [Fact]
    public void Without_either_it_is_the_newest_moment_known() => Assert.Equal((Samples.Ms(8460), 199), At(null, null));

    [Fact]
    public void A_frame_that_has_not_been_reached_yet_is_reckoned_from_the_first()
    {
        var running = Played with { Frames = [.. Played.Frames.Take(10)] };

        Assert.Equal(Samples.Ms(500 + 150 * 40), RunMoments.Mark(running, null, 150, MarkKind.Fan, "").At);
    }

    /// <summary>While it plays the newest frames are not known yet; the moment of a key press lies after those that are.</summary>
    [Fact]
    public void A_moment_that_is_not_known_yet_belongs_to_the_slot_that_the_rate_gives()
    {
        var running = Played with { Frames = [.. Played.Frames.Take(10)] };

        Assert.Equal(150, RunMoments.Mark(running, Samples.Ms(500 + 150 * 40 + 7), null, MarkKind.Fan, "").Frame);
        Assert.Equal(199, RunMoments.Mark(running, TimeSpan.FromHours(1), null, MarkKind.Fan, "").Frame);
    }

    [Fact]
    public void A_moment_outside_the_run_and_a_text_too_long_are_refused()
    {
        Assert.Throws<PlanRefusedException>(() => At(Samples.Ms(-1), null));
        Assert.Throws<PlanRefusedException>(() => At(null, 200));
        Assert.Throws<PlanRefusedException>(() => RunMoments.Mark(Played, null, 1, MarkKind.Fan, new string('x', RunMark.LongestText + 1)));
    }

    private static (TimeSpan At, int? Frame) At(TimeSpan? at, int? frame)
    {
        var mark = RunMoments.Mark(Played, at, frame, MarkKind.Stutter, " seen ");
        Assert.Equal("seen", mark.Text);
        return (mark.At, mark.Frame);
    }

    private static Run Late(Run run) => run with
    {
        StartLag = Samples.Ms(500),
        Frames = [.. run.Frames.Select(frame => frame with { SlotStart = frame.SlotStart + Samples.Ms(500) })],
    };
}
