using HardyBench.Core.Findings;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Findings;

public sealed class SustainedRateTests
{
    /// <summary>What was done before the cut comes in one burst, and the last frames wait for the next passage's: neither is this passage's
    /// pace.</summary>
    [Fact]
    public void Frames_near_the_cuts_do_not_count()
    {
        var shown = Enumerable.Range(0, 75).Select(n => Samples.Ms(n < 10 ? n * 0.1 : n >= 65 ? 3000 + (n * 90) : 100 + (n * 20)));

        Assert.Equal(50, SustainedRate.Of([.. shown], new PlaybackSettings()), 6);
    }

    /// <summary>A longer look-ahead has more of them done before the cut.</summary>
    [Fact]
    public void As_many_are_left_aside_as_may_be_under_way()
    {
        var shown = Enumerable.Range(0, 400).Select(n => Samples.Ms(n < 64 ? n * 0.1 : n * 20)).ToList();

        Assert.Equal(50, SustainedRate.Of(shown, new PlaybackSettings(LookAhead: 60)), 6);
        Assert.NotEqual(50, SustainedRate.Of(shown, new PlaybackSettings()), 1);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(5)]
    public void Of_too_few_frames_nothing_is_said(int frames) =>
        Assert.Equal(0, SustainedRate.Of([.. Enumerable.Range(0, frames).Select(n => Samples.Ms(n * 20))], new PlaybackSettings()));

    [Fact]
    public void Frames_that_all_come_at_once_say_nothing() =>
        Assert.Equal(0, SustainedRate.Of([.. Enumerable.Repeat(Samples.Ms(20), 50)], new PlaybackSettings()));
}
