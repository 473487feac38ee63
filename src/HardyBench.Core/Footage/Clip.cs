namespace HardyBench.Core.Footage;

/// <summary>One clip as a timeline knows it. Where its file lies is the player's business.</summary>
/// <param name="Id">Short lasting name, such as "hd-avc-25".</param>
/// <param name="FrameCount">Frames in the file; a longer passage loops it.</param>
/// <param name="Sha256">Lower-case hex digest of the file, or null while there is no file.</param>
public sealed record Clip(string Id, string Title, ClipFormat Format, int FrameCount, string? Sha256);
