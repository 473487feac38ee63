using CsCheck;
using HardyBench.Core.Footage;

namespace HardyBench.Core.Tests.Footage;

public sealed class FrameRateTests
{
    private static readonly FrameRate[] Known =
    [
        new(24000, 1001), new(24), new(25), new(30000, 1001), new(50), new(60000, 1001), new(120),
    ];

    private static readonly Gen<FrameRate> Rates = Gen.Int[0, 6].Select(index => Known[index]);

    [Fact]
    public void A_moment_belongs_to_the_frame_whose_slot_holds_it() =>
        Gen.Select(Rates, Gen.Long[0, 10_000_000]).Sample((rate, frame) =>
        {
            Assert.Equal(frame, rate.FrameAt(rate.StartOf(frame)));
            Assert.Equal(frame, rate.FrameAt(rate.StartOf(frame + 1) - TimeSpan.FromTicks(1)));
        });

    [Fact]
    public void Nothing_adds_up_over_a_day() =>
        Assert.Equal(TimeSpan.FromSeconds(86400 * 1.001), new FrameRate(30000, 1001).StartOf(86400 * 30));

    [Theory]
    [InlineData(50, 25, 3, 6)]
    [InlineData(25, 50, 3, 1)]
    [InlineData(24, 25, 25, 24)]
    public void The_source_frame_is_the_one_on_at_that_moment(int source, int timeline, long frame, long expected) =>
        Assert.Equal(expected, new FrameRate(timeline).SourceFrameFor(frame, new FrameRate(source)));

    [Fact]
    public void Impossible_values_cannot_be_built()
    {
        Assert.Throws<ArgumentOutOfRangeException>(() => new FrameRate(0));
        Assert.Throws<ArgumentOutOfRangeException>(() => new Raster(0, 1080));
    }

    /// <summary>Uncompressed active picture of 1080p25 4:2:2 10 bit: 1.0368 Gb/s (arithmetic of SMPTE ST 292-1, from memory).</summary>
    [Fact]
    public void Samples_of_a_frame_follow_the_chroma() =>
        Assert.Equal(1.0368e9, (Samples.HdAvc with { Chroma = ChromaSubsampling.Half }).SamplesPerFrame * 10 * 25, 0);
}
