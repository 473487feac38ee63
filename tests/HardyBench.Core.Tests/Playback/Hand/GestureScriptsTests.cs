using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Tests.Trials;

namespace HardyBench.Core.Tests.Playback.Gestures;

public sealed class GestureScriptsTests
{
    [Fact]
    public void The_hand_does_the_same_every_time_and_stays_within_each_passage()
    {
        var timeline = Scripted.Timeline(3);

        var (first, second) = (GestureScripts.Scrub(timeline), GestureScripts.Scrub(timeline));

        Assert.Equal(first.SelectMany(move => move.Frames), second.SelectMany(move => move.Frames));
        Assert.All(first, move => Assert.Single(move.Frames.Select(timeline.PassageIndexAt).Distinct()));
        Assert.All(first.Where(move => move.Kind == GestureKind.Jump), move =>
            Assert.DoesNotContain(move.Frames.Zip(move.Frames.Skip(1)), pair => pair.First == pair.Second));
    }

    [Fact]
    public void A_drag_covers_the_passage_at_its_speed_and_one_back_does_so_backwards()
    {
        var moves = GestureScripts.Scrub(Scripted.Timeline(1)).Where(move => move.Kind == GestureKind.Sweep).ToList();

        // 25 a second, a place every 33 ms: at 8 times the speed 6.6, so about every 7th frame.
        Assert.Equal(
            Enumerable.Range(0, 15).Select(i => 7L * i),
            moves.Single(move => move.Name.Contains('8', StringComparison.Ordinal)).Frames
        );
        var back = moves.Single(move => move.Name.Contains("back", StringComparison.Ordinal)).Frames;
        Assert.Equal(back.OrderDescending(), back);
    }

    [Fact]
    public void Near_jumps_stay_near_and_far_ones_do_not()
    {
        var moves = GestureScripts.Scrub(Scripted.Timeline(1)).Where(move => move.Kind == GestureKind.Jump).ToList();

        Assert.True(Widest(moves[0]) <= 12);
        Assert.True(Widest(moves[1]) > 12);

        static long Widest(Gesture move) => move.Frames.Zip(move.Frames.Skip(1), (a, b) => Math.Abs(a - b)).Max();
    }

    [Fact]
    public void Starts_are_spread_over_every_passage()
    {
        var moves = GestureScripts.Starts(Scripted.Timeline(2), 4);

        Assert.Equal([0L, 24, 49, 74], moves[0].Frames);
        Assert.Equal([100L, 124, 149, 174], moves[1].Frames);
    }
}
