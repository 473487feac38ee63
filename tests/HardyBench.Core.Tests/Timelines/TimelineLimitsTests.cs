using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Tests.Timelines;

/// <summary>How large a timeline may be, wherever it comes from.</summary>
public sealed class TimelineLimitsTests
{
    private static readonly Passage Asked = new("asked", 50, [new Layer("a", [])], []);
    private static readonly Timeline Good = new("t", "T", Raster.Hd, Samples.Rate, [Asked]);

    public static TheoryData<string, Timeline> TooMuch => new()
    {
        { "lacks an id", Good with { Id = null! } },
        { "lacks a title", Good with { Title = null! } },
        { "lacks a rate", Good with { Rate = default } },
        { "lacks a raster", Good with { Raster = default } },
        { "lacks passages", Good with { Passages = null! } },
        { "or one of them is empty", Good with { Passages = [null!] } },
        { "lacks the layers", Good with { Passages = [Asked with { Layers = [null!] }] } },
        { "lacks the clip", Good with { Passages = [Asked with { Layers = [new Layer(null!, [])] }] } },
        { "lacks the effects", Good with { Passages = [Asked with { Over = null! }] } },
        { "lacks the id or the settings", Good with { Passages = [Asked with { Over = [new Effect("sharpen", null!)] }] } },
        { "A raster of 100000×100000", Good with { Raster = new Raster(100_000, 100_000) } },
        { "0.5 frames a second", Good with { Rate = new FrameRate(1, 2) } },
        { "1001 frames a second", Good with { Rate = new FrameRate(1001) } },
        { "9 bits", Good with { BitDepth = 9 } },
        { "5001 passages", Good with { Passages = [.. Enumerable.Repeat(Asked, 5001)] } },
        { "65 layers in a passage", Good with { Passages = [Asked with { Layers = [.. Enumerable.Repeat(Asked.Layers[0], 65)] }] } },
        {
            "20480 layers",
            Good with
            {
                Passages = [.. Enumerable.Repeat(Asked with { Layers = [.. Enumerable.Repeat(Asked.Layers[0], 64)] }, 320)],
            }
        },
        { "33 effects in one place", Good with { Passages = [Asked with { Over = [.. Enumerable.Repeat(Effect.Of("sharpen"), 33)] }] } },
        { "2147483647 frames", Good with { Passages = [Asked with { FrameCount = int.MaxValue }] } },
        { "negative length", Good with { Passages = [Asked with { FrameCount = -1 }] } },
        { "The title has 301 letters", Good with { Title = new string('x', 301) } },
        { "The description has 1001 letters", Good with { About = new string('x', 1001) } },
        { "The question of a passage has 5000 letters", Good with { Passages = [Asked with { Question = new string('x', 5000) }] } },
        { "The metadata of another program has 70000 letters", Good with { Metadata = new string('x', 70_000) } },
    };

    [Theory]
    [MemberData(nameof(TooMuch))]
    public void What_is_larger_than_can_be_worked_with_or_lacks_a_part_is_refused_in_words(string words, Timeline timeline)
    {
        var refused = Assert.Throws<TimelineRefusedException>(() => TimelineLimits.Checked(timeline));

        Assert.Contains(words, refused.Message, StringComparison.Ordinal);
        Assert.EndsWith("Nothing was saved.", refused.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Nothing_at_all_is_refused() => Assert.Throws<TimelineRefusedException>(() => TimelineLimits.Checked(null));

    [Fact]
    public void What_a_test_needs_passes() => Assert.Same(Good, TimelineLimits.Checked(Good));
}
