using CsCheck;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Formats.Timelines;

namespace HardyBench.Formats.Tests;

/// <summary>Results belong to what was played, and not to the words about it.</summary>
public sealed class TimelineDigestTests
{
    private static readonly Timeline Asked = new(
        "t", "Low tide", Raster.Hd, new FrameRate(25),
        [
            new Passage(
                "two layers",
                50,
                [new Layer("a", [Effect.Of("title") with { Text = "Act two" }]), new Layer("b", [], 12)],
                [Effect.Of("blur", ("radius", 4))],
                Transition.Dissolve
            ),
        ]
    );

    [Fact]
    public void Words_marks_and_what_came_with_an_import_change_nothing() => Interchange.Timelines.Any.Sample(timeline =>
    {
        var reworded = timeline with
        {
            Title = "Another title",
            About = "What it is for",
            Marks = [new TimelineMark(0, "here")],
            Metadata = "{}",
            Passages = [.. timeline.Passages.Select(passage => passage with
            {
                Question = "asked otherwise",
                Layers = [.. passage.Layers.Select(layer => layer with { Metadata = """{"note":1}""" })],
            })],
        };
        return TimelineJson.Digest(reworded) == TimelineJson.Digest(timeline);
    });

    public static TheoryData<string, Timeline> Others => new()
    {
        { "raster", Asked with { Raster = Raster.Hd.DividedBy(2) } },
        { "rate", Asked with { Rate = new FrameRate(24) } },
        { "depth", Asked with { BitDepth = 10 } },
        { "length", Change(passage => passage with { FrameCount = 51 }) },
        { "transition", Change(passage => passage with { Transition = Transition.Wipe }) },
        { "effects over all", Change(passage => passage with { Over = [] }) },
        { "a setting", Change(passage => passage with { Over = [Effect.Of("blur", ("radius", 5))] }) },
        { "a clip", Change(passage => passage with { Layers = [passage.Layers[0] with { ClipId = "c" }, passage.Layers[1]] }) },
        {
            "where a clip begins",
            Change(passage => passage with { Layers = [passage.Layers[0], passage.Layers[1] with { StartFrame = 13 }] })
        },
        { "opacity", Change(passage => passage with { Layers = [passage.Layers[0], passage.Layers[1] with { Opacity = 0.5 }] }) },
        { "speed", Change(passage => passage with { Layers = [passage.Layers[0], passage.Layers[1] with { Retime = new Retime(0.5) }] }) },
        { "frames gone by", Change(passage => passage with { Layers = [passage.Layers[0], passage.Layers[1] with { Skipped = 1 }] }) },
        {
            "words of a title that is seen",
            Change(passage =>
                passage with
                {
                    Layers = [passage.Layers[0] with { Effects = [Effect.Of("title") with { Text = "Act three" }] }, passage.Layers[1]],
                }
            )
        },
    };

    [Theory]
    [MemberData(nameof(Others))]
    public void Whatever_is_played_counts(string what, Timeline other) =>
        Assert.True(TimelineJson.Digest(other) != TimelineJson.Digest(Asked), what);

    [Fact]
    public void An_effect_that_is_off_is_as_one_that_is_not_there()
    {
        var off = Change(passage => passage with { Over = [.. passage.Over, Effect.Of("sharpen") with { IsOff = true }] });

        Assert.Equal(TimelineJson.Digest(Asked), TimelineJson.Digest(off));
        Assert.NotEqual(
            TimelineJson.Digest(Asked),
            TimelineJson.Digest(Change(passage => passage with { Over = [passage.Over[0] with { IsOff = true }] }))
        );
        Assert.True(TimelineJson.Read(TimelineJson.Write(off)).Passages[0].Over[1].IsOff);
    }

    private static Timeline Change(Func<Passage, Passage> change) => Asked with { Passages = [change(Asked.Passages[0])] };
}
