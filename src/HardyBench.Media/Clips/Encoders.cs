using HardyBench.Core.Footage;
using static System.FormattableString;

namespace HardyBench.Media.Clips;

/// <summary>FFmpeg's arguments for each codec, fast presets throughout: it is decoding that is tested.</summary>
internal static class Encoders
{
    /// <summary>Names of the data rates of VC-3 as FFmpeg knows them; the last has 10 bits.</summary>
    private static readonly string[] Vc3Profiles = ["dnxhr_lb", "dnxhr_sq", "dnxhr_hq", "dnxhr_hqx"];

    /// <summary>They hold no names of anybody's, so that a space always parts two arguments.</summary>
    public static IReadOnlyList<string> Arguments(ClipRecipe recipe)
    {
        // The index comes first, so that a file cut off later still opens.
        var pixels = $"-pix_fmt {PixelFormat(recipe)} -an{(Container(recipe.Codec) == ".mkv" ? string.Empty : " -movflags +faststart")}";
        var (gop, b) = (recipe.GopLength, recipe.GopLength <= 1 ? 0 : recipe.BidirectionalFrames);
        return Invariant(recipe.Codec switch
        {
            Codec.Avc =>
                $"-c:v libx264 -threads 1 -preset veryfast -g {gop} -keyint_min {gop} -bf {b} -sc_threshold 0 {SteadyRate(recipe)} {pixels}",
            Codec.Hevc =>
                $"-c:v libx265 -preset ultrafast -tag:v hvc1 -x265-params log-level=error:const-vbv=1:frame-threads=1:open-gop=0:scenecut=0:keyint={gop}:min-keyint={gop}:bframes={b} {SteadyRate(recipe)} {pixels}",
            Codec.Av1 => $"-c:v libsvtav1 -preset 10 -g {gop} {Rate(recipe)} {pixels}",
            Codec.Vp9 => $"-c:v libvpx-vp9 -deadline realtime -cpu-used 8 -row-mt 1 -g {gop} {Rate(recipe)} {pixels}",
            Codec.Mpeg2 =>
                $"-c:v mpeg2video -profile:v 0 -level:v 2 -g {gop} -bf {Math.Min(2, b)} -intra_vlc 1 -flags +cgop -sc_threshold 1000000000 {Rate(recipe)} {pixels}",
            Codec.MotionJpeg => $"-c:v mjpeg -q:v 4 -strict unofficial {pixels}",
            Codec.Jpeg2000 => $"-c:v libopenjpeg -compression_level 10 {pixels}",
            Codec.Vc3 => $"-c:v dnxhd -profile:v {Vc3Profiles[recipe.Grade]} {pixels}",
            Codec.Vc5 => $"-c:v cfhd -quality {(recipe.Grade == 0 ? "low" : "film1")} {pixels}",
            Codec.Rdd36 => $"-c:v prores_aw -profile:v {recipe.Grade} {pixels}",
            Codec.Ffv1 => $"-c:v ffv1 -level 3 -g 1 -slices 16 -slicecrc 1 {pixels}",
            Codec.Png => $"-c:v png {pixels}",
            _ => throw new ArgumentOutOfRangeException(nameof(recipe), recipe.Codec, "No encoder for this codec."),
        }).Split(' ', StringSplitOptions.RemoveEmptyEntries);
    }

    public static string Container(Codec codec) => codec switch
    {
        Codec.Avc or Codec.Hevc or Codec.Av1 or Codec.Vp9 => ".mp4",
        Codec.Ffv1 => ".mkv",
        _ => ".mov",
    };

    public static double EstimatedBitsPerPixel(Codec codec, int grade) => codec switch
    {
        Codec.Rdd36 => 1.2 + 1.4 * grade,
        Codec.Vc3 => 1 + 1.3 * grade,
        Codec.Vc5 => 3 + 2 * grade,
        Codec.MotionJpeg => 3,
        Codec.Jpeg2000 => 2,
        Codec.Ffv1 => 12,
        Codec.Png => 20,
        _ => 1,
    };

    private static FormattableString Rate(ClipRecipe recipe) => $"-b:v {recipe.TargetRate?.BitsPerSecond ?? 0}";

    /// <summary>
    /// With a buffer of a third of a second, as in cameras that record at a constant rate. Without it the first frames of so short a clip
    /// get three to six times as many bits as the others, and a loop repeats that in every GOP. With a buffer, AVC's frame threads give
    /// another file each time, and so do HEVC's without <c>const-vbv</c> (both tried with FFmpeg 5.1 of Debian 12); hence AVC is encoded in
    /// one thread.
    /// </summary>
    private static FormattableString SteadyRate(ClipRecipe recipe) =>
        $"{Rate(recipe)} -maxrate {recipe.TargetRate?.BitsPerSecond ?? 0} -bufsize {(recipe.TargetRate?.BitsPerSecond ?? 0) / 3}";

    private static string PixelFormat(ClipRecipe recipe)
    {
        if (recipe.Codec == Codec.Png)
        {
            return "rgb24";
        }

        var full = recipe.Codec == Codec.MotionJpeg ? "j" : string.Empty;
        var chroma = recipe.Chroma switch
        {
            ChromaSubsampling.Quarter => $"yuv{full}420p",
            ChromaSubsampling.Half => $"yuv{full}422p",
            _ => $"yuv{full}444p",
        };
        return recipe.BitDepth == 8 ? chroma : $"{chroma}{recipe.BitDepth}le";
    }
}
