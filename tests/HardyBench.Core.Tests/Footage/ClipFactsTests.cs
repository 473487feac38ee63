using HardyBench.Core.Footage;
using HardyBench.Core.Footage.Levels;

namespace HardyBench.Core.Tests.Footage;

public sealed class ClipFactsTests
{
    /// <summary>SMPTE ST 292-1: the active picture of 1080p25 4:2:2 10 bit is 1.0368 Gb/s. Value from memory.</summary>
    [Fact]
    public void Uncompressed_1080p25_422_10_bit_is_1_0368_gigabits_a_second()
    {
        var facts = ClipFacts.Of(new(Codec.Avc, ChromaSubsampling.Half, 10, Raster.Hd, new FrameRate(25), 1, DataRate.FromMegabits(100)));

        Assert.Equal(1_036_800_000, facts.Uncompressed.BitsPerSecond);
        Assert.Equal(103_680_000, facts.SamplesPerSecond);
        Assert.Equal(10.368, facts.CompressionRatio, 9);
        Assert.Equal(1920 * 1080 * 2 * 2 * 25, facts.MemoryPerSecond);
    }

    /// <summary>Common practice, no source: twelve minutes of UHD at 110 Mb/s are 9.9 GB.</summary>
    [Fact]
    public void Twelve_minutes_at_110_megabits_are_9_9_gigabytes() =>
        Assert.Equal(9.9, ClipFacts.Of(Format(Codec.Hevc, Raster.Uhd, 25, 110)).GigabytesPerHour / 5, 2);

    [Theory]
    [InlineData(1, 1, 1)]
    [InlineData(12, 6.5, 12)]
    [InlineData(50, 25.5, 50)]
    public void A_random_access_decodes_half_a_GOP_on_average_and_all_of_it_at_worst(int gop, double mean, int worst)
    {
        var facts = ClipFacts.Of(Format(Codec.Avc, Raster.Hd, 25, 10) with { GopLength = gop });

        // By hand: the n-th frame of a GOP needs n frames decoded.
        Assert.Equal(Enumerable.Range(1, gop).Average(), facts.MeanRandomAccess);
        Assert.Equal((mean, worst), (facts.MeanRandomAccess, facts.WorstRandomAccess));
    }

    [Theory]
    [InlineData(50, 25, 50, 1, 2)]
    [InlineData(50, 25, 1, 1, 1)]
    [InlineData(25, 50, 50, 1, 0.5)]
    [InlineData(50, 25, 50, 0.5, 1)]
    [InlineData(100, 25, 1, 0.1, 0.4)]
    public void Long_GOP_decodes_all_that_runs_by_and_all_intra_only_what_is_shown(
        int source,
        int timeline,
        int gop,
        double speed,
        double expected
    ) =>
        Assert.Equal(expected, ClipFacts.SourceFramesPerTimelineFrame(
            Format(Codec.Avc, Raster.Hd, source, 10) with { GopLength = gop }, new FrameRate(timeline), speed), 9);

    [Fact]
    public void A_drive_feeds_as_many_whole_streams_as_fit() =>
        Assert.Equal(5, ClipFacts.StreamsFrom(Format(Codec.Rdd36, Raster.Uhd, 25, 726), 500));

    /// <summary>ITU-T H.264 table A-1 and H.265 annex A; values from memory. They are checked against encoders too.</summary>
    [Theory]
    [InlineData(Codec.Avc, 1920, 1080, 25, "4")]
    [InlineData(Codec.Avc, 1920, 1080, 50, "4.2")]
    [InlineData(Codec.Avc, 3840, 2160, 30, "5.1")]
    [InlineData(Codec.Avc, 3840, 2160, 60, "5.2")]
    [InlineData(Codec.Avc, 7680, 4320, 120, "6.2")]
    [InlineData(Codec.Hevc, 1920, 1080, 25, "4")]
    [InlineData(Codec.Hevc, 1920, 1080, 60, "4.1")]
    [InlineData(Codec.Hevc, 3840, 2160, 25, "5")]
    [InlineData(Codec.Hevc, 3840, 2160, 60, "5.1")]
    [InlineData(Codec.Hevc, 8192, 4320, 60, "6.1")]
    [InlineData(Codec.Av1, 1920, 1080, 25, "4.0")]
    [InlineData(Codec.Av1, 3840, 2160, 60, "5.1")]
    public void The_lowest_level_that_admits_raster_and_rate(Codec codec, int width, int height, int rate, string level) =>
        Assert.Equal(level, LevelTables.Of(Format(codec, new Raster(width, height), rate, 1))!.Level);

    [Fact]
    public void What_no_level_admits_is_refused_in_words_and_so_is_too_high_a_data_rate()
    {
        var huge = LevelTables.Of(Format(Codec.Hevc, new Raster(16384, 8640), 120, 100))!;
        var fast = LevelTables.Of(Format(Codec.Avc, Raster.Hd, 25, 40))!;

        Assert.Null(huge.Level);
        Assert.Equal("no level of HEVC admits 16384×8640 120", huge.Refusal);
        Assert.Equal(("High", "4", 25), (fast.Profile, fast.Level, fast.Admitted!.Value.MegabitsPerSecond));
        Assert.Equal("40 Mb/s is more than the 25 Mb/s of level 4", fast.Refusal);
        Assert.Null(LevelTables.Of(Format(Codec.Vc3, Raster.Hd, 25, 100)));
    }

    private static ClipFormat Format(Codec codec, Raster raster, int rate, double megabits) =>
        new(codec, ChromaSubsampling.Quarter, 8, raster, new FrameRate(rate), 50, DataRate.FromMegabits(megabits));
}
