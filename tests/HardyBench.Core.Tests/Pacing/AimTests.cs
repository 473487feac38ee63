using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Pacing;

/// <summary>Which frame is begun next, on a made-up clock: 25 frames a second, the first shown at 1000 ms.</summary>
public sealed class AimTests
{
    private static readonly FrameRate Rate = new(25);

    private static readonly SlotClock Clock = new(Rate, Samples.Ms(1000), TimeSpan.Zero);

    private static readonly WorkInProgress Nothing = new(0, TimeSpan.Zero, 0, null);

    [Fact]
    public void Before_the_first_frame_is_shown_every_frame_is_begun_in_order()
    {
        var aim = Aim(gop: 1, decode: 500, effects: 500);

        Assert.Equal([0, 1, 2], Enumerable.Range(0, 3).Select(_ => aim.Next(Samples.Ms(9000), null, Nothing).Frame));
    }

    [Fact]
    public void What_can_be_ready_in_its_slot_is_begun_in_order()
    {
        var aim = Aim(gop: 1, decode: 20, effects: 19);

        // Frame 0's slot ends at 1040.
        Assert.Equal(new Choice(0), aim.Next(Samples.Ms(1000), Clock, Nothing));
        Assert.False(aim.IsBehind);
    }

    [Theory]
    [InlineData(20, 20, 1)]
    [InlineData(20, 60, 2)]
    [InlineData(20, 61, 3)]
    [InlineData(200, 200, 10)]
    public void Else_the_first_whose_slot_begins_when_it_is_ready(double decode, double effects, long frame)
    {
        var aim = Aim(gop: 1, decode, effects);

        Assert.Equal(new Choice(frame), aim.Next(Samples.Ms(1000), Clock, Nothing));
        Assert.True(aim.IsBehind);
    }

    [Fact]
    public void Work_before_it_counts_with_its_mean()
    {
        var aim = Aim(gop: 1, decode: 0, effects: 100);

        // The effects under way end at 900 + 100; two more frames go before it, 200, and its own take 100: 1300, at 7.5 slots.
        Assert.Equal(8, aim.Next(Samples.Ms(1000), Clock, new WorkInProgress(0, TimeSpan.Zero, 2, Samples.Ms(900))).Frame);
    }

    /// <summary>Two graphics units give a frame each 50 ms, of which each takes 100; and effects of 10 ms that wait 90 for a place hold up
    /// none after them.</summary>
    [Theory]
    [InlineData(50, 100)]
    [InlineData(100, 10)]
    public void Effects_before_it_count_with_what_they_hold_up(double each, double begun)
    {
        var aim = Aim(gop: 1, decode: 0, effects: each, begun);
        var held = 2 * Math.Min(each, begun);

        var work = new WorkInProgress(0, TimeSpan.Zero, 2, null);
        Assert.Equal(Math.Ceiling((held + each) / 40), aim.Next(Samples.Ms(1000), Clock, work).Frame);
    }

    [Fact]
    public void The_last_frame_is_begun_where_it_can_be_ready_before_the_cut_and_nothing_more_where_it_cannot()
    {
        // The last slot, of frame 999, begins at 40,960 and ends at the cut, 41,000.
        Assert.Equal(999, Aim(1, 100, 0).Next(Samples.Ms(40_880), Clock, Nothing).Frame);
        Assert.Equal(1000, Aim(1, 100, 0).Next(Samples.Ms(40_900), Clock, Nothing).Frame);
        Assert.Equal(1000, Aim(50, 100, 0).Next(Samples.Ms(40_900), Clock, Nothing).Frame);
    }

    /// <summary>After a long pause. Frame 200 begins at 9000 and is ready 90 + 200 ms after it is begun. Those after it fall back by 50 ms
    /// each: two of them can be shown up to 960 ms late if it is no more than 860 ms late itself.</summary>
    [Theory]
    [InlineData(8950, 200)]
    [InlineData(9610, 200)]
    [InlineData(9611, 250)]
    public void It_starts_afresh_late_where_frames_after_it_can_still_be_shown(double now, long frame)
    {
        var aim = Aim(gop: 50, decode: 90, effects: 0);
        aim.StartingAfresh.Add(Samples.Ms(200));

        Assert.Equal(new Choice(frame, GivesUp: true), aim.Next(Samples.Ms(now), Clock, Nothing));
    }

    /// <summary>The same with GOPs of 10, of which frame 200 may be 240 ms late: to start afresh there would leave no time for frames after
    /// it before the next one is due.</summary>
    [Theory]
    [InlineData(8950, 200)]
    [InlineData(8951, 210)]
    public void It_starts_afresh_on_the_first_frame_that_is_little_late_where_none_could_follow(double now, long frame)
    {
        var aim = Aim(gop: 10, decode: 90, effects: 0);
        aim.StartingAfresh.Add(Samples.Ms(200));

        Assert.Equal(new Choice(frame, GivesUp: true), aim.Next(Samples.Ms(now), Clock, Nothing));
    }

    /// <summary>A GOP of 50 is due at 3000, and frame 10 is late at 1500. With referenced frames alone at 60 ms each it would fall back
    /// further; of all frames, 70 ms each, 18 can be decoded before decoding starts afresh, and every second slot would show 20.</summary>
    [Theory]
    [InlineData(60, 70, false)]
    [InlineData(60, 60, true)]
    [InlineData(39, 70, true)]
    public void Unreferenced_frames_are_left_out_only_where_that_reaches_further_or_shows_more(double pace, double each, bool leavesOut)
    {
        var aim = Aim(gop: 50, decode: each, effects: 0);
        aim.StartingAfresh.Add(Samples.Ms(90));
        aim.Advancing.Add(Samples.Ms(pace));
        aim.ContinueFrom(9);

        Assert.Equal(new Choice(10, LeavesOut: leavesOut), aim.Next(Samples.Ms(1500), Clock, Nothing));
        Assert.True(aim.IsBehind);
    }

    /// <summary>The GOP of 50 is due at 3000. The first of five frames took 1.5 s, alone or beside another passage; those since take 100
    /// ms each, so five of them 500.</summary>
    [Theory]
    [InlineData(true, 1300, false)]
    [InlineData(true, 1500, true)]
    [InlineData(false, 2300, false)]
    [InlineData(false, 2500, true)]
    public void Until_a_start_is_known_it_takes_as_long_as_the_frames_that_are_begun_for_it(bool isAlone, double now, bool givesUp)
    {
        var aim = new Aim(Rate, 0, 1000, new Gop(50));
        aim.LearnStarting(Samples.Ms(1500), 5, isAlone);
        Enumerable.Repeat(100, 16).ToList().ForEach(each =>
        {
            aim.Decoding.Add(Samples.Ms(each));
            aim.DecodingEach.Add(Samples.Ms(each));
        });
        aim.ContinueFrom(now < 2000 ? 5 : 30);

        Assert.Equal(givesUp, aim.Next(Samples.Ms(now), Clock, Nothing).GivesUp);
    }

    /// <summary>A GOP of I B P B P: every second frame is unreferenced.</summary>
    [Fact]
    public void In_long_GOP_footage_that_is_late_unreferenced_frames_are_left_out_until_a_slot_and_a_half_is_in_hand()
    {
        var aim = Aim(gop: 500, decode: 50, effects: 0);
        Assert.Equal(new Choice(0), aim.Next(Samples.Ms(900), Clock, Nothing));

        // Frame 1, due by 1080, would be ready at 1081; frames 5, 7 and 9, due by 1240, 1320 and 1400, with 20, 59 and 60 ms in hand.
        (double Now, long Frame, bool LeavesOut)[] choices =
            [(1031, 2, true), (1070, 4, true), (1170, 6, true), (1231, 8, true), (1290, 9, false)];
        Assert.All(choices, one =>
            Assert.Equal(new Choice(one.Frame, one.LeavesOut), aim.Next(Samples.Ms(one.Now), Clock, Nothing)));
    }

    [Fact]
    public void In_long_GOP_footage_late_frames_are_decoded_in_order_while_they_can_still_be_shown()
    {
        var aim = Aim(gop: 50, decode: 90, effects: 0);
        aim.ContinueFrom(9);

        // Frame 10, due by 1440, would be ready at 2090. Frame 50, due at 3000, is still far.
        Assert.Equal(new Choice(10, LeavesOut: true), aim.Next(Samples.Ms(2000), Clock, Nothing));
        Assert.True(aim.IsBehind);
    }

    [Theory]
    [InlineData(2710, 20, false)]
    [InlineData(2711, 50, true)]
    public void It_starts_afresh_when_the_next_frame_that_stands_alone_has_to_be_begun(double now, long frame, bool givesUp)
    {
        var aim = Aim(gop: 50, decode: 90, effects: 0);
        aim.StartingAfresh.Add(Samples.Ms(199));
        aim.ContinueFrom(19);
        var clock = Clock with { FirstShown = Samples.Ms(1000 + 900) };

        // One more frame and the start take 289 ms, and frame 50 is due at 3900; frame 20, due by 2740, would not be late enough to matter.
        var choice = aim.Next(Samples.Ms(now + 900), clock, Nothing);

        Assert.Equal(new Choice(frame, LeavesOut: !givesUp, GivesUp: givesUp), choice);
        Assert.Equal(givesUp ? DropReason.DecodeSkipped : DropReason.PassedOver, choice.Reason);
    }

    [Fact]
    public void It_starts_afresh_when_frames_would_be_shown_a_second_late()
    {
        var aim = Aim(gop: 500, decode: 90, effects: 0);
        aim.ContinueFrom(9);

        // Frame 10, due by 1440, can be shown until 2440; frame 500 is due at 21,000.
        Assert.Equal(new Choice(10, LeavesOut: true), aim.Next(Samples.Ms(2310), Clock, Nothing));
        Assert.Equal(new Choice(500, GivesUp: true), aim.Next(Samples.Ms(2600), Clock, Nothing));
    }

    /// <summary>In the last GOP of a passage it catches up without showing anything, where it can.</summary>
    [Theory]
    [InlineData(20, true)]
    [InlineData(40, false)]
    public void Where_nothing_stands_alone_any_more_it_catches_up_or_ends(double pace, bool catchesUp)
    {
        var aim = Aim(gop: 1000, decode: 40, effects: 0);
        aim.Advancing.Add(Samples.Ms(pace));

        // Frame 0 would be ready at 11,040, of which a second less a slot can be late: 9,040 ms, by 20 ms a frame.
        var choice = aim.Next(Samples.Ms(11_000), Clock, Nothing);

        Assert.InRange(choice.Frame, catchesUp ? 450 : 1000, catchesUp ? 456 : 1000);
    }

    [Fact]
    public void In_long_GOP_footage_with_slow_effects_it_passes_over_what_it_can_decode_while_they_are_waited_for()
    {
        var (alone, queued) = (Aim(gop: 500, decode: 10, effects: 90), Aim(gop: 500, decode: 10, effects: 90));
        alone.ContinueFrom(0);
        queued.ContinueFrom(0);

        // Frame 1 ends at 1080. Behind three others' effects it would be ready at 1340, where frame 9 begins at 1360; no more than 26
        // frames can be decoded in 260 ms.
        Assert.Equal(new Choice(1), alone.Next(Samples.Ms(900), Clock, Nothing));
        Assert.Equal(new Choice(9), queued.Next(Samples.Ms(980), Clock, Nothing with { BeforeEffects = 3 }));
        Assert.Equal((false, true), (alone.IsBehind, queued.IsBehind));
    }

    [Fact]
    public void It_passes_over_no_more_than_it_can_decode_meanwhile()
    {
        var aim = Aim(gop: 500, decode: 70, effects: 100);
        aim.ContinueFrom(0);

        // The effects of three others end at 1200, frame 1 is decoded by 970: three more take 210 ms.
        Assert.Equal(4, aim.Next(Samples.Ms(900), Clock, Nothing with { BeforeEffects = 3 }).Frame);
    }

    /// <summary>Decoding that is a hair faster than the slots would have to pass over millions of frames, which are not looked at one by
    /// one.</summary>
    [Fact]
    public void How_far_to_pass_over_is_found_in_a_few_looks()
    {
        var footage = new Gop(1_000_000_000);
        var aim = new Aim(Rate, 0, 500_000_000, footage);
        aim.Decoding.Add(Samples.Ms(40));
        aim.DecodingEach.Add(Samples.Ms(40));
        aim.Effects.Add(TimeSpan.Zero);
        aim.EffectsBegun.Add(TimeSpan.Zero);
        aim.Advancing.Add(Rate.FrameDuration - new TimeSpan(1));

        var choice = aim.Next(Samples.Ms(5000), Clock, Nothing);

        // Three seconds too late, at a ten-millionth of a second a frame.
        Assert.InRange(choice.Frame, 29_000_000, 32_000_000);
        Assert.InRange(footage.Looks, 1, 10);
    }

    [Theory]
    [InlineData(200, 7999, false)]
    [InlineData(200, 8000, true)]
    [InlineData(1500, 6999, false)]
    [InlineData(1500, 7000, true)]
    public void The_next_passage_is_begun_two_seconds_or_two_frames_time_before_the_cut(double way, double now, bool isDue) =>
        Assert.Equal(isDue, Timing.IsNextDue(Samples.Ms(now), Samples.Ms(way), Samples.Ms(10_000)));

    [Theory]
    [InlineData(200, 9599, false)]
    [InlineData(200, 9600, true)]
    public void Its_first_frame_gets_its_effects_two_frames_time_before_the_cut(double way, double now, bool isDue) =>
        Assert.Equal(isDue, Timing.IsFirstDue(Samples.Ms(now), Samples.Ms(way), Samples.Ms(10_000)));

    private static Aim Aim(int gop, double decode, double effects, double? begun = null)
    {
        var aim = new Aim(Rate, 0, 1000, new Gop(gop));
        aim.Decoding.Add(Samples.Ms(decode));
        aim.DecodingEach.Add(Samples.Ms(decode));
        aim.Effects.Add(Samples.Ms(effects));
        aim.EffectsBegun.Add(Samples.Ms(begun ?? effects));
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
