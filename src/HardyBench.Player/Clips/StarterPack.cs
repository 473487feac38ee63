using HardyBench.Core.Footage;

namespace HardyBench.Player.Clips;

/// <summary>The clips that ship as recipes: one performance, five encodings.</summary>
public static class StarterPack
{
    /// <summary>Two seconds each, at the rasters that the titles say.</summary>
    public static IReadOnlyList<ClipRecipe> Full { get; } = Recipes(1, seconds: 2);

    /// <summary>The same encodings at a third of each side, for tests and small machines.</summary>
    public static IReadOnlyList<ClipRecipe> Small { get; } = Recipes(3, seconds: 2);

    private static IReadOnlyList<ClipRecipe> Recipes(int divisor, int seconds)
    {
        var (hd, uhd) = (Raster.Hd.DividedBy(divisor), Raster.Uhd.DividedBy(divisor));
        var share = 1.0 / (divisor * divisor);
        var (r25, r50) = (new FrameRate(25), new FrameRate(50));
        return
        [
            new("hd-avc-25", "Wide, stage camera", Codec.Avc, ChromaSubsampling.Quarter, 8, hd, r25, 25 * seconds, 50, DataRate.FromMegabits(12 * share)),
            new("hd-avc-50", "Close, gimbal camera", Codec.Avc, ChromaSubsampling.Quarter, 8, hd, r50, 50 * seconds, 100, DataRate.FromMegabits(20 * share)),
            new("uhd-hevc-25", "Front, cinema camera", Codec.Hevc, ChromaSubsampling.Half, 10, uhd, r25, 25 * seconds, 50, DataRate.FromMegabits(100 * share)),
            new("hd-mezz-25", "Wide, as an intermediate", Codec.Rdd36, ChromaSubsampling.Half, 10, hd, r25, 25 * seconds, 1, null),
            new("uhd-mezz-25", "Front, as an intermediate", Codec.Rdd36, ChromaSubsampling.Half, 10, uhd, r25, 25 * seconds, 1, null),
        ];
    }
}
