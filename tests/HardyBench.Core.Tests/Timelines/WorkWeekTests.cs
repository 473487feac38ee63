using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Building;

namespace HardyBench.Core.Tests.Timelines;

/// <summary>A timeline that stands for a week's work.</summary>
public sealed class WorkWeekTests
{
    private static readonly Dictionary<string, Clip> Clips = new[]
    {
        new Clip("hd", "HD", Samples.HdAvc with { Rate = new FrameRate(50) }, 100, null),
        new Clip("uhd", "UHD", Samples.UhdHevc422, 100, null), new Clip("odd", "Odd", Samples.HdAvc with { Raster = new Raster(1279, 719) }, 100, null),
    }.ToDictionary(clip => clip.Id);

    /// <summary>Six, three and one of ten hours are 72, 36 and 12 of 120 seconds.</summary>
    [Fact]
    public void Each_kind_of_work_has_its_share_of_two_minutes()
    {
        var timeline = Week(
            new("uhd", UsualTreatment.Graded, 1, 6), new("hd", UsualTreatment.Cut, 4, 3), new("uhd", UsualTreatment.Cleaned, 1, 1));

        Assert.Equal((Raster.Uhd, Samples.UhdHevc422.Rate, 10), (timeline.Raster, timeline.Rate, timeline.BitDepth));
        Assert.Equal([72 * 25, 36 * 25, 12 * 25], timeline.Passages.Select(passage => passage.FrameCount));
        Assert.Equal([1, 4, 1], timeline.Passages.Select(passage => passage.Layers.Count));
        Assert.Equal(
            [["primary-grade"], [], ["noise-reduction", "primary-grade"]],
            timeline.Passages.Select(passage => passage.Over.Select(effect => effect.Id)));
        Assert.EndsWith("4 streams", timeline.Passages[1].Question, StringComparison.Ordinal);
        Assert.Empty(timeline.Passages.SelectMany(passage => TimelineCheck.ProblemsOf(passage, Clips)));
        Assert.Empty(TimelineLimits.Problems(timeline));
    }

    [Fact]
    public void Rare_work_is_long_enough_for_a_verdict_and_what_is_said_twice_is_added_up()
    {
        var timeline = Week(
            new("uhd", UsualTreatment.Titled, 1, 100), new("hd", UsualTreatment.Cut, 1, 0.01), new("uhd", UsualTreatment.Titled, 1, 20));

        Assert.Equal([120 * 25, 4 * 25], timeline.Passages.Select(passage => passage.FrameCount));
        Assert.Equal(2, timeline.Passages.Count);
    }

    /// <summary>Two rasters with 4 hours each outweigh one with 5 only together with their own; each counts by itself.</summary>
    [Fact]
    public void Raster_and_rate_are_those_of_most_hours_each_by_itself()
    {
        var timeline = Week(
            new("hd", UsualTreatment.Cut, 1, 5), new("uhd", UsualTreatment.Cut, 1, 4), new("odd", UsualTreatment.Cut, 1, 4));

        Assert.Equal(Samples.HdAvc.Raster, timeline.Raster);
        Assert.Equal(25, timeline.Rate.FramesPerSecond);
        Assert.Equal(new Raster(1278, 718), Week(new WeekRow("odd", UsualTreatment.Cut, 1, 1)).Raster);
    }

    [Theory]
    [InlineData("none", 1, 5, "no clip 'none'")]
    [InlineData("hd", 0, 5, "not 0")]
    [InlineData("hd", 17, 5, "1 to 16 streams")]
    [InlineData("hd", 1, 0, "more than 0 and at most 168")]
    [InlineData("hd", 1, double.NaN, "not NaN")]
    [InlineData("hd", 1, 169, "at most 168")]
    [InlineData(null, 1, 5, "no clip ''")]
    public void A_row_that_cannot_be_is_named_with_the_reason(string? clip, int streams, double hours, string why)
    {
        var refused = Assert.Throws<SeriesException>(() =>
            Week(new("uhd", UsualTreatment.Cut, 1, 5), new(clip!, UsualTreatment.Cut, streams, hours)));

        Assert.StartsWith("Row 2: ", refused.Message, StringComparison.Ordinal);
        Assert.Contains(why, refused.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_week_has_some_rows_and_not_too_many()
    {
        Assert.Throws<SeriesException>(() => Week());
        Assert.Throws<SeriesException>(() => Week([.. Enumerable.Repeat(new WeekRow("hd", UsualTreatment.Cut, 1, 1), 41)]));
        Assert.Throws<SeriesException>(() => Week(new WeekRow("hd", (UsualTreatment)9, 1, 1)));
        Assert.Contains("Row 1: it is empty.", Assert.Throws<SeriesException>(() => Week([null!])).Message, StringComparison.Ordinal);
    }

    private static Timeline Week(params WeekRow[] rows) => WorkWeek.Of("Week", rows, Clips);
}
