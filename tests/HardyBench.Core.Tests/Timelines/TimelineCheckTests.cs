using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Tests.Timelines;

public sealed class TimelineCheckTests
{
    private static readonly Dictionary<string, Clip> Clips = new()
    {
        ["a"] = new("a", "The wings", Samples.HdAvc, 50, null),
        ["film"] = new("film", "film", Samples.HdAvc with { Rate = new FrameRate(24) }, 400, null),
    };

    private static readonly Passage Good = new("asked", 50, [new Layer("a", [])], []);

    public static TheoryData<Passage, string> Wrong => new()
    {
        { Good with { FrameCount = 0 }, "it has no length" },
        { Good with { Layers = [] }, "it has no layers" },
        { Good with { Transition = Transition.Wipe }, "a wipe needs two layers; it has 1" },
        { Good with { Layers = [new Layer("gone", [])] }, "the clip “gone” is not known" },
        { Good with { Layers = [new Layer("a", [], -1)] }, "it begins on frame -1 of “The wings”; allowed: 0 or more" },
        { Good with { Layers = [new Layer("a", [], 0, new Retime(-1))] }, "a speed of -1; allowed: 0 to 100" },
        { Good with { Over = [new Effect("sparkle", new Dictionary<string, double>())] }, "the effect 'sparkle' is not known" },
        { Good with { Over = [Effect.Of("sharpen", ("amount", 99))] }, "'sharpen': amount is 99; allowed: 0 to 3" },
        { Good with { Over = [Effect.Of("sharpen", ("amount", double.NaN))] }, "allowed: 0 to 3" },
        { Good with { Over = [Effect.Of("sharpen", ("amuont", 1))] }, "'sharpen' has no setting 'amuont'" },
        { Good with { Over = [Effect.Of("title")] }, "'title' has no words" },
    };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_cannot_be_played_is_said_in_words(Passage passage, string words) =>
        Assert.Contains(words, Assert.Single(TimelineCheck.ProblemsOf(passage, Clips)), StringComparison.Ordinal);

    public static TheoryData<Passage, string> Remarkable => new()
    {
        { Good with { FrameCount = 51 }, "“The wings” has 50 of the 51 frames needed and loops" },
        { Good with { Layers = [new Layer("a", [], 10)] }, "“The wings” has 50 of the 60 frames needed and loops" },
        { Good with { Layers = [new Layer("film", [])] }, "24 frames a second do not divide into 25" },
        { Good with { Layers = [new Layer("a", [], 0, new Retime(0.5, RetimeMethod.OpticalFlow))] }, "repeats frames" },
        { Good with { Over = [Effect.Of("particles")] }, "only stand-ins can play '3D particles'" },
    };

    [Theory]
    [MemberData(nameof(Remarkable))]
    public void What_can_be_played_but_should_be_known_is_remarked_on(Passage passage, string words)
    {
        var timeline = new Timeline("t", "T", Raster.Hd, Samples.Rate, [passage]);

        Assert.Empty(TimelineCheck.ProblemsOf(passage, Clips));
        Assert.Contains(words, Assert.Single(TimelineCheck.RemarksOn(passage, timeline, Clips)), StringComparison.Ordinal);
    }

    [Fact]
    public void A_sound_passage_has_neither()
    {
        Assert.Empty(TimelineCheck.ProblemsOf(Good, Clips));
        Assert.Empty(TimelineCheck.RemarksOn(Good, new Timeline("t", "T", Raster.Hd, Samples.Rate, [Good]), Clips));
    }

    [Theory]
    [InlineData("25", 25, 1)]
    [InlineData("23.976", 24000, 1001)]
    [InlineData("29.97", 30000, 1001)]
    [InlineData("59.94005994", 60000, 1001)]
    [InlineData("24000/1001", 24000, 1001)]
    [InlineData("12.5", 12500, 1000)]
    public void Rates_are_read_as_people_write_them(string text, int numerator, int denominator) =>
        Assert.Equal(new FrameRate(numerator, denominator), Rates.Parse(text));

    [Theory]
    [InlineData("")]
    [InlineData("0")]
    [InlineData("-25")]
    [InlineData("25/0")]
    [InlineData("NaN")]
    [InlineData("fast")]
    public void What_is_no_rate_is_a_clear_error(string text) => Assert.Throws<FormatException>(() => Rates.Parse(text));

    [Fact]
    public void A_clip_that_is_not_made_is_named_once_while_the_passage_is_written()
    {
        var clips = new Dictionary<string, Clip>(Clips) { ["made"] = Clips["a"] with { Id = "made", Title = "The pit", Sha256 = "ab" } };
        var passage = new Passage("asked", 50, [new Layer("a", []), new Layer("made", []), new Layer("a", []), new Layer("gone", [])], []);

        Assert.Equal(
            "“The wings” is not created yet: create it under Footage before this machine plays it",
            Assert.Single(TimelineCheck.NotMade(passage, clips))
        );
    }
}
