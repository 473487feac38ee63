using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Building;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Tests.Timelines;

public sealed class PassageBuilderTests
{
    private static readonly Effect[] Two = [Effect.Of("sharpen"), Effect.Of("blur")];

    private static readonly Dictionary<string, Clip> Clips = new[] { "a", "b" }.ToDictionary(
        id => id,
        id => new Clip(id, id, Samples.HdAvc, 50, null)
    );

    public static TheoryData<SeriesKind, int[], int[]> Series => new()
    {
        { SeriesKind.LayerRamp, [1, 2, 3, 4], [0, 2, 3, 4] },
        { SeriesKind.StreamCount, [1, 2, 3, 4], [0, 2, 3, 4] },
        { SeriesKind.EffectRamp, [1, 1, 1], [0, 1, 2] },
        { SeriesKind.Ladder, [1, 1], [0, 0] },
        { SeriesKind.WithAndWithout, [1, 1, 1, 1], [0, 2, 0, 2] },
    };

    /// <param name="layers">Layers of each passage.</param>
    /// <param name="effects">Effects of each passage; the places of several layers count as one each.</param>
    [Theory]
    [MemberData(nameof(Series))]
    public void Each_passage_of_a_series_asks_for_one_thing_more(SeriesKind kind, int[] layers, int[] effects)
    {
        var built = PassageBuilder.Build(new Series(kind, ["a", "b"], Two, 4, 2), Samples.Rate, Clips);

        Assert.Equal(layers, built.Select(passage => passage.Layers.Count));
        Assert.Equal(effects, built.Select(passage => passage.Layers.Sum(layer => layer.Effects.Count)));
        Assert.All(built, passage => Assert.Equal(50, passage.FrameCount));
        Assert.All(built, passage => Assert.Empty(TimelineCheck.ProblemsOf(passage, Clips)));
    }

    [Fact]
    public void Streams_stand_side_by_side_and_take_the_clips_in_turn()
    {
        var four = PassageBuilder.Build(new Series(SeriesKind.StreamCount, ["a", "b"], [], 4, 2), Samples.Rate, Clips)[3];

        Assert.Equal(["a", "b", "a", "b"], four.Layers.Select(layer => layer.ClipId));
        Assert.Equal([(0.5, 0.0, 0.0), (0.5, 0.5, 0.0), (0.5, 0.0, 0.5), (0.5, 0.5, 0.5)],
            four.Layers.Select(layer => (layer.Effects[0]["size"], layer.Effects[0]["left"], layer.Effects[0]["top"])));
    }

    [Fact]
    public void What_a_series_lacks_is_said()
    {
        Assert.Contains(
            "clip",
            Assert
                .Throws<SeriesException>(() => PassageBuilder.Build(new Series(SeriesKind.Ladder, [], [], 1, 1), Samples.Rate, Clips))
                .Message,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "effect",
            Assert
                .Throws<SeriesException>(() =>
                    PassageBuilder.Build(new Series(SeriesKind.EffectRamp, ["a"], [], 1, 1), Samples.Rate, Clips)
                )
                .Message,
            StringComparison.Ordinal
        );
    }
}
