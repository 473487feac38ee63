using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Findings;

/// <summary>What each slot showed, written from made-up results of frames.</summary>
public sealed class CombTeethTests
{
    private static readonly FrameRate Rate = new(25);

    [Fact]
    public void An_overdue_frame_stands_where_it_was_shown()
    {
        // Frame 1 is shown in slot 3 and frame 4 in slot 5; frames 2, 3 and 5 are dropped.
        var frames = new[] { OnTime(0), Overdue(1, 130), Dropped(2), Dropped(3), Overdue(4, 239), Dropped(5), Late(6) };

        Assert.Equal("oddvdvl", CombTeeth.Of(frames, Rate));
    }

    [Fact]
    public void A_slot_that_showed_its_own_frame_after_an_overdue_one_shows_its_own() =>
        Assert.Equal("odl", CombTeeth.Of([OnTime(0), Overdue(1, 85), Late(2)], Rate));

    [Fact]
    public void It_is_the_same_when_frames_come_in_parts()
    {
        var frames = new[] { OnTime(0), Overdue(1, 130), Dropped(2), Dropped(3), OnTime(4) };
        var teeth = new CombTeeth(Rate);

        Assert.Equal(CombTeeth.Of(frames, Rate), string.Concat(frames.Select(frame => teeth.Next([frame]))));
    }

    private static FrameRecord OnTime(int frame) => Of(frame, 40 * frame, FrameStatus.OnTime);

    private static FrameRecord Late(int frame) => Of(frame, (40 * frame) + 10, FrameStatus.Late);

    private static FrameRecord Overdue(int frame, double shown) => Of(frame, shown, FrameStatus.Overdue);

    private static FrameRecord Dropped(int frame) => Of(frame, null, FrameStatus.Dropped);

    private static FrameRecord Of(int frame, double? shown, FrameStatus status)
    {
        var moment = shown is { } at ? Samples.Ms(at) : (TimeSpan?)null;
        return new FrameRecord(
            frame, Rate.StartOf(frame), moment, moment, status, DropReason.None, default, default, default, default, 0);
    }
}
