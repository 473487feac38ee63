namespace HardyBench.Media.EffectFiles;

/// <summary>The font for titles: one that Debian's FFmpeg packages bring along.</summary>
public static class Fonts
{
    private static readonly string[] Known =
    [
        "/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf",
        "/usr/share/fonts/truetype/liberation/LiberationSans-Regular.ttf",
    ];

    public static string ForTitles => Array.Find(Known, File.Exists) ?? Known[0];
}
