namespace HardyBench.Core.Playback;

/// <summary>Where decoding and effects run: what settings ask for, and what runs report. A real machine also reports its devices by
/// FFmpeg's names.</summary>
public static class WorkPlace
{
    /// <summary>Nothing but the processor.</summary>
    public const string Processor = "processor";

    /// <summary>A stand-in's media engine.</summary>
    public const string MediaEngine = "media engine";

    /// <summary>A stand-in's graphics unit.</summary>
    public const string Graphics = "graphics";
}
