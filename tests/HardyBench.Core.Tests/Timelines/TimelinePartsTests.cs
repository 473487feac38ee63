using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Tests.Timelines;

public sealed class TimelinePartsTests
{
    private static readonly Dictionary<string, Clip> Clips = new()
    {
        ["slow"] = new("slow", "s", Samples.HdAvc, 200, null),
        ["fast"] = new("fast", "f", Samples.HdAvc with { Rate = new FrameRate(50) }, 400, null),
    };

    private static readonly Timeline Whole = new(
        "t", "T", Raster.Hd, Samples.Rate,
        [
            new Passage("one", 50, [new Layer("slow", [], 10)], []),
            new Passage("two", 40, [new Layer("fast", [], Retime: new Retime(0.75)), new Layer("slow", [])], []),
            new Passage("three", 30, [new Layer("slow", [])], []),
        ]);

    /// <summary>Each slot of the part shows the frames that the whole would have shown, of a retimed layer that is cut
    /// between two of its frames too.</summary>
    [Theory]
    [InlineData(0, 1)]
    [InlineData(20, 15)]
    [InlineData(49, 60)]
    [InlineData(63, 500)]
    [InlineData(119, 1)]
    public void A_part_shows_what_the_whole_shows_there(int from, int frames)
    {
        var part = Whole.From(from, frames);

        Assert.Equal(Math.Min(frames, 120 - from), part.FrameCount);
        for (var slot = 0; slot < part.FrameCount; slot++)
        {
            Assert.All(SourcesAt(Whole, from + slot).Zip(SourcesAt(part, slot)), layer =>
            {
                Assert.Equal(layer.First, layer.Second);
            });
        }
    }

    [Fact]
    public void At_half_the_rate_every_slot_shows_the_same_frames_for_twice_as_long()
    {
        var half = Whole.AtHalfRate();

        Assert.Equal(12.5, half.Rate.FramesPerSecond);
        for (var slot = 0; slot < Whole.FrameCount; slot++)
        {
            Assert.Equal(SourcesAt(Whole, slot), SourcesAt(half, slot));
        }
    }

    [Fact]
    public void One_passage_alone_is_that_passage()
    {
        var only = Whole.Only(1);

        Assert.Equal(["two"], only.Passages.Select(passage => passage.Question));
        Assert.Equal(SourcesAt(Whole, 57), SourcesAt(only, 7));
    }

    [Fact]
    public void A_frame_outside_is_refused() => Assert.Throws<ArgumentOutOfRangeException>(() => Whole.From(120, 1));

    private static List<(string Clip, long Frame)> SourcesAt(Timeline timeline, int slot)
    {
        var index = timeline.PassageIndexAt(slot);
        var within = (int)(slot - timeline.StartOf(index));
        return [.. timeline.Passages[index].Layers.Select(layer =>
            (layer.ClipId, layer.SourceFrameAt(within, timeline.Rate, Clips[layer.ClipId].Format.Rate)))];
    }
}
