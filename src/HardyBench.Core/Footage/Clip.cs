namespace HardyBench.Core.Footage;

/// <summary>One clip as a timeline knows it. Where its file lies is the player's business.</summary>
/// <param name="Id">Short lasting name, such as "hd-avc-25".</param>
/// <param name="FrameCount">Frames in the file; a longer passage loops it.</param>
/// <param name="Sha256">Lower-case hex digest of the file, or null while there is no file.</param>
/// <param name="Profile">Profile and level as the file itself says, or null where it says none.</param>
/// <param name="Caveats">What a tester should know before trusting it, a phrase each; null for nothing.</param>
/// <param name="Track">Where in its file it lies; null while there is no file, or nobody has looked.</param>
public sealed record Clip(
    string Id,
    string Title,
    ClipFormat Format,
    int FrameCount,
    string? Sha256,
    string? Profile = null,
    IReadOnlyList<string>? Caveats = null,
    ClipTrack? Track = null);
