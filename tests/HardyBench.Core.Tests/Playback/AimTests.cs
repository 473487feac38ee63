using HardyBench.Core.Footage;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Playback;

/// <summary>Which frame is begun next, on a made-up clock: 25 frames a second, the first shown at 1000 ms.</summary>
public sealed class AimTests
{
    private static readonly FrameRate Rate = new(25);

    private static readonly SlotClock Clock = new(Rate, Samples.Ms(1000), TimeSpan.Zero);

    private static readonly UnderWay Nothing = new(0, TimeSpan.Zero, 0, null);

    [Fact]
    public void Before_the_first_frame_is_shown_every_frame_is_begun_in_order()
    {
        var aim = Aim(gop: 1, decode: 500, effects: 500);

        Assert.Equal([0, 1, 2], Enumerable.Range(0, 3).Select(_ => aim.Next(Samples.Ms(9000), null, Nothing).Frame));
    }

    [Fact]
    public void What_can_be_in_time_is_begun_in_order()
    {
        var aim = Aim(gop: 1, decode: 20, effects: 19);

        // Frame 0's slot ends at 1040.
        Assert.Equal(new Choice(0), aim.Next(Samples.Ms(1000), Clock, Nothing));
        Assert.False(aim.IsBehind);
    }

    [Theory]
    [InlineData(20, 20, 1)]
    [InlineData(20, 59, 1)]
    [InlineData(20, 60, 2)]
    [InlineData(200, 200, 10)]
    public void Else_the_first_that_will_be_done_before_its_slot_ends(double decode, double effects, long frame)
    {
        var aim = Aim(gop: 1, decode, effects);

        Assert.Equal(new Choice(frame), aim.Next(Samples.Ms(1000), Clock, Nothing));
        Assert.True(aim.IsBehind);
    }

    [Fact]
    public void Work_before_it_counts_with_its_mean_and_its_own_with_nine_tenths()
    {
        var aim = new Aim(Rate, 0, 1000, new Gop(1));
        foreach (var effects in new[] { 100, 100, 100, 100, 100, 100, 100, 100, 200, 400 })
        {
            aim.Effects.Add(Samples.Ms(effects));
        }

        // The effects under way end at 900 + 140; two more frames go before it, 280; its own take 200: 1520, in the slot of frame 13.
        Assert.Equal(13, aim.Next(Samples.Ms(1000), Clock, new UnderWay(0, TimeSpan.Zero, 2, Samples.Ms(900))).Frame);
    }

    [Fact]
    public void A_miss_aims_further_ahead_and_hits_come_back()
    {
        var (before, after, later) = (Aim(1, 100, 100), Aim(1, 100, 100), Aim(1, 100, 100));
        after.Learn(inTime: false);
        later.Learn(inTime: false);
        for (var hit = 0; hit < 10; hit++)
        {
            later.Learn(inTime: true);
        }

        long First(Aim aim) => aim.Next(Samples.Ms(1000), Clock, Nothing).Frame;
        Assert.Equal((5, 6, 5), (First(before), First(after), First(later)));
    }

    [Fact]
    public void Those_in_hand_are_not_spent_in_a_row()
    {
        var aim = Aim(gop: 1, decode: 0, effects: 200);
        aim.Finishing.Add(Samples.Ms(200));
        aim.Next(Samples.Ms(1000), Clock, Nothing);
        var far = aim.Next(Samples.Ms(3000), Clock, Nothing).Frame;

        // The clock stands still, so all of them would be in time; work takes five slots.
        Assert.Equal([4L, 9, 13], Enumerable.Range(0, 3).Select(_ => aim.Next(Samples.Ms(1000), Clock, Nothing).Frame - far));
    }

    [Fact]
    public void Nothing_more_is_begun_where_none_of_the_passage_can_be_in_time() =>
        Assert.Equal(1000, Aim(1, 100, 100).Next(Samples.Ms(100_000), Clock, Nothing).Frame);

    [Fact]
    public void In_long_GOP_footage_it_first_runs_up_to_the_first_referenced_frame_in_time()
    {
        var aim = Aim(gop: 50, decode: 30, effects: 0);

        // At 1100 frame 0, due by 1040, is 90 ms late; each frame run up to gains 40 − 15 of it.
        Assert.Equal(new Choice(4, LeavesOut: true), aim.Next(Samples.Ms(1100), Clock, Nothing));
    }

    /// <summary>Frame 0, due by 1040, would be done 40 ms from now; each frame run up to gains 40 − 20 of what it is late, in a GOP of 50.
    /// A third of the way is frame 17.</summary>
    [Theory]
    [InlineData(1250, 14, false)]
    [InlineData(1450, 50, true)]
    public void It_runs_up_no_further_than_a_third_of_the_way_to_the_next_frame_that_stands_alone(double now, long frame, bool givesUp)
    {
        var aim = Aim(gop: 50, decode: 40, effects: 0);
        for (var known = 0; known < 5; known++)
        {
            aim.LearnRunningUp(leftOut: true, Samples.Ms(20), 1);
        }

        Assert.Equal(new Choice(frame, LeavesOut: !givesUp, GivesUp: givesUp), aim.Next(Samples.Ms(now), Clock, Nothing));
    }

    /// <summary>Beside effects decoding takes a slot a frame; alone, as when it runs up, a quarter of it.</summary>
    [Fact]
    public void Where_effects_are_the_slower_a_GOP_is_not_given_up_because_they_hold_decoding_up()
    {
        var aim = Aim(gop: 50, decode: 20, effects: 100);
        for (var known = 0; known < 16; known++)
        {
            aim.LearnRunningUp(leftOut: true, Samples.Ms(known % 3 == 0 ? 10 : 60), 1);
        }

        var choice = aim.Next(Samples.Ms(1100), Clock, Nothing);

        Assert.False(choice.GivesUp);
        Assert.InRange(choice.Frame, 4, 12);
    }

    [Fact]
    public void Where_that_cannot_catch_up_it_gives_up_all_before_the_next_frame_that_stands_alone()
    {
        var aim = Aim(gop: 50, decode: 90, effects: 0);
        aim.Next(Samples.Ms(0), Clock, Nothing);

        // First it has to be known what leaving out unreferenced ones gains: half of 90 ms is still more than a slot.
        Assert.Equal(new Choice(2, LeavesOut: true), aim.Next(Samples.Ms(1100), Clock, Nothing));
        for (var known = 0; known < 5; known++)
        {
            aim.LearnRunningUp(leftOut: true, Samples.Ms(90), 2);
        }

        Assert.Equal(new Choice(50, GivesUp: true), aim.Next(Samples.Ms(1300), Clock, Nothing));
        Assert.Equal(DropReason.DecodeSkipped, new Choice(50, GivesUp: true).Reason);

        // Where it is plain from the start, nothing is tried.
        Assert.Equal(new Choice(50, GivesUp: true), Aim(gop: 50, decode: 130, effects: 0).Next(Samples.Ms(1300), Clock, Nothing));

        // From then on what nothing refers to is left out: 51 is, in a GOP of I B P B P.
        Assert.Equal(new Choice(52, LeavesOut: true), aim.Next(Samples.Ms(1400), Clock, Nothing));
    }

    /// <summary>In the last GOP of a passage there is nothing to give up for: half of it is passed over where that is what it
    /// takes.</summary>
    [Fact]
    public void Where_nothing_stands_alone_any_more_it_runs_up_however_far()
    {
        var aim = Aim(gop: 1000, decode: 40, effects: 0);
        for (var known = 0; known < 5; known++)
        {
            aim.LearnRunningUp(leftOut: true, Samples.Ms(20), 1);
        }

        // Ten seconds late, of which each frame gains 20 ms.
        var choice = aim.Next(Samples.Ms(11_000), Clock, Nothing);
        Assert.Equal((true, false), (choice.LeavesOut, choice.GivesUp));
        Assert.InRange(choice.Frame, 500, 504);
    }

    [Fact]
    public void Late_effects_give_up_no_decoding()
    {
        var (alone, queued) = (Aim(gop: 50, decode: 20, effects: 90), Aim(gop: 50, decode: 20, effects: 90));
        alone.Next(Samples.Ms(900), Clock, Nothing);
        queued.Next(Samples.Ms(900), Clock, Nothing);

        // Frame 1 ends at 1080: behind three others' effects it cannot be in time, and decoding goes on to it all the same.
        Assert.Equal(new Choice(1), alone.Next(Samples.Ms(900), Clock, Nothing));
        Assert.Equal(new Choice(1), queued.Next(Samples.Ms(900), Clock, Nothing with { BeforeEffects = 3 }));
        Assert.Equal((false, true), (alone.IsBehind, queued.IsBehind));
    }

    /// <summary>With time in hand every frame would be in time; shown in a row they would use it up and leave a gap behind them.</summary>
    [Theory]
    [InlineData(80, 2)]
    [InlineData(120, 3)]
    public void In_long_GOP_footage_frames_are_as_far_apart_as_effects_take_whether_there_is_time_in_hand_or_not(double effects, int apart)
    {
        var aim = Aim(gop: 500, decode: 10, effects);
        aim.DecodingEach.Add(Samples.Ms(10));
        for (var known = 0; known < 4; known++)
        {
            aim.Effects.Add(Samples.Ms(effects));
        }

        // 150 ms are in hand before the first, and each is begun when the one before it is done.
        var frames = Enumerable
            .Range(0, 40)
            .Select(n => aim.Next(Samples.Ms(1000 + (n * Math.Max(40, effects)) - effects - 150), Clock, Nothing).Frame)
            .ToList();

        Assert.All(frames.Zip(frames.Skip(1), (one, other) => other - one), gap => Assert.InRange(gap, Math.Max(1, apart - 1), apart));
        Assert.Equal(apart, (frames[^1] - frames[0]) / 39.0, 0.15);
    }

    /// <summary>While effects are what is waited for, running up costs no time: a pace that is guessed far too slow once led 40 frames
    /// on.</summary>
    [Fact]
    public void It_runs_up_no_further_than_effects_make_it_wait()
    {
        var aim = Aim(gop: 500, decode: 70, effects: 100);
        aim.Next(Samples.Ms(900), Clock, Nothing);

        // Three frames' effects and its own from 1100 on: 1500, in the slot of frame 12; 300 ms are enough to run up to it.
        Assert.Equal(new Choice(12, LeavesOut: true), aim.Next(Samples.Ms(1100), Clock, Nothing with { BeforeEffects = 3 }));
    }

    /// <summary>A few milliseconds late by the mean, far more by being sure: the rest of a long GOP is not given up for that.</summary>
    [Fact]
    public void Slow_effects_that_are_a_little_late_give_up_no_GOP()
    {
        var aim = Aim(gop: 500, decode: 19, effects: 123);
        aim.DecodingEach.Add(Samples.Ms(32));
        for (var known = 0; known < 17; known++)
        {
            aim.LearnRunningUp(leftOut: true, Samples.Ms(39), 1);
        }

        aim.Learn(inTime: false);
        aim.Learn(inTime: false);
        aim.Next(Samples.Ms(0), Clock, Nothing);

        // Frame 1 ends at 1080; alone it would be done at 1082, and with the margin of two misses at 1153. Running up gains a millisecond a
        // frame.
        var choice = aim.Next(Samples.Ms(940), Clock, Nothing);

        Assert.False(choice.GivesUp);
        Assert.InRange(choice.Frame, 2, 6);
    }

    /// <summary>Decoding that is a hair faster than the slots would have to run up over millions of frames, which are not looked at one by
    /// one.</summary>
    [Fact]
    public void How_far_to_run_up_is_found_in_a_few_looks()
    {
        var footage = new Gop(1_000_000_000);
        var aim = new Aim(Rate, 0, 500_000_000, footage);
        aim.Decoding.Add(Samples.Ms(40));
        aim.DecodingEach.Add(Samples.Ms(40));
        aim.Effects.Add(TimeSpan.Zero);
        for (var known = 0; known < 17; known++)
        {
            aim.LearnRunningUp(leftOut: true, Rate.FrameDuration - new TimeSpan(1), 1);
        }

        var choice = aim.Next(Samples.Ms(5000), Clock, Nothing);

        // Four seconds late, at a ten-millionth of a second a frame.
        Assert.InRange(choice.Frame, 39_000_000, 42_000_000);
        Assert.InRange(footage.Looks, 1, 100);
    }

    [Fact]
    public void A_passage_after_one_that_is_too_much_is_begun_three_ways_before_the_cut()
    {
        Assert.False(Pacing.IsNextDue(Samples.Ms(399), Samples.Ms(200), Samples.Ms(1000)));
        Assert.True(Pacing.IsNextDue(Samples.Ms(400), Samples.Ms(200), Samples.Ms(1000)));
    }

    private static Aim Aim(int gop, double decode, double effects)
    {
        var aim = new Aim(Rate, 0, 1000, new Gop(gop));
        aim.Decoding.Add(Samples.Ms(decode));
        aim.Effects.Add(Samples.Ms(effects));
        return aim;
    }

    private sealed class Gop(int length) : IReferences
    {
        public bool StandAlone => length == 1;

        public long FirstFrom(long frame) => (frame + length - 1) / length * length;

        public int Looks { get; private set; }

        public long ReferencedFrom(long frame)
        {
            Looks++;
            return frame % length % 2 == 0 ? frame : frame + 1;
        }
    }
}
