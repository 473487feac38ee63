using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Tests.Timelines;

/// <summary>Footage goes round: the one rule of it.</summary>
public sealed class LoopingTests
{
    private static readonly Dictionary<string, Clip> Clips = new() { ["a"] = new("a", "a", Samples.HdAvc, 50, null) };

    [Theory]
    [InlineData(0, 50, 0)]
    [InlineData(49, 50, 49)]
    [InlineData(50, 50, 0)]
    [InlineData(137, 50, 37)]
    [InlineData(137, 0, 137)]
    public void After_the_last_frame_comes_the_first(long number, long frames, long shown) =>
        Assert.Equal(shown, Looping.FrameOf(number, frames));

    [Fact]
    public void A_passage_split_past_the_clip_s_end_goes_on_within_the_clip()
    {
        var timeline = new Timeline(
            "t",
            "T",
            Raster.Hd,
            Samples.Rate,
            [new Passage("asked", 25, [new Layer("a", [], 120), new Layer("gone", [], 120)], [])]
        );

        var within = Looping.Within(timeline, Clips);

        Assert.Equal([20, 120], within.Passages[0].Layers.Select(layer => layer.StartFrame));
        Assert.Empty(TimelineCheck.ProblemsOf(timeline.Passages[0] with { Layers = [timeline.Passages[0].Layers[0]] }, Clips));
    }
}
