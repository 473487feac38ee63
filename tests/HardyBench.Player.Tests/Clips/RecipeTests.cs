using HardyBench.Media.Clips;

namespace HardyBench.Player.Tests.Clips;

public sealed class RecipeTests
{
    public static TheoryData<string> Recipes => new(StarterPack.Small.Select(recipe => recipe.Id));

    /// <summary>Each recipe is made for real, a few frames of it, and read back.</summary>
    [Theory]
    [MemberData(nameof(Recipes))]
    public async Task Every_recipe_gives_what_it_asks_for(string id)
    {
        var whole = StarterPack.Small.Single(recipe => recipe.Id == id);
        var recipe = whole with
        {
            FrameCount = Math.Min(6, whole.FrameCount),
            Raster = new Core.Footage.Raster(whole.Raster.Width / 2 & ~1, whole.Raster.Height / 2 & ~1),
        };
        var folder = new ClipFolder(TestData.NewFolder("recipe"), [recipe]);

        await new ClipCreator(folder).MakeAsync([id], null, CancellationToken.None);

        var made = folder.Made(recipe)!;
        Assert.Equal(
            (recipe.Codec, recipe.Chroma, recipe.BitDepth, recipe.Raster, recipe.Rate, recipe.FrameCount),
            (made.Format.Codec, made.Format.Chroma, made.Format.BitDepth, made.Format.Raster, made.Format.Rate, made.FrameCount));
        Assert.Equal(Math.Min(recipe.GopLength, recipe.FrameCount), made.Format.GopLength);

        using var decoder = new HardyBench.Player.Decoding.ClipDecoder(folder.FileOf(recipe), 2);
        for (var frame = 0; frame < recipe.FrameCount * 2 + 1; frame++)
        {
            using var decoded = decoder.Next();
            Assert.Equal(frame, decoded.Number);
        }
    }

    [Fact]
    public void There_are_many_each_with_a_name_of_its_own_and_the_demo_s_among_them()
    {
        Assert.True(StarterPack.Full.Count >= 28);
        Assert.Equal(StarterPack.Full.Count, StarterPack.Full.Select(recipe => recipe.Id).Distinct().Count());
        Assert.Empty(StarterPack.DemoIds.Except(StarterPack.Full.Select(recipe => recipe.Id)));
        Assert.Contains(StarterPack.Full, recipe => recipe.Raster == new Core.Footage.Raster(8192, 4320));
    }
}
