using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Imports;

namespace HardyBench.Core.Tests.Timelines;

public sealed class StackCutterTests
{
    private static readonly FrameRate Rate = new(25);

    [Fact]
    public void A_new_passage_begins_wherever_the_stack_changes()
    {
        var (timeline, notes) = Cut(Item("low", 0, 100, 0), Item("high", 30, 40, 1), Item("top", 50, 10, 2));

        Assert.Empty(notes);
        Assert.Equal(
            [("low", 30), ("low high", 20), ("low high top", 10), ("low high", 10), ("low", 30)],
            timeline.Passages.Select(passage => (string.Join(' ', passage.Layers.Select(layer => layer.ClipId)), passage.FrameCount)));
        Assert.Equal([0, 30, 50, 60, 70], timeline.Passages.Select(passage => passage.Layers[0].StartFrame));
    }

    [Fact]
    public void A_hole_is_left_out_and_told_and_marks_behind_it_move_up()
    {
        var (timeline, notes) = Cut(
            [new TimelineMark(10, "before"), new TimelineMark(80, "behind")],
            Item("a", 0, 25, 0),
            Item("b", 50, 50, 0)
        );

        Assert.Equal([25, 50], timeline.Passages.Select(passage => passage.FrameCount));
        Assert.Contains("25 frames from 00:00:01:00 on are empty", Assert.Single(notes), StringComparison.Ordinal);
        Assert.Equal([10L, 55L], timeline.Marks!.Select(mark => mark.Frame));
    }

    [Fact]
    public void A_transition_among_other_layers_is_told_and_its_layers_stay()
    {
        var coming = Item("b", 20, 30, 0) with { Transition = Transition.Dissolve, TransitionLength = 10 };
        var (timeline, notes) = Cut(Item("a", 0, 30, 0), coming, Item("logo", 0, 50, 1));

        Assert.Contains("is among 3 layers", Assert.Single(notes), StringComparison.Ordinal);
        Assert.All(timeline.Passages, passage => Assert.Null(passage.Transition));
        Assert.Equal([2, 3, 2], timeline.Passages.Select(passage => passage.Layers.Count));
    }

    [Fact]
    public void Where_footage_begins_is_counted_at_its_own_rate()
    {
        var clip = new Clip("fast", "fast", Samples.HdAvc with { Rate = new FrameRate(50) }, 500, null);
        var item = Item("x", 0, 50, 0) with { MediaStart = new MediaTime(12, 24), Retime = new Retime(0.5) };
        var imported = Imported([], item, Item("y", 25, 25, 1));

        var (timeline, _) = StackCutter.Cut(imported, "t", Raster.Hd, media => media.Key == "x" ? clip : null);

        // Half a second into footage of 50 frames a second, then half a second further after a second at half speed.
        Assert.Equal([25, 50], timeline.Passages.Select(passage => passage.Layers[0].StartFrame));
        Assert.Equal("fast", timeline.Passages[0].Layers[0].ClipId);
    }

    private static (Timeline Timeline, IReadOnlyList<string> Notes) Cut(params TrackItem[] items) => Cut([], items);

    private static (Timeline Timeline, IReadOnlyList<string> Notes) Cut(TimelineMark[] marks, params TrackItem[] items) =>
        StackCutter.Cut(Imported(marks, items), "t", Raster.Hd, _ => null);

    private static ImportedTimeline Imported(TimelineMark[] marks, params TrackItem[] items) => new(
        "T",
        Rate,
        items,
        [.. items.Select(item => item.MediaKey).Distinct().Select(key => new ImportedMedia(key, key, null, null, null))],
        marks,
        null,
        []
    );

    private static TrackItem Item(string key, long start, long length, int order) =>
        new(start, length, order, key, new MediaTime(0, 25), [], null, [], null, null);
}
