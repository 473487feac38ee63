using HardyBench.Core.Footage;

namespace HardyBench.Player.Decoding;

/// <summary>A file to decode, and what is known of it already.</summary>
/// <param name="Rate">By which its time stamps become frame numbers; null for what the container says.</param>
/// <param name="FrameCount">Frames of one loop; 0 when it is not known.</param>
/// <param name="Track">Null for the best track of the file.</param>
/// <param name="AllIntra">Whether every frame is known to stand alone.</param>
public sealed record ClipSource(string Path, FrameRate? Rate = null, int FrameCount = 0, ClipTrack? Track = null, bool AllIntra = false)
{
    /// <exception cref="MediaException">There is no file for the clip.</exception>
    public static ClipSource Of(Clip clip, IClipFiles files) => clip.Track is null
        ? new ClipSource(files.PathOf(clip))
        : new ClipSource(
            files.PathOf(clip),
            clip.Format.Rate,
            clip.FrameCount,
            clip.Track,
            clip.Format.IsAllIntra && clip.Track.Keys is null
        );

    /// <summary>Words for people: the file's name.</summary>
    public string Name => System.IO.Path.GetFileName(Path);
}
