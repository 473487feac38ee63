using CsCheck;
using HardyBench.Core.Footage.Strips;

namespace HardyBench.Core.Tests.Footage;

public sealed class IndexStripTests
{
    [Fact]
    public void What_was_written_is_read_at_any_size() =>
        Gen.Select(Gen.Int[0, 0xFFFF], Gen.Int[0, IndexStrip.LastFrame], Gen.Int[180, 2000], Gen.Int[90, 1100])
        .Sample((tag, frame, width, height) =>
            Assert.Equal(new StripReading(tag, frame), IndexStrip.Read(Draw(tag, frame, width, height), width, height, width)));

    [Fact]
    public void A_wrong_block_is_never_taken_for_another_number() =>
        Gen.Select(Gen.Int[0, 0xFFFF], Gen.Int[0, IndexStrip.LastFrame], Gen.Int[1, (1 << 30) - 1])
        .Sample((tag, frame, mask) =>
        {
            var picture = Draw(tag, frame, 640, 360, block => (mask >> block % 30 & 1) == 1 && block < 30);
            Assert.Null(IndexStrip.Read(picture, 640, 360, 640));
        });

    [Fact]
    public void Noise_and_flat_grey_are_unreadable()
    {
        var random = new Random(5);
        var noise = new byte[640 * 360];
        for (var i = 0; i < 300; i++)
        {
            random.NextBytes(noise);
            Assert.Null(IndexStrip.Read(noise, 640, 360, 640));
        }

        foreach (var grey in new byte[] { 0, 60, 128, 255 })
        {
            noise.AsSpan().Fill(grey);
            Assert.Null(IndexStrip.Read(noise, 640, 360, 640));
        }
    }

    [Fact]
    public void Random_blocks_of_full_contrast_are_unreadable()
    {
        var random = new Random(6);
        for (var i = 0; i < 20_000; i++)
        {
            var row = new byte[240 * 18];
            var blocks = Enumerable.Range(0, IndexStrip.Blocks).Select(_ => random.Next(2) == 1).ToArray();
            for (var x = 0; x < row.Length; x++)
            {
                row[x] = blocks[IndexStrip.BlockAt(x % 240, 240)] ? (byte)235 : (byte)16;
            }

            Assert.Null(IndexStrip.ReadRows(row, 240, 18, 240));
        }
    }

    [Theory]
    [InlineData(40, 0)]
    [InlineData(0, 30)]
    [InlineData(-25, 0)]
    public void A_cropped_picture_is_unreadable(int fromLeft, int fromBottom)
    {
        var picture = Draw(77, 1234, 640, 360);
        var (left, right) = (Math.Max(0, fromLeft), Math.Max(0, -fromLeft));
        var cropped = picture.AsSpan(left);
        Assert.Null(IndexStrip.Read(cropped, 640 - left - right, 360 - fromBottom - 1, 640));
    }

    private static byte[] Draw(int tag, int frame, int width, int height, Func<int, bool>? flip = null)
    {
        var blocks = IndexStrip.BlocksFor(tag, frame);
        var picture = new byte[width * height];
        picture.AsSpan().Fill(90);
        for (var i = (height - IndexStrip.HeightIn(height)) * width; i < picture.Length; i++)
        {
            var block = IndexStrip.BlockAt(i % width, width);
            picture[i] = blocks[block] ^ (flip?.Invoke(block) ?? false) ? (byte)235 : (byte)16;
        }

        return picture;
    }
}
