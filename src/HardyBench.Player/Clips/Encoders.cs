using System.Globalization;
using HardyBench.Core.Footage;

namespace HardyBench.Player.Clips;

/// <summary>FFmpeg's arguments for each codec.</summary>
internal static class Encoders
{
    public static string Arguments(ClipRecipe recipe)
    {
        var format = $"-pix_fmt {PixelFormat(recipe)} -an -movflags +faststart";
        return recipe.Codec switch
        {
            Codec.Avc => $"-c:v libx264 -preset veryfast -g {recipe.GopLength} -keyint_min {recipe.GopLength} -sc_threshold 0 {Rate(recipe)} {format}",
            Codec.Hevc => $"-c:v libx265 -preset ultrafast -tag:v hvc1 -x265-params log-level=error:open-gop=0:scenecut=0:keyint={recipe.GopLength}:min-keyint={recipe.GopLength} {Rate(recipe)} {format}",
            Codec.Rdd36 => $"-c:v prores_aw -profile:v 2 {format}",
            _ => throw new ArgumentOutOfRangeException(nameof(recipe), recipe.Codec, "No encoder for this codec yet."),
        };
    }

    private static string Rate(ClipRecipe recipe) =>
        string.Create(CultureInfo.InvariantCulture, $"-b:v {recipe.TargetRate?.BitsPerSecond ?? 0}");

    private static string PixelFormat(ClipRecipe recipe)
    {
        var chroma = recipe.Chroma switch
        {
            ChromaSubsampling.Quarter => "yuv420p",
            ChromaSubsampling.Half => "yuv422p",
            _ => "yuv444p",
        };
        return recipe.BitDepth == 8 ? chroma : $"{chroma}{recipe.BitDepth}le";
    }
}
