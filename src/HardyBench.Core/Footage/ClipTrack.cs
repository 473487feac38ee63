namespace HardyBench.Core.Footage;

/// <summary>Which track of its file a clip is, and where its frames lie in it. Found out once, when the file is inspected, so that
/// all who open the file later count the same frames of the same track.</summary>
/// <param name="Index">The container's number of it.</param>
/// <param name="Start">Time stamp of the first frame that is shown, in the track's own units.</param>
/// <param name="Keys">Frames on which decoding can start afresh, ascending; null where every one of them can, or where the file's own
/// index has to tell.</param>
/// <param name="Timecode">The timecode of the first frame as stated in the file, or null.</param>
/// <param name="HeldBack">Frames that decoding holds back to give them in the order of showing; null where nobody has looked.</param>
/// <param name="IsEven">Whether every frame has a picture of its own; null where nobody has looked.</param>
public sealed record ClipTrack(
    int Index, long Start, IReadOnlyList<int>? Keys = null, string? Timecode = null, int? HeldBack = null, bool? IsEven = null);
