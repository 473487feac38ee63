using System.Globalization;
using HardyBench.Core.Footage;
using HardyBench.Formats.Interchange;

namespace HardyBench.Formats.Tests.Interchange;

/// <summary>Lists of CMX 3600 do not say how many frames a second they count.</summary>
public sealed class EdlRateTests
{
    /// <summary>ST 12-1: a rate counts frames from 0 to one below it, and only 30/1.001 and 60/1.001 leave numbers out.</summary>
    [Theory]
    [InlineData("NON-DROP FRAME", ':', 24, 1, "25", "24")]
    [InlineData("NON-DROP FRAME", ':', 23, 40, "24", "23")]
    [InlineData("NON-DROP FRAME", ':', 23, 1, "25", "little")]
    [InlineData("NON-DROP FRAME", ':', 29, 1, "29.97", "29")]
    [InlineData("NON-DROP FRAME", ':', 49, 1, "50", "49")]
    [InlineData("NON-DROP FRAME", ':', 59, 1, "59.94", "59")]
    [InlineData("DROP FRAME", ':', 12, 1, "29.97", "drop-frame")]
    [InlineData(null, ';', 12, 1, "29.97", "drop-frame")]
    [InlineData("DROP FRAME", ';', 45, 1, "59.94", "drop-frame")]
    public void The_likely_rate_follows_from_the_counting_and_the_numbers_seen(
        string? counting,
        char sign,
        int highest,
        int events,
        string likely,
        string why
    )
    {
        var text =
            (counting is null ? "" : $"FCM: {counting}\n")
            + string.Concat(
                Enumerable
                    .Range(1, events)
                    .Select(number =>
                        string.Create(
            CultureInfo.InvariantCulture,
            $"{number:000}  REEL V C 01:00:00{sign}00 01:00:01{sign}{highest:00} 01:00:{number:00}{sign}02 01:00:{number + 1:00}{sign}02\n"
                        )
                    )
            );

        var rate = EdlRate.Of(text);

        Assert.Equal(likely, rate.Likely.ToString());
        Assert.Contains(why, rate.Why, StringComparison.Ordinal);
        Assert.All(rate.Possible, possible => Assert.True(possible.NominalFramesPerSecond > highest));
        Assert.Contains(rate.Likely, rate.Possible);
        // Whatever is offered reads the list.
        Assert.All(rate.Possible, possible => Assert.Equal(possible, EdlReader.Read(text, possible).Rate));
    }

    [Fact]
    public void A_list_of_no_numbers_can_be_of_any_rate_and_one_that_no_rate_counts_is_refused()
    {
        Assert.Contains(new FrameRate(24000, 1001), EdlRate.Of("").Possible);
        Assert.Contains(
            "999",
            Assert.Throws<InterchangeException>(() => EdlRate.Of("1 A V C 01:00:00:00 01:00:00:999 01:00:00:00 01:00:00:10")).Message,
            StringComparison.Ordinal
        );
    }
}
