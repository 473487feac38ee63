using HardyBench.Media.Clips;
using HardyBench.Player.Decoding;

namespace HardyBench.Player.Tests.Decoding;

public sealed class KeyFramesTests
{
    private static readonly KeyFrames Gop20 = new([0, 20, 40], 50);

    [Theory]
    [InlineData(0, 0, 0)]
    [InlineData(19, 0, 20)]
    [InlineData(20, 20, 20)]
    [InlineData(41, 40, 50)]
    [InlineData(50, 50, 50)]
    [InlineData(75, 70, 90)]
    [InlineData(1049, 1040, 1050)]
    public void Key_frames_go_on_over_loops(long frame, long last, long first)
    {
        Assert.Equal(last, Gop20.LastUpTo(frame));
        Assert.Equal(first, Gop20.FirstFrom(frame));
    }

    [Fact]
    public void All_intra_is_known_by_its_keys()
    {
        Assert.True(new KeyFrames([0, 1, 2], 3).AllIntra);
        Assert.False(Gop20.AllIntra);
        Assert.Equal(20, Gop20.LongestGop);
    }

    private static IEnumerable<ClipRecipe> Demo(ClipFolder clips) => clips.Recipes.Where(recipe => StarterPack.DemoIds.Contains(recipe.Id));

    [Fact]
    public async Task Clips_of_the_pack_have_the_gops_that_they_were_asked_for()
    {
        var clips = await TestData.ClipsAsync();

        Assert.All(Demo(clips), recipe => Assert.Equal(recipe.GopLength, clips.Made(recipe)!.Format.GopLength));
    }

    /// <summary>A clip that was looked into is opened without decoding anything to find out about it.</summary>
    [Fact]
    public async Task What_is_known_of_a_clip_changes_none_of_its_pictures()
    {
        var clips = await TestData.ClipsAsync();
        foreach (var clip in Demo(clips).Select(recipe => clips.Made(recipe)!))
        {
            Assert.Equal(clip.Format.IsAllIntra ? 0 : 2, clip.Track!.HeldBack);
            var unknown = clip with { Track = clip.Track with { HeldBack = null } };
            using ClipDecoder known = new(ClipSource.Of(clip, clips), 2), asBefore = new(ClipSource.Of(unknown, clips), 2);
            for (var frame = 0; frame < clip.FrameCount + 5; frame++)
            {
                using DecodedFrame one = known.Next(), other = asBefore.Next();
                Assert.Equal(other.Number, one.Number);
                Assert.True(other.Picture.CopyPlanes().AsSpan().SequenceEqual(one.Picture.CopyPlanes()), $"{clip.Id}, frame {frame}");
            }
        }
    }

    [Fact]
    public async Task Decoding_goes_round_without_losing_or_repeating_a_frame()
    {
        var clips = await TestData.ClipsAsync();
        foreach (var recipe in Demo(clips))
        {
            using var decoder = new ClipDecoder(clips.FileOf(recipe), 2);
            var numbers = new List<long>();
            for (var i = 0; i < recipe.FrameCount * 2 + 5; i++)
            {
                using var frame = decoder.Next();
                numbers.Add(frame.Number);
            }

            Assert.Equal(Enumerable.Range(0, numbers.Count).Select(n => (long)n), numbers);
        }
    }

    [Fact]
    public async Task A_leap_goes_on_at_the_frame_asked_for()
    {
        var clips = await TestData.ClipsAsync();
        using var intra = new ClipDecoder(clips.PathOf(clips.Clips["hd-mezz-25"]), 1);
        using var longGop = new ClipDecoder(clips.PathOf(clips.Clips["hd-avc-25"]), 1);
        intra.Next().Dispose();
        longGop.Next().Dispose();

        intra.GoTo(33);
        longGop.GoTo(50);

        using var fromIntra = intra.Next();
        using var fromLongGop = longGop.Next();
        Assert.Equal(33, fromIntra.Number);
        Assert.Equal(50, fromLongGop.Number);
    }

    [Fact]
    public async Task Unreferenced_frames_can_be_left_out_and_taken_up_again()
    {
        var clips = await TestData.ClipsAsync();
        using var decoder = new ClipDecoder(clips.PathOf(clips.Clips["hd-avc-25"]), 1);
        decoder.SkipUnreferencedBefore(long.MaxValue);
        var skipping = Take(decoder, 20);
        decoder.SkipUnreferencedBefore(0);
        Take(decoder, 10);
        var all = Take(decoder, 20);

        Assert.True(skipping[^1] - skipping[0] > 25, string.Join(' ', skipping));
        Assert.Equal(19, all[^1] - all[0]);
    }

    [Fact]
    public async Task Reading_is_what_its_frames_took_to_be_read()
    {
        var clips = await TestData.ClipsAsync();
        using var decoder = new ClipDecoder(clips.PathOf(clips.Clips["hd-mezz-25"]), 1);
        var (before, frames) = (decoder.Reading, TimeSpan.Zero);
        for (var number = 0; number < 20; number++)
        {
            using var frame = decoder.Next();
            frames += frame.Read;
        }

        // Each frame's time is cut to whole ticks.
        Assert.Equal(TimeSpan.Zero, before);
        Assert.InRange(decoder.Reading - frames, TimeSpan.Zero, TimeSpan.FromTicks(20));
        Assert.True(frames > TimeSpan.Zero);
    }

    private static List<long> Take(ClipDecoder decoder, int count)
    {
        var numbers = new List<long>();
        while (numbers.Count < count)
        {
            using var frame = decoder.Next();
            numbers.Add(frame.Number);
        }

        return numbers;
    }
}
