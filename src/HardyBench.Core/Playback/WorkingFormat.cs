namespace HardyBench.Core.Playback;

/// <summary>How pictures are held between effects, in FFmpeg's names of pixel formats.</summary>
public static class WorkingFormat
{
    /// <param name="deep">Whether more than 8 bits a sample are kept.</param>
    public static string Of(bool deep) => deep ? "yuv422p10le" : "yuv420p";

    /// <summary>The same with transparency.</summary>
    public static string TransparentOf(bool deep) => deep ? "yuva422p10le" : "yuva420p";
}
